import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readVerilog } from '../src/core/formats/verilog/read';
import { countTable } from '../src/core/logic/table/derive-table';
import { needed } from '../src/core/logic/table/table-machine';
import { compile } from '../src/core/netlist/compile';
import type { Netlist } from '../src/core/netlist/netlist';
import { Primitive } from '../src/core/parts/primitive';
import { product } from '../src/core/testing/verilog-circuits';

/*
 * `npm run bench:native`: tables against a C program that is built for this machine and does the same work, straight-line over
 * vectors of 64-bit words, in pairs one after the other. Without a C compiler it says so.
 */

const PAIRS = 9;
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

/** A program that counts the ones of each output over all rows, as a text of C. */
function programOf(netlist: Netlist): string {
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
  const counts = netlist.outputColumns.map((c, o) => `ones[${o}] += (u)__builtin_popcountll(n${c.nets[0]});`);
  return `#include <stdio.h>
#include <time.h>
typedef unsigned long long u;
static u ones[${netlist.outputColumns.length}];
int main(void) {
  struct timespec t0, t1; clock_gettime(CLOCK_MONOTONIC, &t0);
  for (u b = 0; b < ${2 ** inputs.length / ROWS}ull; b++) { ${lines.join('\n')} ${counts.join('\n')} }
  clock_gettime(CLOCK_MONOTONIC, &t1);
  printf("%f\\n", (t1.tv_sec - t0.tv_sec) * 1e3 + (t1.tv_nsec - t0.tv_nsec) / 1e6);
  for (int o = 0; o < ${netlist.outputColumns.length}; o++) printf("%llu\\n", ones[o]);
}
`;
}

const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;

const folder = mkdtempSync(join(tmpdir(), 'native-'));
const read = readVerilog(product(12, 'a'), 'Bench');
if (!read.ok) throw new Error(read.problem.message);
const netlist = compile(read.value.sheets[0]!, read.value.sheets);
writeFileSync(join(folder, 'table.c'), programOf(netlist));
const built = spawnSync('cc', ['-O3', '-march=native', '-o', join(folder, 'table'), join(folder, 'table.c')]);
if (built.error) console.log('There is no C compiler here: nothing to compare with.');
else if (built.status !== 0) throw new Error(String(built.stderr));
else {
  const [ratios, warm]: [number[], number[]] = [[], []];
  for (let pair = 0; pair < PAIRS; pair++) {
    const out = spawnSync(join(folder, 'table'), { encoding: 'utf8' }).stdout.trim().split('\n').map(Number);
    const [native, ...ones] = out as [number, ...number[]];
    const begun = performance.now();
    const counted = countTable(netlist);
    const own = performance.now() - begun;
    if (String(counted) !== String(ones)) throw new Error('the two do not count the same');
    (pair === 0 ? ratios : warm).push(native / own);
  }
  console.log('| work | native ms / ours, above 1 is faster than native |\n|---|--:|');
  console.log(`| ones of a 12x12 multiplier, 2^24 rows, first time | ${median(ratios).toFixed(2)} |`);
  console.log(`| the same again, median of ${warm.length} | ${median(warm).toFixed(2)} |`);
}
rmSync(folder, { recursive: true });
