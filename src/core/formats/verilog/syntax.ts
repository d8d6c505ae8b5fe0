import type { Place } from './tokens';

/** An expression as it stands in the file. */
export type Expression = Place &
  (
    | { readonly is: 'name'; readonly name: string }
    /** Digits `0 1 x z`, the highest first; `sized` where the file gives a width. */
    | { readonly is: 'number'; readonly digits: string; readonly sized: boolean }
    | { readonly is: 'bit'; readonly name: string; readonly index: Expression }
    | { readonly is: 'range'; readonly name: string; readonly high: Expression; readonly low: Expression }
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
  );

export interface Range {
  readonly high: Expression;
  readonly low: Expression;
}

export interface Declaration extends Place {
  readonly name: string;
  readonly range: Range | null;
  readonly direction: 'input' | 'output' | null;
  readonly type: 'wire' | 'reg' | 'supply0' | 'supply1';
}

/** Delays in the unit of the file, for a rising and a falling output. */
export interface FileDelay {
  readonly rise: Expression;
  readonly fall: Expression;
}

export type Statement = Place &
  (
    | { readonly is: 'block'; readonly statements: readonly Statement[] }
    | {
        readonly is: 'if';
        readonly condition: Expression;
        readonly yes: Statement;
        readonly no: Statement | null;
      }
    | {
        readonly is: 'assign';
        readonly target: Expression;
        readonly value: Expression;
        readonly delay: FileDelay | null;
        readonly blocking: boolean;
      }
  );

export interface Connection extends Place {
  /** Null for a connection by position. */
  readonly port: string | null;
  /** Null where nothing is connected. */
  readonly to: Expression | null;
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
    | {
        readonly is: 'always';
        /** Null for a level-sensitive block. */
        readonly edges:
          | readonly { readonly edge: 'posedge' | 'negedge'; readonly signal: Expression }[]
          | null;
        readonly body: Statement;
      }
    | { readonly is: 'initial'; readonly target: Expression; readonly value: Expression }
  );

export interface Module extends Place {
  readonly name: string;
  /** Names of its ports in order. */
  readonly ports: readonly string[];
  readonly declarations: readonly Declaration[];
  readonly parameters: readonly {
    readonly name: string;
    readonly value: Expression;
    readonly local: boolean;
  }[];
  readonly items: readonly Item[];
  /** Ps in one unit of its delays. */
  readonly unit: number;
}
