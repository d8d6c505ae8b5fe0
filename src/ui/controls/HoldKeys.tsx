import { useLayoutEffect } from 'react';
import { holdKeys } from './held-keys';

/**
 * Stands where something that takes the keyboard is being fetched, and keeps the keys for it.
 * @param onLeave called when the person presses elsewhere: what came now would take the keys that are typed there.
 */
export function HoldKeys({ onLeave }: { onLeave?: () => void }) {
  useLayoutEffect(() => holdKeys(), []);
  useLayoutEffect(() => {
    if (!onLeave) return;
    window.addEventListener('pointerdown', onLeave);
    return () => window.removeEventListener('pointerdown', onLeave);
  }, [onLeave]);
  return null;
}

/** `HoldKeys` for a dialog. */
export const holdKeysFor = ({ onClose }: { readonly onClose: () => void }) => <HoldKeys onLeave={onClose} />;
