import type { KeyPress } from '@/commands/chord';
import { isHeldKey, takeCarriedKeys } from '@/ui/controls/held-keys';
import { takesKeys } from './key-owner';

const MOST = 20_000;
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

function keep(event: KeyboardEvent): void {
  const press = pressOf(event);
  if (event.defaultPrevented || takesKeys(event.target) || !isHeldKey(press)) return;
  if (kept!.length < MOST) kept!.push(press);
  event.preventDefault();
}

/**
 * Keeps the keys that are pressed from now on until a drawing takes them: people begin to type as soon as
 * they have asked for a lesson. Those that a reload of the page has interrupted come first.
 */
export function keepEarlyKeys(): void {
  if (kept) return;
  kept = takeCarriedKeys().map((key) => ({ ...key, isRepeat: false }));
  window.addEventListener('keydown', keep);
}

/** The keys that were kept, in order; from now on none are. */
export function takeEarlyKeys(): readonly KeyPress[] {
  const keys = kept ?? [];
  kept = null;
  window.removeEventListener('keydown', keep);
  return keys;
}
