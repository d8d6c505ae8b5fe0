'use client';

import { hint } from '@/ui/controls/hint';
import { useEditor } from '@/ui/session/editor-context';

/** Opens the dialog for links to the lesson. */
export function LinkButton() {
  const { page } = useEditor();
  return (
    <button
      type="button"
      className="button"
      onClick={() => page.openDialog('link')}
      {...hint('Give this lesson away as a link, or put it into a page')}
    >
      Link
    </button>
  );
}
