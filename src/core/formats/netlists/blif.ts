import { emptyLesson, type Lesson } from '../../circuit/lesson';
import { MOST_PARTS, MOST_SHEETS } from '../../circuit/limits';
import type { Sheet } from '../../circuit/sheet';
import { layOut } from '../../drawing/layout/lay-out';
import type { Netlist } from '../../netlist/netlist';
import { writePins } from '../../parts/block';
import { done, mapped, type Result, refused } from '../../values/result';
import type { Bit } from '../verilog/cells';
import { NamedBits } from './netlist-cells';
import { type SimpleCircuit, type SimpleGate, simpleGates } from './simple-gates';

/*
 * Berkeley Logic Interchange Format: tables of products, latches, and models inside of models.
 */

class BlifError extends Error {}

interface Line {
  readonly number: number;
  readonly words: readonly string[];
}

interface Table {
  readonly at: number;
  readonly names: readonly string[];
  readonly rows: { readonly cube: string; readonly value: string }[];
}

interface Model {
  readonly name: string;
  readonly inputs: string[];
  readonly outputs: string[];
  readonly clocks: string[];
  readonly tables: Table[];
  readonly latches: Line[];
  readonly uses: Line[];
}

function fail(at: number, message: string): never {
  throw new BlifError(`line ${at}: ${message}`);
}

