import type { Delays } from '../circuit/time-setup';
import type { Logic } from '../values/logic';

/** How a run begins and what it keeps. */
export interface RunOptions {
  readonly delays?: Delays;
  /** The power-up value of storage, where a part does not say. */
  readonly powerUp?: Logic;
  /** Values of switches, buttons and ports at the start, by `sourceKey`; 0 where none is given. */
  readonly inputs?: ReadonlyMap<string, Logic> | undefined;
  /** The initial values of storage, by the names of `storeName`; they override everything else. */
  readonly held?: ReadonlyMap<string, Logic>;
  /** Time in ps at which the run starts. */
  readonly from?: number;
  /** Most changes that the trace holds before it drops the oldest; with 0 there is no trace. */
  readonly mostChanges?: number;
  /** Steps after which the kernel in WebAssembly takes over, where it can; Infinity for the reference alone. */
  readonly kernelAfter?: number;
}
