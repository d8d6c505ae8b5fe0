import '../src/core/simulate/with-kernel';
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Delays } from '../src/core/circuit/time-setup';
import type { Netlist } from '../src/core/netlist/netlist';
import { Primitive } from '../src/core/parts/primitive';
import { Run } from '../src/core/simulate/run';
import type { Logic } from '../src/core/values/logic';
import { random } from './bench-circuits';

/** A timed run from rest over random vectors, each until the circuit is at rest again. */
export interface TimedWork {
  readonly netlist: Netlist;
  readonly delays: Delays;
  readonly vectors: number;
  readonly isTraced: boolean;
}

/** Most changes that either trace holds. */
const MOST_CHANGES = 1 << 22;

/** The levels of all inputs, vector by vector. */
function vectorsOf({ netlist, vectors }: TimedWork): Uint8Array {
  const next = random(7);
  return Uint8Array.from({ length: netlist.inputs.length * vectors }, () => (next() < 0.5 ? 0 : 1));
}

/** Runs a work in our engine. @returns ms, with the time that a run needs before its first instant, and events. */
export function ours(work: TimedWork): { ms: number; events: number } {
  const levels = vectorsOf(work);
  const inputs = work.netlist.inputs.map((t) => t.nets[0]!);
  const changes = Array.from({ length: work.vectors }, (_, v) =>
    inputs.map((net, i) => [net, levels[v * inputs.length + i] as Logic] as const),
  );
  const begun = performance.now();
  const run = new Run(work.netlist, {
    delays: work.delays,
    mostChanges: work.isTraced ? MOST_CHANGES : 0,
  });
  for (const vector of changes) {
    run.set(vector);
    run.advance(Number.POSITIVE_INFINITY);
  }
  return { ms: performance.now() - begun, events: run.events };
}

/** Builds the C program. @returns how to run a work with it; null without a C compiler. */
export function nativeEvents(folder: string): ((work: TimedWork) => { ms: number; events: number }) | null {
  const program = join(folder, 'events');
  const built = spawnSync('cc', [
    '-O3',
    '-march=native',
    '-o',
    program,
    join(import.meta.dirname, 'native-events.c'),
  ]);
  if (built.error) return null;
  if (built.status !== 0) throw new Error(String(built.stderr));
  return (work) => {
    const file = join(folder, 'circuit');
    writeFileSync(file, asWords(work));
    const ran = spawnSync(program, [file, work.isTraced ? '1' : '0'], { encoding: 'utf8' });
    if (ran.status !== 0) throw new Error(`the C program ended with ${ran.status}: ${ran.stderr}`);
    const [ms, events] = ran.stdout.trim().split(' ').map(Number);
    return { ms: ms!, events: events! };
  };
}

/** The circuit at rest and the vectors, as the C program reads them; gates of at most two inputs. */
function asWords(work: TimedWork): Buffer {
  const { netlist, delays, vectors } = work;
  const { values } = new Run(netlist, { delays: 'zero', mostChanges: 0 });
  const delay = (own: Float64Array, g: number) => (delays === 'unit' ? netlist.delayed[g]! : own[g]! / 1000);
  const gateOf = new Int32Array(netlist.nets).fill(-1);
  for (const [g, net] of netlist.out.entries()) gateOf[net] = g;
  const fan: number[] = [];
  const rows: number[] = [];
  let longest = 1;
  const readers: number[][] = Array.from({ length: netlist.nets }, () => []);
  for (let g = 0; g < netlist.op.length; g++)
    for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++)
      readers[netlist.ins[i]!]!.push(netlist.out[g]! * 2 + (i - netlist.inStart[g]!));
  for (let net = 0; net < netlist.nets; net++) {
    const g = gateOf[net]!;
    const op = g < 0 ? Primitive.BUF : netlist.op[g]!;
    let inputs = 0;
    if (g >= 0 && op <= Primitive.XNOR)
      for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++)
        inputs |= values[netlist.ins[i]!]! << (i - netlist.inStart[g]!);
    const [rise, fall] = g < 0 ? [1, 1] : [delay(netlist.rise, g), delay(netlist.fall, g)];
    longest = Math.max(longest, rise, fall);
    rows.push(op & 7, inputs, values[net]!, rise, fall, fan.length, fan.length + readers[net]!.length);
    fan.push(...readers[net]!);
  }
  const inputs = netlist.inputs.map((t) => t.nets[0]!);
  const head = [netlist.nets, fan.length, longest + 1, inputs.length, vectors, 0];
  return Buffer.concat([
    Buffer.from(Int32Array.from([...head, ...rows, ...fan, ...inputs]).buffer),
    vectorsOf(work),
  ]);
}
