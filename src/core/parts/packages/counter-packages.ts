import type { Ref } from '../part-kind';
import { Primitive } from '../primitive';
import { add, and, choose, constant, equals, not, one, or, pick, zero } from '../words';
import { definePackage, type PackageType, type UnitBuilder } from './package-type';

const laterWord = (u: UnitBuilder, width: number): Ref[] => Array.from({ length: width }, () => u.b.later());

interface Kept {
  readonly op?: Primitive;
  readonly clear?: Ref;
  /** Loads at once, whatever the clock does. */
  readonly load?: { readonly acts: Ref; readonly word: readonly Ref[] };
}

/** Stores a word at a clock, the lowest bit first. */
function keepWord(u: UnitBuilder, next: readonly Ref[], clock: Ref, state: readonly Ref[], kept: Kept): void {
  const { op = Primitive.DFF_RISE, clear, load } = kept;
  for (const [i, bit] of state.entries()) {
    const loads = load && {
      preset: and(u.b, load.acts, load.word[i]!, ...(clear === undefined ? [] : [not(u.b, clear)])),
      clear: or(u.b, and(u.b, load.acts, not(u.b, load.word[i]!)), clear ?? zero(u.b)),
    };
    const controls = loads ?? (clear === undefined ? {} : { clear });
    u.store(`Q${i}`, op, next[i]!, clock, bit, controls);
  }
}

/** Shows a word on pins, the lowest bit first. */
function showWord(u: UnitBuilder, names: string, word: readonly Ref[]): void {
  for (const [i, name] of names.split(' ').entries()) u.show(name, word[i]!);
}

const plusOne = (u: UnitBuilder, word: readonly Ref[]) =>
  add(u.b, word, constant(u.b, 0, word.length), one(u.b)).sum;
const minusOne = (u: UnitBuilder, word: readonly Ref[]) =>
  add(u.b, word, constant(u.b, 2 ** word.length - 1, word.length), zero(u.b)).sum;

/** Flip-flops that each divide the one before by two, on the falling edge; those with a pin show it a stage later each. */
function ripple(
  u: UnitBuilder,
  clock: Ref,
  stages: number,
  clear: Ref,
  pinOf: (stage: number) => string | null,
): Ref[] {
  const states = laterWord(u, stages);
  let before = clock;
  for (const [i, state] of states.entries()) {
    u.store(`Q${i}`, Primitive.DFF_FALL, not(u.b, state), before, state, { clear });
    const pin = pinOf(i + 1);
    if (pin) u.show(pin, state, Primitive.BUF, [], 1 + i / 2);
    before = state;
  }
  return states;
}

const decade90 = definePackage(
  {
    number: '90',
    says: 'A ripple counter by two and by five: QA into CKB gives a decade counter.',
    pins: 'CKB R0(1) R0(2) NC VCC R9(1) R9(2) >QC >QB GND >QD >QA NC CKA',
    ns: { '74HC': 12, '74LS': 11 },
    exchangeable: ['R0(1) R0(2)', 'R9(1) R9(2)'],
  },
  (u) => {
    const nine = and(u.b, ...u.word('R9(1) R9(2)'));
    const clear = and(u.b, ...u.word('R0(1) R0(2)'), not(u.b, nine));
    const [a, b, c, d] = laterWord(u, 4) as [Ref, Ref, Ref, Ref];
    const toZero = or(u.b, clear, nine);
    u.store('Q0', Primitive.DFF_FALL, not(u.b, a), u.pin('CKA'), a, { preset: nine, clear });
    // The part that divides by five counts 0 to 4; from states beyond it falls back to 0.
    const clock = u.pin('CKB');
    u.store('Q1', Primitive.DFF_FALL, and(u.b, not(u.b, b), not(u.b, d)), clock, b, { clear: toZero });
    u.store('Q2', Primitive.DFF_FALL, and(u.b, u.b.gate(Primitive.XOR, [b, c]), not(u.b, d)), clock, c, {
      clear: toZero,
    });
    u.store('Q3', Primitive.DFF_FALL, and(u.b, b, c, not(u.b, d)), clock, d, { preset: nine, clear });
    for (const [i, name] of ['QA', 'QB', 'QC', 'QD'].entries()) u.show(name, [a, b, c, d][i]!);
  },
);

const binary93 = definePackage(
  {
    number: '93',
    says: 'A ripple counter by two and by eight: QA into CKB gives four bits.',
    pins: 'CKB R0(1) R0(2) NC VCC NC NC >QC >QB GND >QD >QA NC CKA',
    ns: { '74HC': 12, '74LS': 11 },
    exchangeable: ['R0(1) R0(2)'],
  },
  (u) => {
    const clear = and(u.b, ...u.word('R0(1) R0(2)'));
    const first = u.b.later();
    u.store('Q0', Primitive.DFF_FALL, not(u.b, first), u.pin('CKA'), first, { clear });
    u.show('QA', first);
    let before = u.pin('CKB');
    for (const [i, name] of ['QB', 'QC', 'QD'].entries()) {
      const state = u.b.later();
      u.store(`Q${i + 1}`, Primitive.DFF_FALL, not(u.b, state), before, state, { clear });
      u.show(name, state, Primitive.BUF, [], 1 + i);
      before = state;
    }
  },
);

