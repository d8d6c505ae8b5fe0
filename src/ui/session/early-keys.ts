import { takesKeys } from './key-owner';

/** What of a key event counts later. */
interface EarlyKey {
  readonly key: string;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly altKey: boolean;
  readonly shiftKey: boolean;
}

const MOST = 200;
let kept: EarlyKey[] | null = null;

function keep(event: KeyboardEvent): void {
  const { key, ctrlKey, metaKey, altKey, shiftKey } = event;
  if (event.defaultPrevented || takesKeys(event.target) || ctrlKey || metaKey || key === 'Tab') return;
  if (kept!.length < MOST) kept!.push({ key, ctrlKey, metaKey, altKey, shiftKey });
  event.preventDefault();
}

/** Keeps the keys that are pressed from now on, until a drawing takes them: somebody who has asked for a lesson begins to type. */
export function keepEarlyKeys(): void {
  if (kept) return;
  kept = [];
  window.addEventListener('keydown', keep);
}

/** The keys that were kept, in order; from now on none are. */
export function takeEarlyKeys(): readonly EarlyKey[] {
  const keys = kept ?? [];
  kept = null;
  window.removeEventListener('keydown', keep);
  return keys;
}
