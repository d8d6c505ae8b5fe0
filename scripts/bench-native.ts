import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { readVerilog } from '../src/core/formats/verilog/read';
import { countTable, deriveTable, tablePieces } from '../src/core/logic/table/derive-table';
import { needed } from '../src/core/logic/table/table-pieces';
import { countOnes, type TruthTable } from '../src/core/logic/table/truth-table';
import { compile } from '../src/core/netlist/compile';
import type { Netlist } from '../src/core/netlist/netlist';
import { Primitive } from '../src/core/parts/primitive';
import { product } from '../src/core/testing/verilog-circuits';
import { gates, multiplier, random } from './bench-circuits';
import { nativeEvents, ours, type TimedWork } from './native-events';

/*
 * `npm run bench:native`: tables and timed runs against C programs that are built for this machine and do the same work, in pairs
 * one after the other: tables straight-line over vectors of 64-bit words, timed runs over an event wheel (native-events.c).
 * First in processes that do this work alone, once; then warm, again and again in one. Without a C compiler it says so. With
 * `-- --loaded` each processor has something else to do meanwhile; ONLY is an expression for the names of the works wanted.
 */

const PAIRS = 9;
/** In a process that does one work once: which. */
const ONE = process.env.MANEGE_BENCH_ONE;
const WANTED = new RegExp(process.env.ONLY ?? '.');
/** Rows of a word. */
const ROWS = 64;

const OPS: Readonly<Partial<Record<number, readonly [op: string, isInverted: boolean]>>> = {
  [Primitive.AND]: ['&', false],
  [Primitive.NAND]: ['&', true],
  [Primitive.OR]: ['|', false],
  [Primitive.NOR]: ['|', true],
  [Primitive.XOR]: ['^', false],
  [Primitive.XNOR]: ['^', true],
  [Primitive.NOT]: ['&', true],
  [Primitive.BUF]: ['&', false],
};

/** What becomes of the rows of a table, in words. */
const HOW = {
  ones: 'ones',
  kept: 'all kept',
  again: 'all kept, in the memory of the one before',
  pieces: 'piece by piece',
};
/** Words of a piece: the same memory as ours has. */
const PIECE = 4096;

/** A program that goes through all rows and counts the ones of each output, as a text of C. */
function programOf(netlist: Netlist, how: keyof typeof HOW): string {
  const inputs = netlist.inputColumns.map((c) => c.nets[0]);
  const low = ['0xaaaaaaaaaaaaaaaa', '0xcccccccccccccccc', '0xf0f0f0f0f0f0f0f0', '0xff00ff00ff00ff00'];
  low.push('0xffff0000ffff0000', '0xffffffff00000000');
  const lines = inputs.map((net, i) => {
    const bit = inputs.length - 1 - i;
    return `u n${net} = ${bit < 6 ? `${low[bit]}ull` : `-((b >> ${bit - 6}) & 1)`};`;
  });
  for (const s of netlist.sources)
    if (s.kind === 'constant') lines.push(`u n${s.net} = ${s.value ? '~0ull' : '0'};`);
  for (const g of needed(netlist)) {
    const ins = [...netlist.ins.subarray(netlist.inStart[g]!, netlist.inStart[g + 1]!)].map(
      (net) => `n${net}`,
    );
    const [op, isInverted] = OPS[netlist.op[g]!]!;
    lines.push(`u n${netlist.out[g]} = ${isInverted ? '~' : ''}(${ins.join(` ${op} `)});`);
  }
  const blocks = 2 ** inputs.length / ROWS;
  const piece = how === 'pieces' ? PIECE : blocks;
  const outputs = netlist.outputColumns.length;
  /** Columns that are held. */
  const held = how === 'ones' ? 0 : outputs;
  const ends = netlist.outputColumns.map((c, o) =>
    how === 'ones'
      ? `ones[${o}] += (u)__builtin_popcountll(n${c.nets[0]});`
      : `columns[${o}][b - from] = n${c.nets[0]};`,
  );
  return `#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>
typedef unsigned long long u;
static u ones[${outputs}];
static u *columns[${outputs}];
int main(void) {
  double ms;
  for (int pass = 0; pass < ${how === 'again' ? 2 : 1}; pass++) {
  ms = 0;
  memset(ones, 0, sizeof ones);
  for (u from = 0; from < ${blocks}ull; from += ${piece}ull) {
    struct timespec t0, t1; clock_gettime(CLOCK_MONOTONIC, &t0);
    if (from == 0 && pass == 0)
      for (int o = 0; o < ${held}; o++) columns[o] = malloc(${piece}ull * sizeof(u));
    for (u b = from; b < from + ${piece}ull; b++) { ${lines.join('\n')} ${ends.join('\n')} }
    clock_gettime(CLOCK_MONOTONIC, &t1);
    ms += (t1.tv_sec - t0.tv_sec) * 1e3 + (t1.tv_nsec - t0.tv_nsec) / 1e6;
    for (int o = 0; o < ${held}; o++)
      for (u b = 0; b < ${piece}ull; b++) ones[o] += (u)__builtin_popcountll(columns[o][b]);
  }
  }
  printf("%f\\n", ms);
  for (int o = 0; o < ${outputs}; o++) printf("%llu\\n", ones[o]);
}
`;
}