/** A four-bit counter with parallel load and carry, cleared at once or at the clock. */
const synchronous = (clears: 'at once' | 'at the clock') => (u: UnitBuilder) => {
  const state = laterWord(u, 4);
  const clear = u.low("CLR'");
  const counts = and(u.b, ...u.word('ENP ENT'));
  const counted = choose(u.b, counts, state, plusOne(u, state));
  const loaded = choose(u.b, u.pin("LOAD'"), u.word('A B C D'), counted);
  const next = clears === 'at once' ? loaded : choose(u.b, clear, loaded, constant(u.b, 0, 4));
  keepWord(u, next, u.pin('CLK'), state, clears === 'at once' ? { clear } : {});
  showWord(u, 'QA QB QC QD', state);
  u.show('RCO', and(u.b, ...state, u.pin('ENT')));
};
const SYNCHRONOUS = "CLR' CLK A B C D ENP GND LOAD' ENT >QD >QC >QB >QA >RCO VCC";

const counter161 = definePackage(
  {
    number: '161',
    says: 'A four-bit synchronous counter with parallel load, cleared at once.',
    pins: SYNCHRONOUS,
    ns: { '74HC': 19, '74LS': 17 },
  },
  synchronous('at once'),
);

const counter163 = definePackage(
  {
    number: '163',
    says: 'A four-bit synchronous counter with parallel load, cleared at the clock edge.',
    pins: SYNCHRONOUS,
    ns: { '74HC': 19, '74LS': 17 },
  },
  synchronous('at the clock'),
);

const counter193 = definePackage(
  {
    number: '193',
    says: 'A four-bit counter with one clock for up and one for down, loaded and cleared at once.',
    pins: "B >QB >QA DOWN UP >QC >QD GND D C LOAD' >CO' >BO' CLR A VCC",
    ns: { '74HC': 23, '74LS': 25 },
  },
  (u) => {
    const state = laterWord(u, 4);
    const [up, down] = [u.pin('UP'), u.pin('DOWN')];
    // A clock rises while the other one is 1. Which of them it was, a latch knows that closes with the edge.
    const clock = and(u.b, up, down);
    const wasUp = u.b.later();
    u.store('UP', Primitive.LATCH, not(u.b, up), not(u.b, clock), wasUp);
    const next = choose(u.b, wasUp, minusOne(u, state), plusOne(u, state));
    const load = { acts: u.low("LOAD'"), word: u.word('A B C D') };
    keepWord(u, next, clock, state, { clear: u.pin('CLR'), load });
    showWord(u, 'QA QB QC QD', state);
    u.show("CO'", equals(u.b, [...state, up], 15), Primitive.NOT);
    u.show("BO'", equals(u.b, [...state, down], 0), Primitive.NOT);
  },
);

const shift164 = definePackage(
  {
    number: '164',
    says: 'An eight-bit shift register with all its bits brought out.',
    pins: "A B >QA >QB >QC >QD GND CLK CLR' >QE >QF >QG >QH VCC",
    ns: { '74HC': 14, '74LS': 19 },
    exchangeable: ['A B'],
  },
  (u) => {
    const state = laterWord(u, 8);
    const next = [and(u.b, ...u.word('A B')), ...state.slice(0, -1)];
    keepWord(u, next, u.pin('CLK'), state, { clear: u.low("CLR'") });
    showWord(u, 'QA QB QC QD QE QF QG QH', state);
  },
);

const shift165 = definePackage(
  {
    number: '165',
    says: 'An eight-bit shift register that is loaded in parallel and read bit by bit.',
    pins: "SH/LD' CLK E F G H >QH' GND >QH SER A B C D INH VCC",
    ns: { '74HC': 16, '74LS': 21 },
    exchangeable: ['CLK INH'],
  },
  (u) => {
    const state = laterWord(u, 8);
    const load = { acts: u.low("SH/LD'"), word: u.word('A B C D E F G H') };
    keepWord(u, [u.pin('SER'), ...state.slice(0, -1)], or(u.b, ...u.word('CLK INH')), state, { load });
    u.show('QH', state[7]!);
    u.show("QH'", state[7]!, Primitive.NOT);
  },
);

const shift194 = definePackage(
  {
    number: '194',
    says: 'A four-bit register that shifts either way, loads or holds, as S1 and S0 say.',
    pins: "CLR' SR A B C D SL GND S0 S1 CLK >QD >QC >QB >QA VCC",
    ns: { '74HC': 14, '74LS': 17 },
  },
  (u) => {
    const state = laterWord(u, 4);
    const right = [u.pin('SR'), ...state.slice(0, -1)];
    const left = [...state.slice(1), u.pin('SL')];
    const next = pick(u.b, u.word('S0 S1'), [state, right, left, u.word('A B C D')]);
    keepWord(u, next, u.pin('CLK'), state, { clear: u.low("CLR'") });
    showWord(u, 'QA QB QC QD', state);
  },
);

