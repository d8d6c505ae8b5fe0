import { useEffect } from 'react';
import type { PinNotes } from '@/core/drawing/geometry/pin-notes';
import { usePinNotes } from '@/ui/session/sheet-plan';

/** Shows nothing itself: has the sheet planned while it is there, and tells the drawing what to note at the pins. */
export function PinNoting({ onNotes }: { onNotes: (notes: PinNotes | undefined) => void }) {
  const notes = usePinNotes();
  useEffect(() => {
    onNotes(notes);
    return () => onNotes(undefined);
  }, [notes, onNotes]);
  return null;
}
