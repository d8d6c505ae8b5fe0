import type { Result } from '@/core/values/result';
import type { EditorContext } from './context';
import type { Group } from './groups';

/**
 * One thing that can be done with the open lesson. Menus, keys, the list of commands and the help page are made from
 * these records and from nothing else.
 */
export interface Command {
  /** Stable: `part.turn`. */
  readonly id: string;
  readonly name: string;
  readonly group: Group;
  /** Chords that run it. Where several commands share one, the first that applies takes it. */
  readonly keys?: readonly string[];
  /** Whether the browser turns the keys into an event of its own: they are shown, and not listened for. */
  readonly isBrowserKey?: boolean;
  /** The pointer gesture with the same effect, where a menu tells it: `double click`. */
  readonly gesture?: string;
  /**
   * The help page's text for the keys; commands with the same text share a line. Their name where it is not
   * given.
   */
  readonly help?: string;
  /** More words by which it is found. */
  readonly words?: string;
  /** Whether its keys work while another face has the focus. */
  readonly isEverywhere?: boolean;
  /** How its step of undo begins: `turn`. Commands that change nothing have none. */
  readonly undoName?: string;
  /** The colour that a menu shows in place of the name. */
  readonly swatch?: string;
  /** The name for this moment, where it tells more: `Undo: move 3 parts`. */
  nameNow?(context: EditorContext): string;
  /** Whether it is on, for commands that switch something. */
  isOn?(context: EditorContext): boolean;
  /** Whether it applies now; else why not, as a clause. */
  when(context: EditorContext): Result<undefined>;
  /** Runs it. It has told the person of any refusal itself. */
  run(context: EditorContext): unknown;
}

export const nameOf = (command: Command, context: EditorContext): string =>
  command.nameNow?.(context) ?? command.name;

/** Runs a command where it applies; else says why it does not. @returns whether it was run. */
export function runCommand(command: Command, context: EditorContext): boolean {
  const applies = command.when(context);
  if (!applies.ok) {
    context.session.say(`${command.name}: ${applies.problem.message}.`, 'bad');
    return false;
  }
  command.run(context);
  return true;
}
