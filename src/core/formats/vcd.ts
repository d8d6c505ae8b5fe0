import type { Sheet } from '../circuit/sheet';
import { terminalName } from '../netlist/declared';
import type { Netlist } from '../netlist/netlist';
import { wiringOf } from '../netlist/sheet-wiring';
import { sheetInside } from '../parts/catalogue';
import type { Trace } from '../simulate/trace';
import type { Logic } from '../values/logic';
import { done, type Result, refused } from '../values/result';
import { PS_PER_UNIT, type TimeUnit } from '../values/time';

/** A named group of nets in a value change dump. */
export interface DumpedSignal {
  /** Scopes from the outside in, the circuit's own first. */
  readonly scope: readonly string[];
  readonly name: string;
  /** The least significant bit first. */
  readonly nets: readonly number[];
}

const LETTERS = '01xz';
const nameIn = (text: string) => text.trim().replaceAll(/\s+/g, '_') || '_';

/** Identifier codes of printable characters, the shortest first (IEEE Std 1364-2005, 18.2.3.7). */
export function codeOf(index: number): string {
  let code = '';
  for (let rest = index; ; rest = Math.floor(rest / 94) - 1) {
    code += String.fromCharCode(33 + (rest % 94));
    if (rest < 94) return code;
  }
}

/** The named signals of a circuit: inputs, outputs, labels, and the outputs of each part in a block. */
export function signalsOf(netlist: Netlist, sheet: Sheet, sheets: readonly Sheet[] = []): DumpedSignal[] {
  const found: DumpedSignal[] = [];
  const inside = (at: Sheet, path: string, scope: readonly string[]) => {
    const view = path === '' ? netlist : netlist.at(path);
    if (!view) return;
    const named = new Set<string>();
    const add = (name: string, nets: readonly number[] | undefined) => {
      if (!nets || nets.length === 0 || named.has(name)) return;
      named.add(name);
      found.push({ scope, name, nets });
    };
    const { parts, templates } = wiringOf(at);
    const isTerminal = (i: number) =>
      templates[i]!.role?.role === 'input' || templates[i]!.role?.role === 'output';
    for (const [i, part] of parts.entries())
      if (isTerminal(i) || templates[i]!.kind.joinsByLabel)
        add(nameIn(terminalName(part)), view.netsOfPin(part.id, templates[i]!.ports[0]!.name));
    for (const [i, part] of parts.entries()) {
      if (isTerminal(i) || templates[i]!.role) continue;
      for (const port of templates[i]!.ports)
        if (port.direction === 'out')
          add(nameIn(`${part.id}.${port.name}`), view.netsOfPin(part.id, port.name));
    }
    for (const part of parts) {
      const block = sheetInside(part, sheets);
      if (block) inside(block, path ? `${path}/${part.id}` : part.id, [...scope, nameIn(part.id)]);
    }
  };
  inside(sheet, '', [nameIn(sheet.name)]);
  return found;
}

/**
 * A value change dump (IEEE Std 1364-2005, clause 18) of a trace, line by line.
 * @param until time in ps at which it ends.
 */
