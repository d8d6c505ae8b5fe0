/*
 * Keys pressed between a request for a dialog, popup or field and its appearance. They are queued, and dispatched again one
 * by one to the element that has the focus then, so a person who types on at once loses no letter. A button that is pressed
 * meanwhile is pressed after them, or it would take them.
 */

import { holdReload, loading } from '@/loading/load';
import { nextTask } from '@/loading/next-task';
import { forget, remember, remembered } from '@/loading/page-memory';

/** The facts of a key that count; the event itself does not outlive its handling. */
export interface HeldKey {
  readonly key: string;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly altKey: boolean;
  readonly shiftKey: boolean;
}

/** The letters that commands listen for with Ctrl, and the named keys; the browser keeps all others. */
const CTRL_LETTERS = 'adkpsyz';
const NAMED = /^(Enter|Escape|Delete|Backspace|Arrow\w+|ContextMenu|F2|F8|F9|F10)$/;
/** Keys that are kept besides, where something is known to come. */
const MORE = /^(Tab|Home|End)$/;
/** Kept as well while others wait, or it would overtake them; the browser's own meaning is given back in `press`. */
const ALT_KEY = /^Arrow/;
const FIELD = 'input, textarea, select, [contenteditable="true"]';
const FOCUSABLE = 'a[href], button, input, select, textarea, [tabindex]';
const TEXT_FIELD =
  'textarea, input:not([type]), input[type="text"], input[type="search"], input[type="number"]';
/** Frames in which what has come may still take the focus. */
const FRAMES = 40;
/** Far more presses than a hand makes before anything appears: none of them may be dropped. */
const MOST = 20_000;

interface Held extends HeldKey {
  readonly isUp: boolean;
  /** In place of a key: a button that was pressed. */
  readonly button?: HTMLElement;
}

const held: Held[] = [];
let holders = 0;
let isReleasing = false;
/** The field that the person has gone to meanwhile: what is typed there is meant for it. */
let gone: Element | null = null;
/** The button on which the pointer went down while keys waited, until it is released. */
let pressed: HTMLElement | null = null;

/** Whether a key is kept; the browser must then leave it alone. */
export function isHeldKey({ key, ctrlKey, metaKey, altKey }: HeldKey): boolean {
  if (altKey) return false;
  return ctrlKey || metaKey ? CTRL_LETTERS.includes(key.toLowerCase()) : key.length === 1 || NAMED.test(key);
}

function keep(event: KeyboardEvent): void {
  const { key, ctrlKey, metaKey, altKey, shiftKey, target } = event;
  const isUp = event.type === 'keyup';
  if (!event.isTrusted || !(isHeldKey(event) || MORE.test(key) || (altKey && ALT_KEY.test(key)))) return;
  if (target === gone) return;
  if (isUp && !held.some((one) => one.key === key && !one.isUp)) return;
  if (held.length < MOST && !event.repeat) held.push({ key, ctrlKey, metaKey, altKey, shiftKey, isUp });
  stop(event);
}

function leave(event: PointerEvent): void {
  const on = event.target instanceof Element ? event.target : null;
  gone = on?.closest(FIELD) ?? null;
  const button = on?.closest<HTMLElement>('button, a[href]');
  // What cannot be fetched is not waited for.
  if (!button || held.length === 0 || event.button !== 0 || loading.getState().failing.length > 0) return;
  stop(event);
  pressed = button;
  window.addEventListener('click', pressLater, { capture: true, once: true });
}

function pressLater(event: MouseEvent): void {
  const button = pressed;
  pressed = null;
  // The pointer was taken off it.
  if (!button?.contains(event.target as Node)) return;
  stop(event);
  held.push({ key: '', ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, isUp: false, button });
  if (holders === 0) void release();
}

function stop(event: Event): void {
  event.preventDefault();
  event.stopImmediatePropagation();
}

function listen(on: boolean): void {
  gone = null;
  if (on) window.addEventListener('pointerdown', leave, true);
  else window.removeEventListener('pointerdown', leave, true);
  for (const type of ['keydown', 'keyup'] as const)
    if (on) window.addEventListener(type, keep, true);
    else window.removeEventListener(type, keep, true);
}

/**
 * Keeps the keys from now on.
 * @param focuses whether what comes takes the focus: the keys are then pressed once it has.
 * @returns ends it; a second call does nothing.
 */
export function holdKeys(focuses = true): () => void {
  const from = document.activeElement;
  if (holders++ === 0 && !isReleasing) listen(true);
  let isOver = false;
  return () => {
    if (isOver) return;
    isOver = true;
    let frames = 0;
    const look = () => {
      const { activeElement } = document;
      const isThere =
        !focuses || (activeElement !== from && activeElement !== document.body && activeElement !== pressed);
      if (!isThere && ++frames < FRAMES) requestAnimationFrame(look);
      else if (--holders === 0) void release();
    };
    look();
  };
}

const CARRIED = 'manege-held-keys';

