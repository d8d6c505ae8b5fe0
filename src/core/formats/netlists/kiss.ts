import { emptyLesson, type Lesson } from '../../circuit/lesson';
import { layOut } from '../../drawing/layout/lay-out';
import type { Machine } from '../../states/machine';
import { done, type Result, refused } from '../../values/result';
import { type Bit, C0 } from '../verilog/cells';
import { NamedBits } from './netlist-cells';

/*
 * State tables in the KISS2 format: for each row the inputs, the state, the next state and the outputs.
 */

const MOST_ROWS = 20_000;
const MOST_STATES = 4096;

interface Row {
  readonly cube: string;
  readonly from: string;
  readonly to: string;
  readonly outputs: string;
}

/**
 * Reads a state table: states numbered in order, the first or that of `.r` being 0, a flip-flop for each bit; inputs and outputs are
 * called as `.ilb` and `.ob` say, where those are there.
 */
export function readKiss(text: string, title: string, laidOut = true): Result<Lesson> {
  const counts: Record<string, number> = {};
  let first: string | null = null;
  const names: { ilb: readonly string[]; ob: readonly string[] } = { ilb: [], ob: [] };
  const rows: Row[] = [];
  for (const [i, raw] of text.split(/\r?\n/).entries()) {
    const bad = (message: string): Result<Lesson> => refused('bad-kiss', `line ${i + 1}: ${message}`);
    const line = raw.replace(/#.*$/, '').trim();
    if (line === '') continue;
    const words = line.split(/\s+/);
    const [word] = words as [string];
    if (/^\.(i|o|p|s)$/.test(word)) {
      const count = Number(words[1]);
      if (!(Number.isInteger(count) && count >= 0 && count <= MOST_STATES))
        return bad(`a number is expected behind ${word}`);
      counts[word] = count;
    } else if (word === '.ilb' || word === '.ob') names[word === '.ilb' ? 'ilb' : 'ob'] = words.slice(1);
    else if (word === '.r') first = words[1] ?? null;
    else if (word === '.e' || word === '.end' || word === '.start_kiss' || word === '.end_kiss') continue;
    else if (word.startsWith('.')) return bad(`${word} is not known here`);
    else {
      const [inputs, outputs] = [counts['.i'] ?? -1, counts['.o'] ?? -1];
      if (inputs < 0 || outputs < 0) return bad('.i and .o are expected before the first row');
      const [cube, from, to, values] = inputs === 0 ? ['', ...words] : words;
      if (
        cube?.length !== inputs ||
        !/^[01-]*$/.test(cube) ||
        !from ||
        !to ||
        values?.length !== outputs ||
        !/^[01-]*$/.test(values)
      )
        return bad(`${inputs} signs 0, 1 or -, two states, and ${outputs} signs are expected`);
      rows.push({ cube, from, to, outputs: values });
      if (rows.length > MOST_ROWS) return bad(`more than ${MOST_ROWS} rows`);
    }
  }
  if (rows.length === 0) return refused('bad-kiss', 'line 1: .i, .o and the rows of the states are expected');
  const states = [...new Set([first ?? rows[0]!.from, ...rows.flatMap(({ from, to }) => [from, to])])].filter(
    (s) => s !== '*' && s !== '-',
  );
  if (states.length > MOST_STATES) return refused('bad-kiss', `it has more than ${MOST_STATES} states`);
  const width = Math.max(1, Math.ceil(Math.log2(states.length)));
  const codeOf = (state: string) =>
    Array.from({ length: width }, (_, bit) => ((states.indexOf(state) >> bit) & 1) as 0 | 1);
  const bits = new NamedBits('m1', title.slice(0, 60) || 'States');
  const inputs = Array.from({ length: counts['.i']! }, (_, i) => names.ilb[i] ?? `i${i}`);
  const called = [...inputs, ...names.ob, 'clock', ...Array.from({ length: width }, (_, bit) => `S${bit}`)];
  const twice = called.find((name, i) => called.indexOf(name) !== i);
  if (twice !== undefined) return refused('bad-kiss', `two signals are called ${twice}`);
  for (const [i, name] of inputs.entries()) bits.input(name, i);
  bits.input('clock', inputs.length);
  const register = Array.from({ length: width }, (_, bit) => `S${bit}`);
  const columns: Bit[] = [...inputs.map((name) => bits.bit(name)), ...register.map((name) => bits.bit(name))];
  const signOf = (c: string): 0 | 1 | -1 => (c === '1' ? 1 : c === '0' ? 0 : -1);
  const terms = rows.map(({ cube, from }) =>
    bits.gates.equals(columns, [
      ...[...cube].map(signOf),
      ...(from === '*' || from === '-' ? register.map(() => -1 as const) : codeOf(from)),
    ]),
  );
  const any = (isIn: (row: Row) => boolean): Bit => bits.anyOf(terms.filter((_, i) => isIn(rows[i]!)));
  for (const [bit, name] of register.entries()) {
    const next = any(({ to }) => to !== '*' && to !== '-' && codeOf(to)[bit] === 1);
    bits.store(name, next, bits.bit('clock'), 'rising', 0);
  }
  for (let o = 0; o < counts['.o']!; o++)
    bits.output(names.ob[o] ?? `o${o}`, o, any(({ outputs }) => outputs[o] === '1') ?? C0);
  const sheet = bits.sheet();
  const time = {
    lanes: [],
    hidden: [],
    stimuli: [],
    driven: '',
    states: states.map((name, i) => ({ state: i.toString(2).padStart(width, '0'), name: name.slice(0, 40) })),
  };
  const named = { ...(laidOut ? layOut(sheet) : sheet), time };
  return done({ ...emptyLesson('from-kiss', title.slice(0, 120) || 'States'), sheets: [named] });
}

/** The lines of a state machine as KISS2; states are called by their codes. */
export function writeKiss(machine: Machine): Result<string[]> {
  const { states, transitions, inputs, outputs } = machine;
  const nameOf = (state: number) => `s${states[state]!.code}`;
  const lines = transitions.flatMap(({ from, to, rows, outputs: values }) =>
    rows.map((row, i) => {
      const cube = inputs.length === 0 ? '' : `${row.toString(2).padStart(inputs.length, '0')} `;
      return `${cube}${nameOf(from)} ${nameOf(to)} ${values[i]!.replaceAll(/[^01]/g, '-')}`;
    }),
  );
  return done([
    `.i ${inputs.length}`,
    `.o ${outputs.length}`,
    `.p ${lines.length}`,
    `.s ${states.length}`,
    `.r ${nameOf(0)}`,
    ...lines,
    '.e',
  ]);
}