const decade4017 = definePackage(
  {
    number: '4017',
    says: 'A counter to ten with one output for each state, one of them 1 at a time.',
    pins: '>Q5 >Q1 >Q0 >Q2 >Q6 >Q7 >Q3 VSS >Q8 >Q4 >Q9 >CO INH CLK R VDD',
    ns: { '4000B': 325 },
  },
  (u) => {
    const state = laterWord(u, 4);
    const next = choose(u.b, equals(u.b, state, 9), plusOne(u, state), constant(u.b, 0, 4));
    keepWord(u, next, and(u.b, u.pin('CLK'), not(u.b, u.pin('INH'))), state, { clear: u.pin('R') });
    for (let n = 0; n < 10; n++) u.show(`Q${n}`, equals(u.b, state, n));
    u.show('CO', or(u.b, ...[0, 1, 2, 3, 4].map((n) => equals(u.b, state, n))));
  },
);

const divider4020 = definePackage(
  {
    number: '4020',
    says: 'A ripple divider of 14 stages on the falling edge; stages 2 and 3 have no pin.',
    pins: ">Q12 >Q13 >Q14 >Q6 >Q5 >Q7 >Q4 VSS >Q1 CLK' R >Q9 >Q8 >Q10 >Q11 VDD",
    ns: { '4000B': 180 },
  },
  (u) => {
    ripple(u, u.pin("CLK'"), 14, u.pin('R'), (n) => (n === 2 || n === 3 ? null : `Q${n}`));
  },
);

const divider4040 = definePackage(
  {
    number: '4040',
    says: 'A ripple divider of 12 stages on the falling edge.',
    pins: ">Q12 >Q6 >Q5 >Q7 >Q4 >Q3 >Q2 VSS >Q1 CLK' R >Q9 >Q8 >Q10 >Q11 VDD",
    ns: { '4000B': 180 },
  },
  (u) => {
    ripple(u, u.pin("CLK'"), 12, u.pin('R'), (n) => `Q${n}`);
  },
);

const divider4060 = definePackage(
  {
    number: '4060',
    says: 'A ripple divider of 14 stages with the inverters of an oscillator, driven at CLK here.',
    pins: ">Q12 >Q13 >Q14 >Q6 >Q5 >Q7 >Q4 VSS >OSC >OSC' CLK R >Q9 >Q8 >Q10 VDD",
    ns: { '4000B': 185 },
  },
  (u) => {
    const inverted = u.b.gate(Primitive.NAND, [u.pin('CLK'), not(u.b, u.pin('R'))]);
    u.show("OSC'", inverted);
    u.show('OSC', inverted, Primitive.NOT);
    const shown = new Set([4, 5, 6, 7, 8, 9, 10, 12, 13, 14]);
    ripple(u, u.pin('CLK'), 14, u.pin('R'), (n) => (shown.has(n) ? `Q${n}` : null));
  },
);

const counter4029 = definePackage(
  {
    number: '4029',
    says: 'A four-bit counter, up or down, binary or decade, with parallel load.',
    pins: "PE >Q4 J4 J1 CI' >Q1 >CO' VSS B/D U/D >Q2 J2 J3 >Q3 CLK VDD",
    ns: { '4000B': 250 },
  },
  (u) => {
    const state = laterWord(u, 4);
    const [up, binary] = [u.pin('U/D'), u.pin('B/D')];
    const decade = not(u.b, binary);
    const [first, nine] = [equals(u.b, state, 0), equals(u.b, state, 9)];
    const atTop = or(u.b, and(u.b, decade, nine), equals(u.b, state, 15));
    const counted = choose(
      u.b,
      up,
      choose(u.b, and(u.b, decade, first), minusOne(u, state), constant(u.b, 9, 4)),
      choose(u.b, and(u.b, decade, nine), plusOne(u, state), constant(u.b, 0, 4)),
    );
    const counts = u.low("CI'");
    const next = choose(u.b, counts, state, counted);
    keepWord(u, next, u.pin('CLK'), state, { load: { acts: u.pin('PE'), word: u.word('J1 J2 J3 J4') } });
    showWord(u, 'Q1 Q2 Q3 Q4', state);
    u.show("CO'", and(u.b, counts, choose(u.b, up, [first], [atTop])[0]!), Primitive.NOT);
  },
);

/** Counters, dividers and shift registers. */
export const counterPackages: readonly PackageType[] = [
  decade90,
  binary93,
  counter161,
  counter163,
  shift164,
  shift165,
  counter193,
  shift194,
  decade4017,
  divider4020,
  counter4029,
  divider4040,
  divider4060,
];