export function* writeVcd(trace: Trace, signals: readonly DumpedSignal[], until: number): Generator<string> {
  yield '$version Manege $end';
  yield '$timescale 1 ps $end';
  // Signals that are one and the same group of nets share a code.
  const codes = new Map<string, { code: string; nets: readonly number[] }>();
  const codeFor = (nets: readonly number[]) => {
    const key = nets.join();
    let entry = codes.get(key);
    if (!entry) {
      entry = { code: codeOf(codes.size), nets };
      codes.set(key, entry);
    }
    return entry.code;
  };
  let scope: readonly string[] = [];
  for (const s of signals) {
    let common = 0;
    while (common < scope.length && common < s.scope.length && scope[common] === s.scope[common]) common++;
    for (let i = scope.length; i > common; i--) yield '$upscope $end';
    for (const name of s.scope.slice(common)) yield `$scope module ${name} $end`;
    scope = s.scope;
    const range = s.nets.length > 1 ? ` [${s.nets.length - 1}:0]` : '';
    yield `$var wire ${s.nets.length} ${codeFor(s.nets)} ${s.name}${range} $end`;
  }
  for (const _ of scope) yield '$upscope $end';
  yield '$enddefinitions $end';
  const entries = [...codes.values()];
  const ofNet = new Map<number, number[]>();
  for (const [i, { nets }] of entries.entries())
    for (const net of nets) ofNet.set(net, [...(ofNet.get(net) ?? []), i]);
  const now = trace.stateAt(trace.begins);
  const line = ({ code, nets }: { code: string; nets: readonly number[] }) => {
    if (nets.length === 1) return `${LETTERS[now[nets[0]!]!]}${code}`;
    let word = '';
    for (let bit = nets.length - 1; bit >= 0; bit--) word += LETTERS[now[nets[bit]!]!];
    return `b${word} ${code}`;
  };
  yield `#${trace.begins}`;
  yield '$dumpvars';
  for (const entry of entries) yield line(entry);
  yield '$end';
  let time = trace.begins;
  let touched = new Set<number>();
  for (const change of trace.changes(trace.begins, until)) {
    if (change.time !== time && touched.size > 0) {
      yield `#${time}`;
      for (const i of touched) yield line(entries[i]!);
      touched = new Set();
    }
    time = change.time;
    now[change.net] = change.value;
    for (const i of ofNet.get(change.net) ?? []) touched.add(i);
  }
  if (touched.size > 0) {
    yield `#${time}`;
    for (const i of touched) yield line(entries[i]!);
  }
  if (until > time) yield `#${until}`;
}

/** One signal of a dump that was read: its changes in the order of time. */
export interface ReadSignal {
  /** Scopes and name with dots between. */
  readonly path: string;
  readonly name: string;
  readonly width: number;
  /** Ps, and the bits with the least significant first. */
  readonly changes: readonly { readonly time: number; readonly bits: readonly Logic[] }[];
}

export const MOST_SIGNALS = 200_000;
export const MOST_CHANGES = 1_500_000;
/** Values of single bits in all changes of words together; some 8 bytes each. */
export const MOST_BITS = 10_000_000;
const MOST_WIDTH = 4096;
/** The bits of a change of a single bit: one array for each value. */
const SINGLE: readonly (readonly Logic[])[] = [[0], [1], [2], [3]];

