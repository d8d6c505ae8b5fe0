import type { Place } from './tokens';

/** Some bits of a word: `[7:4]`, `[i +: 4]`, `[i -: 4]`. */
export interface PartSelect {
  readonly how: ':' | '+:' | '-:';
  readonly first: Expression;
  readonly second: Expression;
}

/** An expression as it stands in the file. */
export type Expression = Place &
  (
    | { readonly is: 'name'; readonly name: string }
    /** Digits `0 1 x z`, the highest first, or `r` and a real number; `sized` where the file gives a width. */
    | { readonly is: 'number'; readonly digits: string; readonly sized: boolean; readonly signed: boolean }
    | { readonly is: 'text'; readonly text: string }
    /** A bit, a word of a memory, some bits, or bits of such a word. */
    | {
        readonly is: 'select';
        readonly name: string;
        readonly path: readonly Expression[];
        readonly part: PartSelect | null;
      }
    | { readonly is: 'concat'; readonly items: readonly Expression[] }
    | { readonly is: 'repeat'; readonly count: Expression; readonly item: Expression }
    | { readonly is: 'unary'; readonly operator: string; readonly of: Expression }
    | {
        readonly is: 'binary';
        readonly operator: string;
        readonly left: Expression;
        readonly right: Expression;
      }
    | {
        readonly is: 'choose';
        readonly condition: Expression;
        readonly yes: Expression;
        readonly no: Expression;
      }
    /** A function, also one of the system such as `$signed`. */
    | { readonly is: 'call'; readonly name: string; readonly arguments: readonly Expression[] }
  );
export type Select = Extract<Expression, { is: 'select' }>;
export type Call = Extract<Expression, { is: 'call' }>;

export interface Range {
  readonly high: Expression;
  readonly low: Expression;
}

export type Direction = 'input' | 'output' | 'inout';

export interface Declaration extends Place {
  readonly name: string;
  readonly range: Range | null;
  readonly direction: Direction | null;
  readonly type: 'wire' | 'reg' | 'integer' | 'time' | 'real' | 'event' | 'genvar' | 'supply0' | 'supply1';
  readonly signed: boolean;
  /** The addresses of a memory. */
  readonly words: Range | null;
}

export interface Parameter extends Place {
  readonly name: string;
  readonly value: Expression;
  readonly local: boolean;
  readonly range: Range | null;
  readonly signed: boolean;
}

/** Delays in the unit of the file, for a rising and a falling output. */
export interface FileDelay {
  readonly rise: Expression;
  readonly fall: Expression;
}

/** The sensitivity of a process: every signal that it reads, or a list. */
export type Sensitivity = 'all' | readonly Watched[];
export interface Watched {
  readonly edge: 'posedge' | 'negedge' | null;
  readonly signal: Expression;
}

export interface CaseItem {
  readonly labels: readonly Expression[];
  readonly body: Statement;
}

export type Assign = Place & {
  readonly is: 'assign';
  readonly target: Expression;
  readonly value: Expression;
  readonly delay: FileDelay | null;
  readonly blocking: boolean;
};

export type Statement = Place &
  (
    | {
        readonly is: 'block';
        readonly name: string | null;
        readonly declarations: readonly Declaration[];
        readonly statements: readonly Statement[];
      }
    | {
        readonly is: 'if';
        readonly condition: Expression;
        readonly yes: Statement;
        readonly no: Statement | null;
      }
    | {
        readonly is: 'case';
        readonly how: 'case' | 'casez' | 'casex';
        readonly chosen: Expression;
        readonly items: readonly CaseItem[];
        readonly otherwise: Statement | null;
      }
    | Assign
    | {
        readonly is: 'for';
        readonly first: Assign;
        readonly condition: Expression;
        readonly step: Assign;
        readonly body: Statement;
      }
    | { readonly is: 'while'; readonly condition: Expression; readonly body: Statement }
    | { readonly is: 'repeat'; readonly count: Expression; readonly body: Statement }
    | { readonly is: 'forever'; readonly body: Statement }
    | { readonly is: 'wait'; readonly condition: Expression; readonly body: Statement }
    | { readonly is: 'delay'; readonly delay: Expression; readonly body: Statement }
    | { readonly is: 'event'; readonly on: Sensitivity; readonly body: Statement }
    | { readonly is: 'call'; readonly name: string; readonly arguments: readonly (Expression | null)[] }
    | { readonly is: 'disable'; readonly name: string }
    | { readonly is: 'trigger'; readonly name: string }
  );

export interface Connection extends Place {
  /** Null for a connection by position. */
  readonly port: string | null;
  /** Null where nothing is connected. */
  readonly to: Expression | null;
}

/** A function, or a task if it gives nothing back. */
export interface Routine extends Place {
  readonly name: string;
  /** What a function gives back; null for a task. */
  readonly result: {
    readonly range: Range | null;
    readonly signed: boolean;
    readonly isInteger: boolean;
  } | null;
  readonly arguments: readonly Declaration[];
  readonly declarations: readonly Declaration[];
  readonly body: Statement;
}

/** What a module or a generated block consists of. */
export interface Body {
  readonly declarations: readonly Declaration[];
  readonly parameters: readonly Parameter[];
  readonly items: readonly Item[];
  readonly routines: readonly Routine[];
}

export type Item = Place &
  (
    | {
        readonly is: 'assign';
        readonly target: Expression;
        readonly value: Expression;
        readonly delay: FileDelay | null;
      }
    | {
        readonly is: 'gate';
        readonly kind: string;
        readonly name: string;
        readonly delay: FileDelay | null;
        readonly terminals: readonly Expression[];
      }
    | {
        readonly is: 'instance';
        readonly module: string;
        readonly name: string;
        readonly parameters: readonly Connection[];
        readonly connections: readonly Connection[];
      }
    /** `on` is null where its body says itself what it waits for. */
    | { readonly is: 'always'; readonly on: Sensitivity | null; readonly body: Statement }
    | { readonly is: 'initial'; readonly body: Statement }
    | {
        readonly is: 'generate if';
        readonly condition: Expression;
        readonly yes: Generated;
        readonly no: Generated | null;
      }
    | {
        readonly is: 'generate for';
        readonly variable: string;
        readonly first: Expression;
        readonly condition: Expression;
        readonly step: Expression;
        readonly body: Generated;
      }
    | {
        readonly is: 'generate case';
        readonly chosen: Expression;
        readonly items: readonly { readonly labels: readonly Expression[]; readonly body: Generated }[];
        readonly otherwise: Generated | null;
      }
    | { readonly is: 'generate block'; readonly body: Generated }
  );

/** Items that are made by a generate construct. */
export interface Generated extends Body {
  readonly name: string | null;
}

export interface Module extends Body, Place {
  readonly name: string;
  /** Names of its ports in order. */
  readonly ports: readonly string[];
  /** Ps in one unit of its delays. */
  readonly unit: number;
  /** Ps to which times are told. */
  readonly precision: number;
}
