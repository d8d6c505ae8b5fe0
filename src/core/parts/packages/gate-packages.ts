import { Primitive } from '../primitive';
import { definePackage, type PackageType, type UnitGate } from './package-type';

const OPS: Readonly<Record<UnitGate['kind'], Primitive>> = {
  and: Primitive.AND,
  or: Primitive.OR,
  nand: Primitive.NAND,
  nor: Primitive.NOR,
  xor: Primitive.XOR,
  xnor: Primitive.XNOR,
  not: Primitive.NOT,
  buffer: Primitive.BUF,
};

/** The arrangements of gates that several packages share, outputs marked `>`. */
const ARRANGED = {
  quad: '1A 1B >1Y 2A 2B >2Y GND >3Y 3A 3B >4Y 4A 4B VCC',
  quadOutputFirst: '>1Y 1A 1B >2Y 2A 2B GND 3A 3B >3Y 4A 4B >4Y VCC',
  quadFolded: '1A 1B >1Y >2Y 2A 2B GND 3A 3B >3Y >4Y 4A 4B VCC',
  triple: '1A 1B 2A 2B 2C >2Y GND >3Y 3A 3B 3C >1Y 1C VCC',
  dual: '1A 1B NC 1C 1D >1Y GND >2Y 2A 2B NC 2C 2D VCC',
  single: 'A B C D E F GND >Y NC NC G H NC VCC',
  six: '1A >1Y 2A >2Y 3A >3Y GND >4Y 4A >5Y 5A >6Y 6A VCC',
  quad4000: '1A 1B >1Y >2Y 2A 2B VSS 3A 3B >3Y >4Y 4A 4B VDD',
  triple4000: '1A 1B 2A 2B 2C >2Y VSS 1C >1Y >3Y 3A 3B 3C VDD',
  dual4000: '>1Y 1A 1B 1C 1D NC VSS NC 2A 2B 2C 2D >2Y VDD',
  six4000: '1A >1Y 2A >2Y 3A >3Y VSS >4Y 4A >5Y 5A >6Y 6A VDD',
  buffers4000: 'VDD >1Y 1A >2Y 2A >3Y 3A VSS 4A >4Y 5A >5Y NC 6A >6Y NC',
} as const;

const COUNTS = ['', 'One', 'Two', 'Three', 'Four', '', 'Six'];
const INPUTS = ['', 'one input', 'two inputs', 'three inputs', 'four inputs', '', '', '', 'eight inputs'];
const NAMES: Readonly<Record<UnitGate['kind'], string>> = {
  and: 'AND gate',
  or: 'OR gate',
  nand: 'NAND gate',
  nor: 'NOR gate',
  xor: 'XOR gate',
  xnor: 'XNOR gate',
  not: 'inverter',
  buffer: 'buffer',
};

function gates(
  number: string,
  kind: UnitGate['kind'],
  arranged: keyof typeof ARRANGED,
  ns: PackageType['ns'],
  more: { readonly says?: string; readonly isOpenCollector?: boolean } = {},
): PackageType {
  const written = ARRANGED[arranged];
  const outputs = written.split('>').length - 1;
  const ins = written.split(' ').filter((name) => /^\d?[A-H]$/.test(name)).length / outputs;
  const letters = [...'ABCDEFGH'].slice(0, ins);
  const many = `${COUNTS[outputs]} ${NAMES[kind]}${outputs === 1 ? '' : 's'}`;
  const says = `${many}${ins > 1 ? ` with ${INPUTS[ins]}` : ''}${more.says ?? ''}.`;
  const type = definePackage(
    {
      number,
      says,
      pins: written,
      ns,
      isOpenCollector: more.isOpenCollector ?? false,
      exchangeable: ins > 1 ? [letters.join(' ')] : [],
    },
    (unit) => {
      const [first, ...others] = letters.map((letter) => unit.pin(letter));
      unit.show('Y', first!, OPS[kind], others);
    },
  );
  return { ...type, gate: { kind, inputs: ins } };
}

/** Packages of gates, in the order of their numbers. */
export const gatePackages: readonly PackageType[] = [
  gates('00', 'nand', 'quad', { '74HC': 8, '74LS': 10 }),
  gates('02', 'nor', 'quadOutputFirst', { '74HC': 8, '74LS': 10 }),
  gates('04', 'not', 'six', { '74HC': 8, '74LS': 10 }),
  gates('08', 'and', 'quad', { '74HC': 8, '74LS': 9 }),
  gates('10', 'nand', 'triple', { '74HC': 9, '74LS': 10 }),
  gates('11', 'and', 'triple', { '74HC': 10, '74LS': 9 }),
  gates('14', 'not', 'six', { '74HC': 12, '74LS': 15 }, { says: ' whose inputs have hysteresis' }),
  gates('20', 'nand', 'dual', { '74HC': 9, '74LS': 10 }),
  gates('21', 'and', 'dual', { '74HC': 10, '74LS': 9 }),
  gates('27', 'nor', 'triple', { '74HC': 8, '74LS': 10 }),
  gates('30', 'nand', 'single', { '74HC': 12, '74LS': 12 }),
  gates('32', 'or', 'quad', { '74HC': 8, '74LS': 14 }),
  gates('86', 'xor', 'quad', { '74HC': 11, '74LS': 13 }),
  gates(
    '266',
    'xnor',
    'quadFolded',
    { '74HC': 12, '74LS': 18 },
    { says: ', outputs that only pull to 0', isOpenCollector: true },
  ),
  gates('4001', 'nor', 'quad4000', { '4000B': 125 }),
  gates('4011', 'nand', 'quad4000', { '4000B': 125 }),
  gates('4012', 'nand', 'dual4000', { '4000B': 125 }),
  gates('4023', 'nand', 'triple4000', { '4000B': 125 }),
  gates('4025', 'nor', 'triple4000', { '4000B': 125 }),
  gates('4030', 'xor', 'quad4000', { '4000B': 140 }),
  gates('4049', 'not', 'buffers4000', { '4000B': 46 }, { says: ' with strong outputs' }),
  gates('4050', 'buffer', 'buffers4000', { '4000B': 63 }, { says: ' with strong outputs' }),
  gates('4069', 'not', 'six4000', { '4000B': 55 }),
  gates('4070', 'xor', 'quad4000', { '4000B': 140 }),
  gates('4071', 'or', 'quad4000', { '4000B': 125 }),
  gates('4072', 'or', 'dual4000', { '4000B': 125 }),
  gates('4073', 'and', 'triple4000', { '4000B': 125 }),
  gates('4075', 'or', 'triple4000', { '4000B': 125 }),
  gates('4077', 'xnor', 'quad4000', { '4000B': 140 }),
  gates('4081', 'and', 'quad4000', { '4000B': 125 }),
  gates('4082', 'and', 'dual4000', { '4000B': 125 }),
];
