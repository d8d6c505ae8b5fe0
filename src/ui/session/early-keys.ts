import type { KeyPress } from '@/commands/chord';
import { takesKeys } from './key-owner';

const MOST = 200;
/** The letters that commands listen for with Ctrl, and the named keys; the browser keeps all others. */
const CTRL_LETTERS = 'adkyz';
const NAMED = /^(Enter|Escape|Delete|Backspace|Arrow\w+|ContextMenu|F2|F8|F9|F10)$/;

let kept: KeyPress[] | null = null;

/** The facts of a key event that count; the event itself does not outlive its handling. */
export const pressOf = ({ key, ctrlKey, metaKey, altKey, shiftKey, repeat }: KeyboardEvent): KeyPress => ({
  key,
  ctrlKey,
  metaKey,
  altKey,
  shiftKey,
  isRepeat: repeat,
});

/** Whether a key is kept for a drawing that is still loading; the browser must then leave it alone. */
export function isForDrawing({ key, ctrlKey, metaKey, altKey }: KeyPress): boolean {
  if (altKey) return false;
  return ctrlKey || metaKey ? CTRL_LETTERS.includes(key.toLowerCase()) : key.length === 1 || NAMED.test(key);
}

function keep(event: KeyboardEvent): void {
  const press = pressOf(event);
  if (event.defaultPrevented || takesKeys(event.target) || !isForDrawing(press)) return;
  if (kept!.length < MOST) kept!.push(press);
  event.preventDefault();
}

/**
 * Keeps the keys that are pressed from now on until a drawing takes them: people begin to type as soon as
 * they have asked for a lesson.
 */
export function keepEarlyKeys(): void {
  if (kept) return;
  kept = [];
  window.addEventListener('keydown', keep);
}

/** The keys that were kept, in order; from now on none are. */
export function takeEarlyKeys(): readonly KeyPress[] {
  const keys = kept ?? [];
  kept = null;
  window.removeEventListener('keydown', keep);
  return keys;
}
