import type { Result } from '@/core/values/result';
import type { EditorContext } from './context';
import type { Group } from './groups';

/**
 * An action on the open lesson. Menus, keys, the command palette and the help page are generated from these records
 * alone.
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
  /** The help page's text for the keys, the name by default; commands with the same text share a line. */
  readonly help?: string;
  /** Further search words of the command palette. */
  readonly words?: string;
  /** Whether its keys work while another face has the focus. */
  readonly isEverywhere?: boolean;
  /** How its step of undo begins: `turn`. Commands that change nothing have none. */
  readonly undoName?: string;
  /** The colour that a menu shows in place of the name. */
  readonly swatch?: string;
  /** A more specific name at this moment: `Undo: move 3 parts`. */
  nameNow?(context: EditorContext): string;
  /** The state of a command that switches something on and off. */
  isOn?(context: EditorContext): boolean;
  /** Whether the command applies now; a refusal's message is a clause that says why not. */
  when(context: EditorContext): Result<undefined>;
  /** Runs the command and reports any refusal to the person. */
  run(context: EditorContext): unknown;
}

export const nameOf = (command: Command, context: EditorContext): string =>
  command.nameNow?.(context) ?? command.name;

/** Runs a command if it applies, and otherwise tells the reason. @returns whether the command ran. */
export function runCommand(command: Command, context: EditorContext): boolean {
  const applies = command.when(context);
  if (!applies.ok) {
    context.session.say(`${command.name}: ${applies.problem.message}.`, 'bad');
    return false;
  }
  command.run(context);
  return true;
}