/**
 * The keys that are kept for the drawing outlive a reload of the page, should it be too old for its server.
 * @returns ends it.
 */
export function carryHeldKeys(): () => void {
  const free = holdReload(
    async () => void remember(CARRIED, JSON.stringify(held.filter(({ button }) => !button)), 'tab'),
  );
  return () => {
    free();
    forget(CARRIED, 'tab');
  };
}

/** The keys that were kept when the page was reloaded, once. */
export function takeCarriedKeys(): readonly HeldKey[] {
  const carried = remembered(CARRIED, 'tab');
  forget(CARRIED, 'tab');
  if (!carried) return [];
  return (JSON.parse(carried) as Held[]).filter((key) => !key.isUp);
}

/** Presses keys again before all that are kept, as soon as nothing is waited for. */
export function pressAgain(keys: readonly HeldKey[]): void {
  if (keys.length === 0) return;
  held.unshift(...keys.map((key) => ({ ...key, isUp: false })));
  holdKeys(false)();
}

async function release(): Promise<void> {
  if (isReleasing) return;
  isReleasing = true;
  // What a key opens takes the keys after it, as soon as it is there.
  for (let key = held.shift(); key; key = holders === 0 ? held.shift() : undefined) {
    press(key);
    await nextTask();
  }
  isReleasing = false;
  if (holders === 0) listen(false);
}

/** Presses a key where the focus is, with what the browser would do by itself. */
function press(first: Held): void {
  if (first.button) {
    pressButton(first.button);
    return;
  }
  const target = document.activeElement ?? document.body;
  if (isLetter(first) && target.matches(TEXT_FIELD)) {
    pressLetters(first, target);
    return;
  }
  const { isUp, ...key } = first;
  const event = new KeyboardEvent(isUp ? 'keyup' : 'keydown', { ...key, bubbles: true, cancelable: true });
  if (!target.dispatchEvent(event) || isUp || key.ctrlKey || key.metaKey) return;
  if (key.altKey) {
    if (key.key === 'ArrowLeft') history.back();
    else if (key.key === 'ArrowRight') history.forward();
  } else if (key.key === 'Tab') moveFocus(target, key.shiftKey ? -1 : 1);
  else if (target.matches(TEXT_FIELD)) edit(target as HTMLInputElement, key.key);
  else if ((key.key === 'Enter' || key.key === ' ') && target.matches('button, a[href], [role="button"]'))
    (target as HTMLElement).click();
}

/** Menus open as the pointer goes down, and all else as it is clicked. */
function pressButton(was: HTMLElement): void {
  const button = was.isConnected ? was : standInOf(was);
  if (!button) return;
  button.focus();
  button.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true, cancelable: true, button: 0 }));
  button.click();
}

/** The button that stands in the place of one that is gone: a menu brings its own, as soon as it is fetched. */
function standInOf(gone: HTMLElement): HTMLElement | undefined {
  const same = [...document.querySelectorAll<HTMLElement>(gone.localName)];
  return same.find(
    (one) => one.textContent === gone.textContent && one.ariaLabel === gone.ariaLabel && isShown(one),
  );
}

const isShown = (element: Element) => element.getClientRects().length > 0;

const isLetter = ({ key, ctrlKey, metaKey }: HeldKey) => key.length === 1 && !ctrlKey && !metaKey;

/** Presses all letters that follow one another at once: a field that answers each alone would fall behind a quick hand. */
function pressLetters(first: Held, field: Element): void {
  let text = '';
  for (let one: Held | undefined = first; one; one = held.shift()) {
    const { isUp, ...key } = one;
    const event = new KeyboardEvent(isUp ? 'keyup' : 'keydown', { ...key, bubbles: true, cancelable: true });
    if (field.dispatchEvent(event) && !isUp) text += key.key;
    const next = held[0];
    if (document.activeElement !== field || holders > 0 || !next || !isLetter(next)) break;
  }
  const now = document.activeElement;
  if (text === '') return;
  // A letter may have led elsewhere; those before it belong to the field.
  if (now !== field) (field as HTMLElement).focus();
  document.execCommand('insertText', false, text);
  if (now !== field) (now as HTMLElement | null)?.focus();
}

/** Moves the focus as the Tab key does, within a dialog where it is in one. */
function moveFocus(from: Element, by: number): void {
  const scope = from.closest('[role="dialog"]') ?? document;
  const all = [...scope.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(
    (e) => e.tabIndex >= 0 && !e.matches(':disabled') && isShown(e),
  );
  const next = all[(all.indexOf(from as HTMLElement) + by + all.length) % all.length];
  next?.focus();
  if (next instanceof HTMLInputElement) next.select();
}

/** The only ways to edit that a field, its undo and its listeners all take for typing. */
function edit(field: HTMLInputElement | HTMLTextAreaElement, key: string): void {
  if (key === 'Backspace') document.execCommand('delete');
  else if (key === 'Delete') document.execCommand('forwardDelete');
  else if (key === 'Enter' && field instanceof HTMLInputElement) field.form?.requestSubmit();
}
