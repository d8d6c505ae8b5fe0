'use client';

import { hint } from '@/ui/controls/hint';
import { useEditor } from '@/ui/session/editor-context';

/** Hands and keys, one press away. */
export function Help() {
  const { page } = useEditor();
  return (
    <button
      type="button"
      className="icon-button font-bold"
      onClick={() => page.openDialog('help')}
      aria-label="Help: hands and keys"
      {...hint('Hands and keys')}
    >
      ?
    </button>
  );
}
