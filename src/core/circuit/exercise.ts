import type { Part, Settings, Sheet, Wire } from './sheet';

/** The expectation of a circuit; `exercise/expected/` adds the rest of each kind. */
export interface Expected {
  readonly kind: string;
}

/** How much a student learns from a check, from most to least. */
export const TELLS = ['wanted', 'places', 'count', 'verdict', 'nothing'] as const;
export type Tells = (typeof TELLS)[number];

/** A sheet as plain data, its parts and wires in lists. */
export interface FlatSheet extends Omit<Sheet, 'parts' | 'wires'> {
  readonly parts: readonly Part[];
  readonly wires: readonly Wire[];
}

/** A circuit that a task gives: its first sheet, with the sheets of its blocks behind it. */
export interface GivenCircuit {
  readonly settings: Settings;
  readonly sheets: readonly FlatSheet[];
}

/** A picture of a circuit in the words of a task, where they say `![name](picture)`. */
export interface TaskPicture {
  readonly name: string;
  readonly circuit: GivenCircuit;
}

/** A slow hash of an answer with its salt, in base64url; see `exercise/verdicts.ts`. */
export interface Digest {
  readonly salt: string;
  readonly hash: string;
}

/** One task of an exercise; `exercise/kinds/` knows what `asked` and `key` hold for each kind. */
export interface Task<Q = unknown, K = unknown> {
  readonly id: string;
  readonly kind: string;
  readonly title: string;
  /** Markdown without HTML. */
  readonly words: string;
  readonly pictures?: readonly TaskPicture[] | undefined;
  readonly points: number;
  readonly tells: Tells;
  /** Checks that a student may make; null for as many as wanted. */
  readonly tries: number | null;
  readonly given: GivenCircuit | null;
  /** What is asked, as every student sees it. */
  readonly asked: Q;
  /** The wanted answer. Null if it is sealed; without the solution if only a digest is kept. */
  readonly key: K;
  /** The wanted answer as only the teacher's key opens it, and the public key to which it is sealed. */
  readonly sealed?: { readonly to: string; readonly box: string } | undefined;
  /** What tells a right answer without telling the answer; there beside the box where checks may tell “right or not yet”. */
  readonly digest?: Digest | undefined;
}

/** Whether a student may do the tasks as they like, or each only when the one before is solved. */
export const ORDERS = ['free', 'in order'] as const;
export type Order = (typeof ORDERS)[number];

/** An exercise as it is handed out: a set of tasks. */
export interface Exercise {
  readonly id: string;
  readonly title: string;
  /** Markdown without HTML, before all tasks. */
  readonly words: string;
  /** Counts up whenever it is handed out changed. */
  readonly edition: number;
  /** When this edition was made, as ISO 8601. */
  readonly made: string;
  readonly order: Order;
  readonly tasks: readonly Task[];
}

/** A student's answer to a task; `exercise/kinds/` adds the rest of each kind. */
export interface Answer {
  readonly kind: string;
}

/** The place of a student's work at a task. */
export interface TaskWork {
  /** The sheet on which the task is done. */
  readonly sheet: string;
  /** What was filled in; null before, and where the circuit is the answer. */
  readonly answer: Answer | null;
}

/** The checks that a student has made of a task. */
export interface TaskChecks {
  readonly count: number;
  /** Whether the last one found it solved. */
  readonly solved: boolean;
}

/** A student's work at an exercise, by the ids of its tasks. */
export interface Work {
  readonly tasks: Readonly<Record<string, TaskWork>>;
  readonly checks: Readonly<Record<string, TaskChecks>>;
}
