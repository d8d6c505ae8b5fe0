import { type RefObject, useEffect, useRef } from 'react';
import { takeEarlyKeys } from '@/ui/session/early-keys';
import { isButton, takesKeys } from '@/ui/session/key-owner';
import type { KeyPress } from './keys';

interface SheetKeys {
  /** @returns whether the key did anything, so that nobody else need look at it. */
  key(press: KeyPress): boolean;
  /** Text for the clipboard; null where nothing is selected. */
  copy(cut: boolean): string | null;
  paste(text: string): void;
}

const pressOf = ({ key, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): KeyPress => ({
  key,
  ctrlKey,
  metaKey,
  altKey,
  shiftKey,
});

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
      if (latest.current.key({ ...pressOf(event), elsewhere })) event.preventDefault();
    };
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
    window.addEventListener('keydown', onKey);
    window.addEventListener('copy', onCopy);
    window.addEventListener('cut', onCut);
    window.addEventListener('paste', onPaste);
    for (const press of takeEarlyKeys()) latest.current.key(press);
    return () => {
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('copy', onCopy);
      window.removeEventListener('cut', onCut);
      window.removeEventListener('paste', onPaste);
    };
  }, [sheet]);
}
