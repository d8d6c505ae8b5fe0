import { isMomentary, PLACEABLE } from '@/core/parts/catalogue';
import { place } from '@/session/changes/place';
import { COMMANDS } from '.';
import { chordOf, type KeyPress } from './chord';
import type { Command } from './command';
import { NO_GATE, NOTHING_SELECTED } from './conditions';
import type { EditorContext } from './context';
import { openTyping, TYPE } from './place';

const BY_CHORD = new Map<string, Command[]>();
for (const command of COMMANDS)
  for (const chord of command.isBrowserKey ? [] : (command.keys ?? []))
    BY_CHORD.set(chord, [...(BY_CHORD.get(chord) ?? []), command]);

/**
 * Handles a key on a page with a drawing: it moves the switch that it is bound to, runs a command, or begins
 * the typing line with its letter.
 * @returns whether it did anything; else the browser may have the key.
 */
export function pressKey(press: KeyPress, context: EditorContext): boolean {
  if (repeatOrSet(press, context)) return true;
  if (pressBoundSwitch(press, context)) return true;
  const chord = chordOf(press);
  const all = BY_CHORD.get(chord) ?? [];
  const commands = all.filter((c) => !press.elsewhere || c.isEverywhere);
  for (const command of commands)
    if (command.when(context).ok) {
      command.run(context);
      return true;
    }
  // A number that nothing selected takes begins `2 input and`, or `7400` beside a part that takes none; `~` a name with a bar.
  const isNumber =
    /^[0-9]$/.test(chord) && (beginsPart(chord) || all.every((command) => isIdle(command, context)));
  if (commands.length > 0 && !isNumber) return explain(commands[0]!, context);
  if (!isNumber && !/^[a-z~]$/i.test(chord)) return false;
  if (!TYPE.when(context).ok) return explain(TYPE, context);
  openTyping(context, chord);
  return true;
}

/** Whether a number of a part begins with this digit. */
const beginsPart = (digit: string): boolean => PLACEABLE.some(({ typedAs }) => typedAs?.(digit));

/** Whether a command has merely nothing to act on, or nothing of its kind. */
function isIdle(command: Command, context: EditorContext): boolean {
  const applies = command.when(context);
  return !applies.ok && (applies.problem.code === NOTHING_SELECTED || applies.problem.code === NO_GATE);
}

/** Explains a key if none of its commands applies, unless there is merely nothing to act on. */
function explain(command: Command, context: EditorContext): boolean {
  const applies = command.when(context);
  if (applies.ok || applies.problem.code === NOTHING_SELECTED) return false;
  context.session.say(`${command.name}: ${applies.problem.message}.`, 'bad');
  return true;
}

const isPlain = ({ ctrlKey, metaKey, altKey }: KeyPress) => !ctrlKey && !metaKey && !altKey;

/** Moves the switch, or presses the button, that a key is bound to. */
function pressBoundSwitch(press: KeyPress, { session }: EditorContext): boolean {
  const bound = isPlain(press) ? session.boundTo(press.key) : null;
  if (!bound) return false;
  if (isMomentary(bound)) session.put([[session.keyOf(bound.id), 1]]);
  else if (!press.isRepeat) session.flip(bound.id);
  return true;
}

/** Releases the button that a key is bound to. */
export function releaseKey(key: string, { session }: EditorContext): void {
  const bound = session.boundTo(key);
  if (bound && isMomentary(bound)) session.put([[session.keyOf(bound.id), 0]]);
}

/** Right after parts were placed, Enter places another and Tab sets its first parameter. */
function repeatOrSet(press: KeyPress, { session, drawing }: EditorContext): boolean {
  const popup = drawing.popup();
  if (popup?.is !== 'placed') return false;
  if (!isPlain(press) || ['Shift', 'Control', 'Alt'].includes(press.key)) return false;
  const { kind, params, parts } = popup;
  const last = session.sheet.parts.get(parts.at(-1)!);
  if (press.key === 'Enter' && last) {
    const placed = place(session, kind, params, [''], last.at, false);
    drawing.open(placed.ok ? { ...popup, parts: placed.value } : null);
    return true;
  }
  drawing.open(null);
  if (press.key !== 'Tab' || !last || !kind.settings?.length) return false;
  drawing.open({ is: 'settings', parts: [last.id], at: 'parameter' });
  return true;
}