const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;

/** The rows of the table: native time over our time, in processes of their own and warm; medians. */
const rows: { work: string; first: number; warm: number }[] = [];

/** How long a work took, in ms, and its result. */
type Measured = readonly [ms: number, result: number | readonly number[]];

/** Does a work once in a process of its own. */
function inNewProcess(work: string): Measured {
  const ran = spawnSync(process.execPath, [process.argv[1]!], {
    encoding: 'utf8',
    env: { ...process.env, MANEGE_BENCH_ONE: work },
  });
  if (ran.status !== 0) throw new Error(`${work}: ${ran.stderr}`);
  return JSON.parse(ran.stdout) as Measured;
}

/** Measures pairs. @throws Error if the two do not do the same. */
function pairs(work: string, native: () => Measured, own: () => Measured): void {
  if (ONE !== undefined) {
    if (ONE === work) console.log(JSON.stringify(own()));
    return;
  }
  if (!WANTED.test(work)) return;
  const ratiosTo = (one: () => Measured) =>
    Array.from({ length: PAIRS }, () => {
      const [theirs, right] = native();
      const [ours, result] = one();
      if (String(result) !== String(right)) throw new Error(`${work}: the two do not do the same`);
      return theirs / ours;
    });
  const first = median(ratiosTo(() => inNewProcess(work)));
  own();
  rows.push({ work, first, warm: median(ratiosTo(own)) });
}

const columnsOf = ({ ones }: TruthTable) => ones as Uint32Array<ArrayBuffer>[];

function readDesign(text: string): Netlist {
  const read = readVerilog(text, 'Bench');
  if (!read.ok) throw new Error(read.problem.message);
  return compile(read.value.sheets[0]!, read.value.sheets);
}

function tables(folder: string): void {
  const netlist = readDesign(product(12, 'a'));
  const program = join(folder, 'table');
  const build = (how: keyof typeof HOW) => {
    writeFileSync(`${program}.c`, programOf(netlist, how));
    const built = spawnSync('cc', ['-O3', '-march=native', '-o', program, `${program}.c`]);
    if (built.status !== 0) throw new Error(String(built.stderr));
    return program;
  };
  for (const how of ['ones', 'kept', 'again', 'pieces'] as const) {
    let built = '';
    let before: TruthTable | null = null;
    pairs(
      `12x12 multiplier, 2^24 rows, ${HOW[how]}`,
      () => {
        built ||= build(how);
        const [ms, ...ones] = spawnSync(built, { encoding: 'utf8' }).stdout.trim().split('\n').map(Number);
        return [ms!, ones];
      },
      () => {
        // As the C program does: once, and once more right after it, which is measured.
        if (how === 'again') before = deriveTable(netlist, {}, before ? columnsOf(before) : []);
        let ms = 0;
        const timed = <T>(work: () => T): T => {
          const begun = performance.now();
          const made = work();
          ms += performance.now() - begun;
          return made;
        };
        if (how === 'ones') {
          const ones = timed(() => countTable(netlist));
          return [ms, ones];
        }
        const ones = netlist.outputColumns.map(() => 0);
        const count = (table: TruthTable) => {
          for (const [o, column] of table.ones.entries()) ones[o]! += countOnes(column);
        };
        if (how === 'kept' || how === 'again') {
          const table = timed(() => deriveTable(netlist, {}, before ? columnsOf(before) : []));
          count(table);
          if (before) before = table;
        } else {
          const pieces = tablePieces(netlist);
          for (let next = timed(() => pieces.next()); !next.done; next = timed(() => pieces.next()))
            count(next.value);
        }
        return [ms, ones];
      },
    );
  }
}

