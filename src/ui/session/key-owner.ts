/*
 * Decides which element receives a key on a page with a drawing.
 */

const TAKES_KEYS =
  'input, textarea, select, [role="menu"], [role="dialog"], [role="alertdialog"], [contenteditable="true"]';
const BUTTON = 'button, a[href], summary, [role="button"], [role="tab"]';
/** Buttons navigated with arrow keys, or inside an element that handles keys. */
const KEEPS_FOCUS = `${TAKES_KEYS}, [role="grid"], [role="tablist"], [role="radiogroup"], [role="listbox"]`;

/** Whether keys stay with a field, a menu or a dialog. */
export const takesKeys = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest(TAKES_KEYS) !== null;

/** Whether Space and Enter press the focused element. */
export const isButton = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest(BUTTON) !== null;

/**
 * Returns the keyboard to the drawing after a button was pressed with a pointer or a finger: the button does
 * not keep the focus, so Space opens the ring and does not press the button again. Navigation with Tab keeps
 * the focus.
 * @returns ends it.
 */
export function freeKeysAfterPresses(): () => void {
  let byPointer = false;
  const onPointer = () => {
    byPointer = true;
  };
  const onKey = () => {
    byPointer = false;
  };
  const onFocus = ({ target }: FocusEvent) => {
    if (byPointer && target instanceof HTMLElement && isButton(target) && !target.closest(KEEPS_FOCUS))
      target.blur();
  };
  window.addEventListener('pointerdown', onPointer, true);
  window.addEventListener('keydown', onKey, true);
  window.addEventListener('focusin', onFocus);
  return () => {
    window.removeEventListener('pointerdown', onPointer, true);
    window.removeEventListener('keydown', onKey, true);
    window.removeEventListener('focusin', onFocus);
  };
}
