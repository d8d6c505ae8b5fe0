import type { Ref } from '../part-kind';
import { Primitive } from '../primitive';
import { add, and, choose, constant, equals, not, one, or, pick, xor, zero } from '../words';
import { definePackage, type PackageType, type UnitBuilder } from './package-type';

const nand = (u: UnitBuilder, name: string, ...nets: Ref[]) => u.show(name, and(u.b, ...nets), Primitive.NOT);

const decoder138 = definePackage(
  {
    number: '138',
    says: 'A decoder from three bits to eight outputs that act at 0, with three enables.',
    pins: "A B C G2A' G2B' G1 >Y7' GND >Y6' >Y5' >Y4' >Y3' >Y2' >Y1' >Y0' VCC",
    ns: { '74HC': 15, '74LS': 21 },
    exchangeable: ["G2A' G2B'"],
  },
  (u) => {
    const enabled = and(u.b, u.pin('G1'), u.low("G2A'"), u.low("G2B'"));
    for (let n = 0; n < 8; n++) nand(u, `Y${n}'`, enabled, equals(u.b, u.word('A B C'), n));
  },
);

const decoder139 = definePackage(
  {
    number: '139',
    says: 'Two decoders from two bits to four outputs that act at 0, each with an enable.',
    pins: "1G' 1A 1B >1Y0' >1Y1' >1Y2' >1Y3' GND >2Y3' >2Y2' >2Y1' >2Y0' 2B 2A 2G' VCC",
    ns: { '74HC': 12, '74LS': 20 },
  },
  (u) => {
    for (let n = 0; n < 4; n++) nand(u, `Y${n}'`, u.low("G'"), equals(u.b, u.word('A B'), n));
  },
);

/** The number of the highest of some nets that is 1, the lowest bit first. */
function highest(u: UnitBuilder, nets: readonly Ref[], first: number, width: number): Ref[] {
  let word = constant(u.b, 0, width);
  for (const [i, net] of nets.entries()) word = choose(u.b, net, word, constant(u.b, i + first, width));
  return word;
}

const encoder147 = definePackage(
  {
    number: '147',
    says: 'The number of the highest of nine inputs as four bits; inputs and outputs act at 0.',
    pins: "4' 5' 6' 7' 8' >C' >B' GND >A' 9' 1' 2' 3' >D' NC VCC",
    ns: { '74HC': 17, '74LS': 15 },
  },
  (u) => {
    const nets = Array.from({ length: 9 }, (_, i) => u.low(`${i + 1}'`));
    for (const [i, bit] of highest(u, nets, 1, 4).entries()) u.show(`${'ABCD'[i]}'`, bit, Primitive.NOT);
  },
);

const encoder148 = definePackage(
  {
    number: '148',
    says: 'The number of the highest of eight inputs as three bits; inputs and outputs act at 0.',
    pins: "4' 5' 6' 7' EI' >A2' >A1' GND >A0' 0' 1' 2' 3' >GS' >EO' VCC",
    ns: { '74HC': 17, '74LS': 14 },
  },
  (u) => {
    const enabled = u.low("EI'");
    const nets = Array.from({ length: 8 }, (_, i) => u.low(`${i}'`));
    const any = or(u.b, ...nets);
    for (const [i, bit] of highest(u, nets, 0, 3).entries()) nand(u, `A${i}'`, enabled, bit);
    nand(u, "GS'", enabled, any);
    nand(u, "EO'", enabled, not(u.b, any));
  },
);

const selector151 = definePackage(
  {
    number: '151',
    says: 'One of eight inputs, as three bits select, on an output and its complement.',
    pins: "D3 D2 D1 D0 >Y >W' G' GND C B A D7 D6 D5 D4 VCC",
    ns: { '74HC': 17, '74LS': 20 },
  },
  (u) => {
    const words = Array.from({ length: 8 }, (_, i) => [u.pin(`D${i}`)]);
    const chosen = and(u.b, pick(u.b, u.word('A B C'), words)[0]!, u.low("G'"));
    u.show('Y', chosen);
    u.show("W'", chosen, Primitive.NOT);
  },
);

const selector153 = definePackage(
  {
    number: '153',
    says: 'Two times one of four inputs, selected by the same two bits.',
    pins: "1G' B 1C3 1C2 1C1 1C0 >1Y GND >2Y 2C0 2C1 2C2 2C3 A 2G' VCC",
    ns: { '74HC': 15, '74LS': 18 },
  },
  (u) => {
    for (const n of [1, 2]) {
      const words = [0, 1, 2, 3].map((i) => [u.pin(`${n}C${i}`)]);
      u.show(`${n}Y`, and(u.b, pick(u.b, u.word('A B'), words)[0]!, u.low(`${n}G'`)));
    }
  },
);

const selector157 = definePackage(
  {
    number: '157',
    says: 'Four times one of two inputs, selected by the same bit.',
    pins: "S 1A 1B >1Y 2A 2B >2Y GND >3Y 3B 3A >4Y 4B 4A G' VCC",
    ns: { '74HC': 11, '74LS': 12 },
  },
  (u) => {
    for (const n of [1, 2, 3, 4]) {
      const chosen = choose(u.b, u.pin('S'), [u.pin(`${n}A`)], [u.pin(`${n}B`)])[0]!;
      u.show(`${n}Y`, and(u.b, chosen, u.low("G'")));
    }
  },
);

