import { useEffect, useMemo, useRef } from 'react';
import { fetcher } from '@/loading/load';
import type { EditorController, EditorSurroundings } from './editor-controller';
import type { KeyPress } from './keys';

const load = fetcher('the tools of the drawing', () =>
  Promise.all([import('./editor-controller'), import('../popups/PopupHost')]).then(([desk]) => desk),
);

export interface EditorHolder {
  /** Null until it has been fetched. */
  readonly now: EditorController | null;
  fetch(): void;
  /** Does something with it, as soon as it is there; in the order in which it was asked. */
  with(use: (desk: EditorController) => void): void;
  /** Keeps a key for it. @returns whether the browser is to leave the key alone. */
  wait(press: KeyPress, first: (press: KeyPress) => boolean): boolean;
}

/** What hands and keys do on the sheet, fetched when they first come to it; what they do meanwhile is not lost. */
export function useEditorController(around: EditorSurroundings): EditorHolder {
  const latest = useRef(around);
  latest.current = around;
  const holder = useMemo(() => {
    const waiting: ((desk: EditorController) => void)[] = [];
    let now: EditorController | null = null;
    let asked = false;
    const fetch = () => {
      if (asked) return;
      asked = true;
      void load().then(({ EditorController: Made }) => {
        const { session, view } = latest.current;
        now = new Made({
          session,
          view,
          repaint: () => latest.current.repaint(),
          opened: () => latest.current.opened(),
          open: (next) => latest.current.open(next),
          openTyping: (first) => latest.current.openTyping(first),
          act: (part) => latest.current.act(part),
          showAll: () => latest.current.showAll(),
          pointed: () => latest.current.pointed(),
          nextProblem: () => latest.current.nextProblem(),
          spot: () => latest.current.spot(),
        });
        for (const use of waiting.splice(0)) use(now);
      });
    };
    const whenThere = (use: (editor: EditorController) => void) => {
      if (now) use(now);
      else {
        waiting.push(use);
        fetch();
      }
    };
    return {
      get now() {
        return now;
      },
      fetch,
      with: whenThere,
      wait: (press: KeyPress, first: (press: KeyPress) => boolean) => {
        whenThere((editor) => {
          // What the drawing has no use for goes on to the lesson.
          if (!first(press) && !editor.key(press)) window.dispatchEvent(new KeyboardEvent('keydown', press));
        });
        return press.key !== 'Tab' && !press.ctrlKey && !press.metaKey;
      },
    };
    // A session has one desk for as long as it is open.
  }, []);
  useEffect(() => () => holder.now?.pointers.cancel(), [holder]);
  return holder;
}
