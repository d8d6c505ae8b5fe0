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
      // It is in the menu of the sheet as well, and so the first to go where there is little room.
      data-way={0}
      onClick={() => page.openDialog('link')}
      {...hint('Give this lesson away as a link, or put it into a page')}
    >
      Link
    </button>
  );
}