const adder283 = definePackage(
  {
    number: '283',
    says: 'The sum of two four-bit numbers and a carry.',
    pins: '>S2 B2 A2 >S1 A1 B1 C0 GND >C4 >S4 B4 A4 >S3 A3 B3 VCC',
    ns: { '74HC': 18, '74LS': 16 },
  },
  (u) => {
    const { sum, carry } = add(u.b, u.word('A1 A2 A3 A4'), u.word('B1 B2 B3 B4'), u.pin('C0'));
    for (const [i, bit] of sum.entries()) u.show(`S${i + 1}`, bit);
    u.show('C4', carry);
  },
);

const comparator85 = definePackage(
  {
    number: '85',
    says: 'Whether one four-bit number is less than, equal to, or greater than another; can be cascaded.',
    pins: 'B3 IA<B IA=B IA>B >OA>B >OA=B >OA<B GND B0 A0 B1 A1 A2 B2 A3 VCC',
    ns: { '74HC': 20, '74LS': 24 },
  },
  (u) => {
    const [a, b] = [u.word('A0 A1 A2 A3'), u.word('B0 B1 B2 B3')];
    let [less, greater, same] = [zero(u.b), zero(u.b), one(u.b)];
    for (let i = 0; i < 4; i++) {
      const differ = xor(u.b, a[i]!, b[i]!);
      [less] = choose(u.b, differ, [less], [b[i]!]) as [Ref];
      [greater] = choose(u.b, differ, [greater], [a[i]!]) as [Ref];
      same = and(u.b, same, not(u.b, differ));
    }
    const equal = u.pin('IA=B');
    const alone = (other: string) => and(u.b, same, not(u.b, equal), not(u.b, u.pin(other)));
    u.show('OA<B', or(u.b, less, alone('IA>B')));
    u.show('OA>B', or(u.b, greater, alone('IA<B')));
    u.show('OA=B', and(u.b, same, equal));
  },
);

/** Bars that the digits 0 to 15 light, a to g; 6 has no top bar and 9 no bottom bar. */
const BARS = [
  'abcdef',
  'bc',
  'abdeg',
  'abcdg',
  'bcfg',
  'acdfg',
  'cdefg',
  'abc',
  'abcdefg',
  'abcfg',
  'deg',
  'cdg',
  'bfg',
  'adfg',
  'defg',
  '',
];

/** A bar of a digit: lit for these numbers. */
const lit = (u: UnitBuilder, digit: readonly Ref[], bar: string, digits: number): Ref =>
  or(u.b, ...BARS.slice(0, digits).flatMap((bars, n) => (bars.includes(bar) ? [equals(u.b, digit, n)] : [])));

/** A decoder for a display of seven bars with lamp test and blanking, which is also told on. */
const barsDecoder = (acts: 'at 0' | 'at 1') => (u: UnitBuilder) => {
  const digit = u.word('A B C D');
  const test = u.low("LT'");
  const blankZero = and(u.b, u.low("RBI'"), not(u.b, test), equals(u.b, digit, 0));
  u.b.pull(u.pin("BI'/RBO'"), 1);
  u.pullDown("BI'/RBO'", blankZero);
  const shown = u.pin("BI'/RBO'");
  for (const bar of 'abcdefg') {
    const on = and(u.b, shown, or(u.b, test, lit(u, digit, bar, 16)));
    if (acts === 'at 0') u.pullDown(`${bar}'`, on);
    else u.show(bar, on);
  }
};

const bars47 = definePackage(
  {
    number: '47',
    says: 'Drives a display with seven bars and a common plus from a four-bit number; outputs only pull to 0.',
    pins: "B C LT' *BI'/RBO' RBI' D A GND >e' >d' >c' >b' >a' >g' >f' VCC",
    ns: { '74LS': 100 },
    isOpenCollector: true,
  },
  barsDecoder('at 0'),
);

const bars48 = definePackage(
  {
    number: '48',
    says: 'Drives a display with seven bars and a common minus from a four-bit number.',
    pins: "B C LT' *BI'/RBO' RBI' D A GND >e >d >c >b >a >g >f VCC",
    ns: { '74LS': 100 },
  },
  barsDecoder('at 1'),
);

const bars4511 = definePackage(
  {
    number: '4511',
    says: 'Keeps a decimal digit and drives a display with seven bars and a common minus.',
    pins: "B C LT' BL' LE D A VSS >e >d >c >b >a >g >f VDD",
    ns: { '4000B': 590 },
  },
  (u) => {
    const digit = u.word('A B C D').map((data, i) => {
      const state = u.b.later();
      u.store(`Q${i}`, Primitive.LATCH, data, not(u.b, u.pin('LE')), state);
      return state;
    });
    const test = u.low("LT'");
    for (const bar of 'abcdefg') u.show(bar, or(u.b, test, and(u.b, u.pin("BL'"), lit(u, digit, bar, 10))));
  },
);

const selector4051 = definePackage(
  {
    number: '4051',
    says: 'Connects one of eight lines to a common one, as three bits select; from line to common here.',
    pins: 'X4 X6 >X X7 X5 INH VEE VSS C B A X3 X0 X1 X2 VDD',
    ns: { '4000B': 360 },
  },
  (u) => {
    const words = Array.from({ length: 8 }, (_, i) => [u.pin(`X${i}`)]);
    u.showWhile('X', pick(u.b, u.word('A B C'), words)[0]!, not(u.b, u.pin('INH')));
  },
);

/** Decoders, encoders, selectors, arithmetic, and drivers of displays. */
export const functionPackages: readonly PackageType[] = [
  bars47,
  bars48,
  comparator85,
  decoder138,
  decoder139,
  encoder147,
  encoder148,
  selector151,
  selector153,
  selector157,
  adder283,
  selector4051,
  bars4511,
];
