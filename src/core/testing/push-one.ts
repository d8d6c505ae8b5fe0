import type { Trace } from '../simulate/trace';

/** Has a trace take in one change. @param time ps. */
export function pushOne(trace: Trace, time: number, net: number, value: number): void {
  trace.push(Int32Array.of((net << 4) | value), Float64Array.of(time), Int32Array.of(1), 1);
}