/** The lines of a file, comments stripped and continued lines joined. */
function linesOf(text: string): Line[] {
  const lines: Line[] = [];
  let open = '';
  let begun = 0;
  for (const [i, raw] of text.split(/\r?\n/).entries()) {
    const line = raw.replace(/#.*$/, '').trimEnd();
    if (!open) begun = i + 1;
    if (line.endsWith('\\')) {
      open += `${line.slice(0, -1)} `;
      continue;
    }
    const words = (open + line).trim().split(/\s+/).filter(Boolean);
    open = '';
    if (words.length > 0) lines.push({ number: begun, words });
  }
  return lines;
}

function modelsOf(text: string): Model[] {
  const models: Model[] = [];
  let model: Model | null = null;
  let table: Table | null = null;
  for (const line of linesOf(text)) {
    const [word, ...rest] = line.words as [string, ...string[]];
    const { number } = line;
    if (!word.startsWith('.')) {
      if (!table) fail(number, `“${word.slice(0, 30)}” stands in no table: .names is expected before it`);
      const inputs = table.names.length - 1;
      const [cube, value] = inputs === 0 ? ['', word] : [word, rest[0] ?? ''];
      if (cube.length !== inputs || !/^[01-]*$/.test(cube) || !/^[01]$/.test(value))
        fail(number, `a row of ${inputs} signs 0, 1 or -, and 0 or 1 behind them is expected`);
      table.rows.push({ cube, value });
      continue;
    }
    table = null;
    if (word === '.model') {
      model = {
        name: rest[0] ?? 'model',
        inputs: [],
        outputs: [],
        clocks: [],
        tables: [],
        latches: [],
        uses: [],
      };
      models.push(model);
      continue;
    }
    if (word === '.end') {
      model = null;
      continue;
    }
    // A file may leave out the name of its only model.
    if (!model) {
      model = { name: 'main', inputs: [], outputs: [], clocks: [], tables: [], latches: [], uses: [] };
      models.push(model);
    }
    switch (word) {
      case '.inputs':
        model.inputs.push(...rest);
        break;
      case '.outputs':
        model.outputs.push(...rest);
        break;
      case '.clock':
        model.clocks.push(...rest);
        break;
      case '.names':
        if (rest.length === 0) fail(number, 'the name of an output is expected behind .names');
        table = { at: number, names: rest, rows: [] };
        model.tables.push(table);
        break;
      case '.latch':
        model.latches.push(line);
        break;
      case '.subckt':
        model.uses.push(line);
        break;
      case '.gate':
      case '.mlatch':
        fail(number, `${word} needs a library of gates, which is not read: .names is expected`);
        break;
      case '.exdc':
        fail(number, '.exdc (rows that do not matter) is not read');
        break;
      default:
        if (!PASSED.has(word)) fail(number, `${word} is not known here`);
    }
  }
  return models;
}

/** Commands about area, delay and load, which are ignored. */
const PASSED: ReadonlySet<string> = new Set(
  '.area .delay .wire_load_slope .wire .input_arrival .default_input_arrival .output_required .default_output_required .input_drive .default_input_drive .output_load .default_output_load .default_max_input_load .search .attrib .param .cname'.split(
    ' ',
  ),
);

/** Reads BLIF: a sheet for each model, the first one first. */
export function readBlif(text: string, title: string, laidOut = true): Result<Lesson> {
  try {
    const models = modelsOf(text);
    if (models.length === 0) return refused('bad-blif', 'line 1: .model is expected');
    const first = models[0]!;
    const used = new Map<string, Sheet>();
    const order: string[] = [];
    const make = (model: Model, open: readonly string[]): void => {
      if (used.has(model.name) || order.includes(model.name)) {
        if (open.includes(model.name)) throw new BlifError(`model ${model.name} holds itself`);
        return;
      }
      if (order.length >= MOST_SHEETS) throw new BlifError(`it has more than ${MOST_SHEETS} models`);
      order.push(model.name);
      for (const use of model.uses) {
        const inside =
          models.find((m) => m.name === use.words[1]) ??
          fail(use.number, `there is no model ${use.words[1]}`);
        make(inside, [...open, model.name]);
      }
      used.set(
        model.name,
        sheetOf(model, `m${order.indexOf(model.name) + 1}`, models, (name) => `m${order.indexOf(name) + 1}`),
      );
    };
    make(first, []);
    const sheets = order.map((name) => used.get(name)!);
    return done({
      ...emptyLesson('from-blif', title.slice(0, 120) || first.name),
      sheets: laidOut ? sheets.map(layOut) : sheets,
    });
  } catch (error) {
    if (error instanceof BlifError) return refused('bad-blif', error.message);
    throw error;
  }
}

/** The clock of latches that name none. */
const CLOCK = 'clock';

function sheetOf(model: Model, id: string, models: readonly Model[], idOf: (name: string) => string): Sheet {
  const bits = new NamedBits(id, model.name.slice(0, 60));
  const clock = implicitClock(model, models);
  const inputs = [...new Set([...model.inputs, ...model.clocks, ...(clock ? [clock] : [])])];
  for (const [rank, name] of inputs.entries()) bits.input(name, rank);
  for (const table of model.tables) {
    const names = table.names.slice(0, -1);
    const out = table.names.at(-1)!;
    const isOff = table.rows.some(({ value }) => value === '0');
    if (isOff && table.rows.some(({ value }) => value === '1'))
      fail(table.at, `the rows of ${out} give both 0 and 1`);
    const cubes = table.rows.map(({ cube }) =>
      [...cube].map((c): 0 | 1 | -1 => (c === '1' ? 1 : c === '0' ? 0 : -1)),
    );
    const sum = bits.sum(
      names.map((name) => bits.bit(name)),
      cubes,
    );
    bits.join(out, isOff ? bits.gates.not(sum) : sum);
    if (bits.count > MOST_PARTS)
      fail(table.at, `the model needs more than ${MOST_PARTS} parts, the most of a sheet`);
  }
  for (const { number, words } of model.latches) latch(bits, number, words, clock);
  for (const { number, words } of model.uses) {
    const inside = models.find((m) => m.name === words[1])!;
    const own = implicitClock(inside, models);
    const [into, out] = [
      [...new Set([...inside.inputs, ...inside.clocks, ...(own ? [own] : [])])],
      inside.outputs,
    ];
    const pins: Record<string, Bit> = {};
    for (const word of words.slice(2)) {
      const [pin, to] = word.split('=') as [string, string | undefined];
      if (to === undefined || (!into.includes(pin) && !out.includes(pin)))
        fail(
          number,
          `“${word}” is no connection of ${inside.name}: a name of its inputs or outputs, = and a signal are expected`,
        );
      pins[pin] = bits.bit(to);
    }
    if (own && !(own in pins)) pins[own] = bits.bit(clock ?? CLOCK);
    const pinsOf = (names: readonly string[]) => writePins(names.map((name) => ({ name, width: 1 })));
    bits.block(idOf(inside.name), inside.name, pinsOf(into), pinsOf(out), pins);
  }
  for (const [rank, name] of model.outputs.entries()) bits.output(name, rank);
  return bits.sheet();
}

/** The input that clocks latches without a named clock, here or in an inner model; null if none is needed. */
function implicitClock(model: Model, models: readonly Model[], open: readonly string[] = []): string | null {
  const isNeeded =
    model.latches.some(
      ({ words }) => !/^(re|fe|ah|al|as)$/.test(words[3] ?? '') || (words[4] ?? 'NIL') === 'NIL',
    ) ||
    model.uses.some(({ words }) => {
      const inside = models.find((m) => m.name === words[1]);
      return (
        inside && !open.includes(inside.name) && implicitClock(inside, models, [...open, model.name]) !== null
      );
    });
  return isNeeded ? (model.clocks[0] ?? CLOCK) : null;
}

function latch(bits: NamedBits, number: number, words: readonly string[], implicit: string | null): void {
  const [, data, out, ...rest] = words;
  if (data === undefined || out === undefined)
    fail(number, 'the input and the output of the latch are expected');
  const hasType = /^(re|fe|ah|al|as)$/.test(rest[0] ?? '');
  const [type, control, init] = hasType ? [rest[0]!, rest[1], rest[2]] : ['re', undefined, rest[0]];
  if (type !== 're' && type !== 'fe')
    fail(number, `a latch of type ${type} is not read: re or fe, at an edge of the clock, is expected`);
  if (init !== undefined && !/^[0-3]$/.test(init))
    fail(number, `0 to 3 is expected as the initial value, not ${init}`);
  const clock = bits.bit(control === undefined || control === 'NIL' ? (implicit ?? CLOCK) : control);
  const begins = init === '0' ? 0 : init === '1' ? 1 : null;
  bits.store(
    out,
    bits.bit(data),
    clock,
    type === 're' ? 'rising' : 'falling',
    begins,
    init === '2' || init === '3',
  );
}

/** Inputs of one table; a parity of more is written in parts. */
const MOST_PARITY = 8;

/** The lines of a circuit as BLIF. @param powerUp what storage begins with where a part does not say. */
export function writeBlif(netlist: Netlist, name: string, powerUp: 0 | 1 | null): Result<string[]> {
  return mapped(simpleGates(netlist, powerUp), (circuit) => blifLines(circuit, name));
}

function blifLines({ inputs, outputs, gates, stores }: SimpleCircuit, name: string): string[] {
  const lines = [`.model ${name.replaceAll(/[^\w.-]+/g, '_') || 'main'}`];
  const list = (word: string, names: readonly string[]) => {
    for (let at = 0; at < Math.max(1, names.length); at += 12)
      lines.push(
        `${at === 0 ? word : '   '} ${names.slice(at, at + 12).join(' ')}${at + 12 < names.length ? ' \\' : ''}`.trimEnd(),
      );
  };
  list('.inputs', inputs);
  list('.outputs', outputs);
  for (const { data, out, edge, clock, begins } of stores)
    lines.push(`.latch ${data} ${out} ${edge === 'rising' ? 're' : 'fe'} ${clock} ${begins ?? 3}`);
  for (const gate of gates) lines.push(...tableLines(gate));
  lines.push('.end');
  return lines;
}

function tableLines({ op, out, ins }: SimpleGate): string[] {
  const names = `.names ${[...ins, out].join(' ')}`;
  const all = (sign: string) => sign.repeat(ins.length);
  /** A row for each input, all others left open. */
  const each = (sign: string, value: string) =>
    ins.map((_, i) => `${'-'.repeat(i)}${sign}${'-'.repeat(ins.length - 1 - i)} ${value}`);
  switch (op) {
    case '0':
      return [names];
    case '1':
      return [names, '1'];
    case 'buf':
      return [names, '1 1'];
    case 'not':
      return [names, '0 1'];
    case 'and':
      return [names, `${all('1')} 1`];
    case 'nand':
      return [names, `${all('1')} 0`];
    case 'or':
      return [names, ...each('1', '1')];
    case 'nor':
      return [names, `${all('0')} 1`];
    case 'mux':
      return [names, '01- 1', '1-1 1'];
    default: {
      if (ins.length > MOST_PARITY) {
        const [low, high] = [`${out}_low`, `${out}_high`];
        return [
          ...tableLines({ op: 'xor', out: low, ins: ins.slice(0, MOST_PARITY) }),
          ...tableLines({ op: 'xor', out: high, ins: ins.slice(MOST_PARITY) }),
          ...tableLines({ op, out, ins: [low, high] }),
        ];
      }
      const odd = op === 'xor';
      const rows: string[] = [];
      for (let row = 0; row < 2 ** ins.length; row++) {
        const bits = row.toString(2).padStart(ins.length, '0');
        if ([...bits].filter((c) => c === '1').length % 2 === (odd ? 1 : 0)) rows.push(`${bits} 1`);
      }
      return [names, ...rows];
    }
  }
}
