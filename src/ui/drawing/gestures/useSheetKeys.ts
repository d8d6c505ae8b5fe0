import { type RefObject, useEffect, useRef } from 'react';
import type { KeyPress } from '@/commands/chord';
import { pressAgain } from '@/ui/controls/held-keys';
import { pressOf, takeEarlyKeys } from '@/ui/session/early-keys';
import { isButton, takesKeys } from '@/ui/session/key-owner';

interface SheetKeys {
  /** @returns whether the key did anything; else others may handle it. */
  press(press: KeyPress): boolean;
  release(key: string): void;
  /** Text for the clipboard; null where nothing is selected. */
  copy(cut: boolean): string | null;
  paste(text: string): void;
}

/**
 * Gives the sheet every key, copy and paste that no field, menu or dialog takes, wherever the focus is: from the first
 * moment on a page, and again after anything else was pressed. Space and Enter stay with a button that has the focus.
 */
export function useSheetKeys(sheet: RefObject<HTMLElement | null>, keys: SheetKeys): void {
  const latest = useRef(keys);
  latest.current = keys;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { target } = event;
      if (event.defaultPrevented || takesKeys(target)) return;
      if ((event.key === ' ' || event.key === 'Enter') && isButton(target)) return;
      const face = target instanceof Element ? target.closest('.pane') : null;
      const elsewhere = face !== null && !face.contains(sheet.current);
      if (latest.current.press({ ...pressOf(event), elsewhere })) event.preventDefault();
    };
    // A key that no field knows what to do with is for the page; keys that are held for what comes are held before it.
    const onPageKey = (event: KeyboardEvent) => {
      if (event.key !== 'F9' || !takesKeys(event.target)) return;
      if (!latest.current.press({ ...pressOf(event), elsewhere: true })) return;
      event.preventDefault();
      event.stopPropagation();
    };
    const onRelease = (event: KeyboardEvent) => latest.current.release(event.key);
    const isOurs = (event: ClipboardEvent) => !event.defaultPrevented && !takesKeys(event.target);
    const copy = (event: ClipboardEvent, cut: boolean) => {
      // Words that are marked on the page are meant before parts that are selected.
      if (!isOurs(event) || getSelection()?.isCollapsed === false) return;
      const text = latest.current.copy(cut);
      if (text === null) return;
      event.clipboardData?.setData('text/plain', text);
      event.preventDefault();
    };
    const onCopy = (event: ClipboardEvent) => copy(event, false);
    const onCut = (event: ClipboardEvent) => copy(event, true);
    const onPaste = (event: ClipboardEvent) => {
      const text = event.clipboardData?.getData('text/plain');
      if (!text || !isOurs(event)) return;
      event.preventDefault();
      latest.current.paste(text);
    };
    document.addEventListener('keydown', onPageKey, true);
    window.addEventListener('keydown', onKey);
    window.addEventListener('keyup', onRelease);
    window.addEventListener('copy', onCopy);
    window.addEventListener('cut', onCut);
    window.addEventListener('paste', onPaste);
    pressAgain(takeEarlyKeys());
    return () => {
      document.removeEventListener('keydown', onPageKey, true);
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('keyup', onRelease);
      window.removeEventListener('copy', onCopy);
      window.removeEventListener('cut', onCut);
      window.removeEventListener('paste', onPaste);
    };
  }, [sheet]);
}
