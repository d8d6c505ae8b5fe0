import { useEffect, useMemo } from 'react';
import type { KeyPress } from '@/commands/chord';
import type { EditorContext } from '@/commands/context';
import { fetcher } from '@/loading/load';
import { carryHeldKeys, holdKeys, isHeldKey, pressAgain } from '@/ui/controls/held-keys';
import type { EditorController } from './editor-controller';

const load = fetcher('the tools of the drawing', () =>
  Promise.all([import('./editor-controller'), import('../popups/PopupHost')]).then(([module]) => module),
);

export interface EditorHolder {
  /** Null until it has been fetched. */
  readonly now: EditorController | null;
  fetch(): void;
  /** Calls back once it is loaded; in the order of the calls. */
  whenLoaded(use: (editor: EditorController) => void): void;
  /** Keeps a key, and those after it, until it is loaded. @returns whether the browser is to leave the key alone. */
  wait(press: KeyPress): boolean;
}

/**
 * The controller for pointers and keys on the sheet, fetched when they first come to it; events that arrive
 * meanwhile are not lost.
 */
export function useEditorController(context: EditorContext): EditorHolder {
  const holder = useMemo(() => {
    const waiting: ((editor: EditorController) => void)[] = [];
    let now: EditorController | null = null;
    let isAsked = false;
    const fetch = () => {
      if (isAsked) return;
      isAsked = true;
      void load().then(({ EditorController: Made }) => {
        now = new Made(context);
        for (const use of waiting.splice(0)) use(now);
      });
    };
    const whenLoaded = (use: (editor: EditorController) => void) => {
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
      whenLoaded,
      wait: (press: KeyPress) => {
        if (!isHeldKey(press)) return false;
        const ends = [carryHeldKeys(), holdKeys(false)];
        pressAgain([press]);
        whenLoaded(() => {
          for (const end of ends) end();
        });
        return true;
      },
    };
  }, [context]);
  useEffect(() => () => holder.now?.pointers.cancel(), [holder]);
  return holder;
}
