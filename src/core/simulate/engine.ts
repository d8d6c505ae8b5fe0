/*
 * What a run needs of whatever moves its gates. There are three: `PlainEngine` is the reference; the kernel and strips, in
 * WebAssembly, are tested against it change by change.
 */

/** A change of a gate's output that is due. */
export interface DueChange {
  readonly gate: number;
  /** Ps. */
  readonly time: number;
  readonly value: number;
}

/** Where an engine is between two instants. */
export interface EngineState {
  /** The value of each net. Not to be kept: the memory behind it may be another one later. */
  readonly values: Uint8Array;
  /** Changes of nets so far. */
  readonly events: number;
  eachDue(visit: (change: DueChange) => void): void;
}

/** Nothing changed. */
export const UNCHANGED = 255;

export interface Engine extends EngineState {
  /** Changes that are planned for this instant. */
  readonly planned: number;
  /** Plans a net to take on a value in the next round of this instant. */
  plan(net: number, value: number): void;
  dropPlanned(): void;
  eachPlanned(visit: (net: number) => void): void;
  /**
   * Lets everything planned take effect and evaluates what reads it, again and again while gates without delay change.
   * @param rounds how many rounds have been before in this instant.
   * @param bound rounds after which it is given up, with the rest still planned.
   * @returns how many rounds have been now.
   */
  settle(rounds: number, bound: number): number;
  /**
   * The gates that remember of which an input has changed since this was last asked, each once.
   * @param into has room for all gates that remember.
   * @returns how many there are.
   */
  storageRead(into: Int32Array): number;
  /** The value that a net had before this instant, or `UNCHANGED`; known where changes are noted. */
  valueBefore(net: number): number;
  /** Ends an instant: its changes are noted. */
  endInstant(): void;
  /** Notes all that has ended. */
  flush(): void;
  /** The earliest time in ps at which a gate is due, or Infinity. */
  next(): number;
  /**
   * The time of this instant in ps. It is a field and not a parameter: a number of more than 31 bits is allocated each time that it is passed.
   */
  time: number;
  /** Plans the changes due at that time, the earliest one. */
  takeDue(): void;
}

/** How a stretch of a run ended: nothing is due before its end, its steps are done, or an instant has begun that is to be settled. */
export type Stretch = 'done' | 'paused' | 'open';

/** An engine that does many instants in one call. */
export interface FastEngine extends Engine {
  /** Instants in which something was due, so far. */
  readonly instants: number;
  /** The rounds of the instant that a stretch has left open. */
  readonly rounds: number;
  /** Whether it cannot go on, or another does so better. */
  readonly isToBeLeft: boolean;
  /** Whether too little changes for strips. */
  readonly isSparse: boolean;
  /**
   * Lets time run up to a limit in ps.
   * @param isBefore whether the limit itself is left out.
   * @param steps changes and instants at most.
   * @param bound rounds of an instant after which it is given up.
   */
  stretch(limit: number, isBefore: boolean, steps: number, bound: number): Stretch;
  /**
   * Goes to a time, in ps, at which nothing is due.
   * @returns false where that time lies between two days of what is due later: the engine cannot go on from there.
   */
  moveTo(now: number): boolean;
  /** Goes to a time, in ps, before which nothing is due; what is due at that time takes effect in the next round. @returns as `moveTo`. */
  meet(now: number): boolean;
}

/** Who takes note of changes: the trace, and what watches setup and hold times. */
export interface Notes {
  /**
   * The changes of some instants, in words `net * 16 + value before * 4 + value`, one for each net that changes in an instant.
   * @param times of the instants in ps, which never fall.
   * @param ends for each instant where its words end.
   */
  note(words: Int32Array, times: Float64Array, ends: Int32Array, count: number): void;
}
