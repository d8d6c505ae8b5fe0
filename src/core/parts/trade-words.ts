/*
 * Further names of parts that people of the trade type, and the comparison of names.
 */

/** Names of the trade, as `spelt` writes them: for each the typed name of a part, then words that set it. */
const TRADE: Readonly<Record<string, string>> = {
  'exclusive or': 'xor',
  'ex or': 'xor',
  exor: 'xor',
  'exclusive nor': 'xnor',
  'ex nor': 'xnor',
  exnor: 'xnor',
  negation: 'not',
  tristate: 'three-state',
  'tri state': 'three-state',
  'tri state buffer': 'three-state',
  'tristate buffer': 'three-state',
  driver: 'three-state',
  toggle: 'switch',
  'toggle switch': 'switch',
  lever: 'switch',
  'dip switch': 'switch 8bit',
  'push button': 'button',
  pushbutton: 'button',
  'push switch': 'button',
  vcc: 'constant 1',
  vdd: 'constant 1',
  supply: 'constant 1',
  power: 'constant 1',
  battery: 'constant 1',
  'voltage source': 'constant 1',
  '5v': 'constant 1',
  '+5v': 'constant 1',
  1: 'constant 1',
  high: 'constant 1',
  'logic 1': 'constant 1',
  'logic high': 'constant 1',
  one: 'constant 1',
  true: 'constant 1',
  ground: 'constant 0',
  gnd: 'constant 0',
  vss: 'constant 0',
  '0v': 'constant 0',
  0: 'constant 0',
  low: 'constant 0',
  'logic 0': 'constant 0',
  'logic low': 'constant 0',
  zero: 'constant 0',
  false: 'constant 0',
  bulb: 'lamp',
  indicator: 'lamp',
  'led bar': 'lamp 8bit',
  'bar graph': 'lamp 8bit',
  display: 'digit',
  'bcd display': 'digit',
  'hex display': 'digit',
  'hexadecimal display': 'digit',
  'seven segment': 'segments',
  '7 segment': 'segments',
  'seven segment display': 'segments',
  '7 segment display': 'segments',
  'flip flop': 'd',
  ff: 'd',
  'd type': 'd',
  'd type flip flop': 'd',
  'delay flip flop': 'd',
  'toggle flip flop': 't',
  'jk ff': 'jk',
  'd ff': 'd',
  't ff': 't',
  'sr ff': 'sr',
  'rs flip flop': 'sr',
  'rs ff': 'sr',
  'rs latch': 'sr latch',
  'gated sr latch': 'sr latch enable',
  'gated latch': 'd latch',
  'gated d latch': 'd latch',
  'set reset latch': 'sr latch',
  'transparent latch': 'd latch',
  'full adder': 'adder 1',
  'decade counter': 'counter mod10',
  'bcd counter': 'counter mod10',
  selector: 'mux',
  'data selector': 'mux',
  distributor: 'demux',
  splitter: 'slice',
  'bus splitter': 'slice',
  'number display': 'number',
  'ripple carry adder': 'adder',
  'ripple adder': 'adder',
  split: 'slice',
  oscillator: 'clock',
  generator: 'clock',
  'clock generator': 'clock',
  'pull up': 'pull up',
  'pull down': 'pull down',
  'pull up resistor': 'pull up',
  'pull down resistor': 'pull down',
  pin: 'port',
  'input pin': 'port in',
  'input port': 'port in',
  out: 'port out',
  'output pin': 'port out',
  'output port': 'port out',
  'up down counter': 'counter both',
  'up/down counter': 'counter both',
  'binary counter': 'counter',
  resistor: 'pull',
  merger: 'join',
  'net label': 'label',
  comment: 'note',
};

/** All names of the trade. */
export const TRADE_NAMES = Object.keys(TRADE);

/** The typed line that a name of the trade stands for; null for any other name. */
export const meaningOf = (name: string): string | null => {
  const typed = spelt(name);
  return Object.hasOwn(TRADE, typed) ? TRADE[typed]! : null;
};

/** Things that are no parts, each with the way to it. */
const NO_PARTS: Readonly<Record<string, string>> = {
  wire: 'a wire is dragged from one pin to another',
  connection: 'a wire is dragged from one pin to another',
  junction: 'a wire that is dragged from another one makes its own',
  'half adder': 'type S = A xor B, then C = A and B',
  'nand latch': 'type Q = nand(Sn, P), then P = nand(Rn, Q)',
  'nor latch': 'type Q = nor(R, P), then P = nor(S, Q)',
  'majority gate': 'type M = A B or A C or B C',
  'parity generator': 'type P = A xor B xor C',
  'ring counter': 'a shift register whose last bit leads back to its input',
  'johnson counter': 'a shift register whose last bit leads back to its input through a NOT',
  'frequency divider': 'a counter divides its clock; T flip-flops in a row do, too',
  delay: 'each gate has a delay of its own, in its settings',
  buzzer: 'a lamp shows when it would sound',
  speaker: 'a lamp shows when it would sound',
  motor: 'a lamp shows when it would turn',
  '7 segment decoder': 'a digit has one inside; as a package it is 7447 or 4511',
  'seven segment decoder': 'a digit has one inside; as a package it is 7447 or 4511',
  'bcd to seven segment decoder': 'a digit has one inside; as a package it is 7447 or 4511',
  oscilloscope: 'the face Time shows signals as they go',
  scope: 'the face Time shows signals as they go',
  'logic analyser': 'the face Time shows signals as they go',
  'logic analyzer': 'the face Time shows signals as they go',
};

/** How to get something that is no part; null for anything else. */
export const insteadOf = (name: string): string | null => {
  const typed = spelt(name);
  return Object.hasOwn(NO_PARTS, typed) ? NO_PARTS[typed]! : null;
};

const NUMBERS = ['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];

/** `two` as 2. */
export function numberOfWord(word: string): number | null {
  const at = NUMBERS.indexOf(word.toLowerCase());
  return /^\d+$/.test(word) ? Number(word) : at > 0 ? at : null;
}

/** A name in small letters, with hyphens as spaces. */
export const spaced = (name: string): string => name.toLowerCase().replaceAll(/[\s_‐‑–-]+/g, ' ');

/** How a name is compared: as `spaced` writes it, the last word in the singular. */
export function spelt(name: string): string {
  return spaced(name)
    .replace('flipflop', 'flip flop')
    .replace(/(ch|sh|s|x)es$/, '$1')
    .replace(/(\w{3})s$/, '$1')
    .trim();
}

/** How many letters differ between two words: left out, put in, changed, or two that have changed places. */
export function distance(a: string, b: string): number {
  const rows = Array.from({ length: a.length + 1 }, (_, i) => [i, ...Array<number>(b.length).fill(0)]);
  for (let k = 0; k <= b.length; k++) rows[0]![k] = k;
  for (let i = 1; i <= a.length; i++)
    for (let k = 1; k <= b.length; k++) {
      const isSame = a[i - 1] === b[k - 1];
      let least = Math.min(
        rows[i - 1]![k]! + 1,
        rows[i]![k - 1]! + 1,
        rows[i - 1]![k - 1]! + (isSame ? 0 : 1),
      );
      if (i > 1 && k > 1 && a[i - 1] === b[k - 2] && a[i - 2] === b[k - 1])
        least = Math.min(least, rows[i - 2]![k - 2]! + 1);
      rows[i]![k] = least;
    }
  return rows[a.length]![b.length]!;
}
