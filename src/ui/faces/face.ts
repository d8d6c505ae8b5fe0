import type { ComponentType } from 'react';
import type { SessionState } from '@/session/state';

/** A line of the help page: a gesture or key, and its effect. */
export type HelpLine = readonly [what: string, how: string];

/** A face that can stand beside the drawing; everything that the page around knows of it. */
export interface Face {
  /** Stable: `table`. */
  readonly id: string;
  /** As it stands in menus and over its pane. */
  readonly name: string;
  /** As it follows “could not fetch”: `the truth table`. */
  readonly what: string;
  load(): Promise<ComponentType>;
  /** Whether it is open until the user opens or closes it. */
  opensWhen(state: SessionState): boolean;
  /** Share of the height in per cent beside other faces; without one it shares the rest. */
  readonly share?: number;
  /** Whether it needs more room across. */
  readonly isWide?: boolean;
  /** Whether it needs more room than the drawing. */
  readonly isWidest?: boolean;
  /** Its lines on the help page. */
  loadHelp?(): Promise<readonly HelpLine[]>;
}
