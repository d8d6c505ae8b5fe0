import { useSyncExternalStore } from 'react';

/** Makes a hook that says whether a media query holds; on the server none does. */
function mediaHook(query: string): () => boolean {
  const media = () => window.matchMedia(query);
  const onChange = (changed: () => void) => {
    const list = media();
    list.addEventListener('change', changed);
    return () => list.removeEventListener('change', changed);
  };
  return () =>
    useSyncExternalStore(
      onChange,
      () => media().matches,
      () => false,
    );
}

/** Whether the page is too narrow for panes beside each other: one face is shown at a time. */
export const useNarrow = mediaHook('(max-width: 699px)');

/** Whether the page is higher than it is wide, as a tablet held upright: panes lie below each other. */
export const useUpright = mediaHook('(max-aspect-ratio: 9/10)');

/** Whether the page is used with a finger, without a mouse and mostly without a keyboard. */
export const useByFinger = mediaHook('(pointer: coarse)');
