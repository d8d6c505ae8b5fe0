'use client';

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
      title="Hands and keys"
    >
      ?
    </button>
  );
}