/** Reads a value change dump. Real values and events are left out. */
export function readVcd(text: string): Result<ReadSignal[]> {
  interface Entry {
    readonly width: number;
    readonly changes: { time: number; bits: readonly Logic[] }[];
  }
  const byCode = new Map<string, Entry>();
  const signals: { path: string; name: string; width: number; entry: Entry }[] = [];
  const scopes: string[] = [];
  const words = wordsOf(text);
  let scale = 1;
  let time = 0;
  let changes = 0;
  let wordBits = 0;
  let defined = false;
  const bad = (what: string) => refused('bad-dump', `line ${words.line}: ${what}`, { line: words.line });
  const section = (): string[] | null => {
    const inside: string[] = [];
    for (let w = words.next(); w !== null; w = words.next()) {
      if (w === '$end') return inside;
      inside.push(w);
    }
    return null;
  };
  for (let word = words.next(); word !== null; word = words.next()) {
    if (/^\$dump(vars|all|on|off)$/.test(word) || word === '$end') continue;
    if (word.startsWith('$')) {
      const inside = section();
      if (!inside) return bad(`${word} is not closed by $end`);
      if (word === '$timescale') {
        const found = /^(1|10|100)(s|ms|us|ns|ps|fs)$/.exec(inside.join(''));
        if (!found) return bad('a timescale such as 1 ns is expected');
        scale = Number(found[1]) * PS_PER_UNIT[found[2] as TimeUnit];
      } else if (word === '$scope') scopes.push(inside[1] ?? '');
      else if (word === '$upscope') scopes.pop();
      else if (word === '$enddefinitions') defined = true;
      else if (word === '$var') {
        const [type, size, code, name] = inside;
        const width = Number(size);
        if (!code || !name || !Number.isInteger(width) || width < 1 || width > MOST_WIDTH)
          return bad('$var needs a type, a width, a code and a name');
        if (type === 'real' || type === 'event') continue;
        if (signals.length >= MOST_SIGNALS) return bad(`there are more than ${MOST_SIGNALS} signals`);
        let entry = byCode.get(code);
        if (entry && entry.width !== width) return bad(`code ${code} has two widths`);
        if (!entry) {
          entry = { width, changes: [] };
          byCode.set(code, entry);
        }
        const plain = name.replace(/\[\d+:\d+\]$/, '') + (inside[4] && width === 1 ? inside[4] : '');
        signals.push({ path: [...scopes, plain].join('.'), name: plain, width, entry });
      }
      continue;
    }
    if (!defined) return bad(`“${word.slice(0, 20)}” stands before $enddefinitions`);
    if (word.startsWith('#')) {
      const then = Math.round(Number(word.slice(1)) * scale);
      if (!/^#\d+$/.test(word) || !Number.isFinite(then)) return bad(`“${word.slice(0, 20)}” is not a time`);
      if (then < time) return bad(`the time ${word.slice(0, 20)} is before the one above`);
      time = then;
      continue;
    }
    let letters: string;
    let code: string | null;
    if (/^[bB]/.test(word)) {
      letters = word.slice(1).toLowerCase();
      code = words.next();
    } else if (/^[rR]/.test(word)) {
      words.next();
      continue;
    } else {
      letters = word[0]!.toLowerCase();
      code = word.slice(1);
    }
    if (!/^[01xz]+$/.test(letters)) return bad(`“${word.slice(0, 20)}” is not a change of a value`);
    const entry = code === null ? undefined : byCode.get(code);
    if (!entry) return bad(`the code ${(code ?? '').slice(0, 20)} was not declared`);
    if (letters.length > entry.width) return bad(`${letters.length} bits are too many for code ${code}`);
    if (++changes > MOST_CHANGES) return bad(`there are more than ${MOST_CHANGES} changes`);
    const pad = letters[0] === 'x' || letters[0] === 'z' ? letters[0] : '0';
    if (entry.width > 1) wordBits += entry.width;
    if (wordBits > MOST_BITS) return bad(`its changes of words have more than ${MOST_BITS} bits together`);
    const bits =
      entry.width === 1
        ? SINGLE[LETTERS.indexOf(letters)]!
        : [...letters.padStart(entry.width, pad)].reverse().map((c) => LETTERS.indexOf(c) as Logic);
    const last = entry.changes.at(-1);
    if (last?.time === time) entry.changes[entry.changes.length - 1] = { time, bits };
    else entry.changes.push({ time, bits });
  }
  if (!defined) return refused('other-format', 'it is not a value change dump: $enddefinitions is missing');
  return done(signals.map(({ path, name, width, entry }) => ({ path, name, width, changes: entry.changes })));
}

/** Words of a text one by one, with the line of the last one. */
function wordsOf(text: string): { next(): string | null; readonly line: number } {
  let at = 0;
  let line = 1;
  return {
    next() {
      while (at < text.length && text.charCodeAt(at) <= 32) if (text.charCodeAt(at++) === 10) line++;
      if (at >= text.length) return null;
      const from = at;
      while (at < text.length && text.charCodeAt(at) > 32) at++;
      return text.slice(from, at);
    },
    get line() {
      return line;
    },
  };
}

/**
 * For each net of a circuit the signal of a dump that has its name, and the bit of it: by scopes and name, or else by
 * the name alone where only one signal of that width has it.
 */
export function netsIn(
  signals: readonly DumpedSignal[],
  dump: readonly ReadSignal[],
): ReadonlyMap<number, { readonly course: ReadSignal; readonly bit: number }> {
  const key = (name: string, width: number) => `${name.toLowerCase()} ${width}`;
  const byPath = new Map(dump.map((s) => [key(s.path, s.width), s]));
  const byName = new Map<string, ReadSignal | null>();
  for (const s of dump) {
    const known = byName.get(key(s.name, s.width));
    byName.set(key(s.name, s.width), known === undefined || known?.changes === s.changes ? s : null);
  }
  const found = new Map<number, { course: ReadSignal; bit: number }>();
  for (const { scope, name, nets } of signals) {
    const course =
      byPath.get(key([...scope, name].join('.'), nets.length)) ?? byName.get(key(name, nets.length));
    for (const [bit, net] of nets.entries()) if (course && !found.has(net)) found.set(net, { course, bit });
  }
  return found;
}
