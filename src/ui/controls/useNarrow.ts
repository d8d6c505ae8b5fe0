import { useSyncExternalStore } from 'react';

const narrow = () => window.matchMedia('(max-width: 699px)');

function onWidth(changed: () => void): () => void {
  const query = narrow();
  query.addEventListener('change', changed);
  return () => query.removeEventListener('change', changed);
}

/** Whether the page is too narrow for panes beside each other: one face is shown at a time. */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    onWidth,
    () => narrow().matches,
    () => false,
  );