/** The same circuit with delays of 1 to 9 ns. */
function withDelays(netlist: Netlist): Netlist {
  const next = random(5);
  const delays = Float64Array.from(netlist.op, () => 1000 * (1 + Math.floor(9 * next())));
  return { ...netlist, rise: delays, fall: delays };
}

function timedRuns(native: NonNullable<ReturnType<typeof nativeEvents>>): void {
  /** Each is built when it is measured. */
  const works: { name: string; work: () => TimedWork }[] = [false, true].map((isTraced) => ({
    name: `timed run, 16x16 multiplier, unit delays, 300 vectors${isTraced ? ', with a trace' : ''}`,
    work: () => ({ netlist: compile(multiplier(16)), delays: 'unit', vectors: 300, isTraced }),
  }));
  for (const [count, vectors] of [
    [1000, 300],
    [5000, 100],
    [10_000, 40],
    [100_000, 2],
  ] as const)
    works.push({
      name: `timed run, ${count} random gates, delays of 1 to 9 ns, ${vectors} vectors`,
      work: () => ({
        netlist: withDelays(compile(gates(32, count))),
        delays: 'parts',
        vectors,
        isTraced: false,
      }),
    });
  const perEvent: [gates: number, ns: number][] = [];
  for (const { name, work } of works) {
    let built: TimedWork | null = null;
    const perEventOf: [gates: number, ns: number][] = [];
    pairs(
      name,
      () => {
        built ??= work();
        const { ms, events } = native(built);
        return [ms, events];
      },
      () => {
        built ??= work();
        const { ms, events } = ours(built);
        if (built.delays === 'parts') perEventOf.push([built.netlist.op.length, (ms * 1e6) / events]);
        return [ms, events];
      },
    );
    if (perEventOf.length > 0) perEvent.push([perEventOf[0]![0], median(perEventOf.map(([, ns]) => ns))]);
  }
  if (perEvent.length < 2) return;
  const [small, large] = [perEvent[0]!, perEvent.at(-1)!];
  console.log(
    `\nTime an event, by gates: ${perEvent.map(([g, ns]) => `${g}: ${ns.toFixed(0)} ns`).join(', ')};`,
  );
  console.log(
    `it grows with the gates to the power of ${(Math.log(large[1] / small[1]) / Math.log(large[0] / small[0])).toFixed(2)}.\n`,
  );
}

/** Prints the table of all works; in a process for one work, what that one took. */
function measure(folder: string): void {
  const native = ONE === undefined ? nativeEvents(folder) : notRun;
  if (!native) {
    console.log('There is no C compiler here, so nothing is compared with C.');
    return;
  }
  tables(folder);
  timedRuns(native);
  if (rows.length === 0) return;
  console.log(`| work | native ms / ours, a process of its own | warm |\n|---|--:|--:|`);
  for (const { work, first, warm } of rows)
    console.log(`| ${work} | ${first.toFixed(2)} | ${warm.toFixed(2)} |`);
  console.log(`Medians of ${PAIRS} pairs.`);
}

const notRun = () => {
  throw new Error('the C program is not run here');
};
const isLoaded = process.argv.includes('--loaded') && ONE === undefined;
const load = isLoaded
  ? cpus().map(() => spawn(process.execPath, ['-e', 'for (;;) Math.random();'], { stdio: 'ignore' }))
  : [];
// The bench does not wait for them; they are stopped when it ends.
for (const other of load) other.unref();
process.once('exit', () => {
  for (const other of load) other.kill();
});
const folder = mkdtempSync(join(tmpdir(), 'native-'));
measure(folder);
rmSync(folder, { recursive: true });
