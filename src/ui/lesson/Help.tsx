'use client';

import { useState } from 'react';
import { lazyComponent } from '@/ui/controls/lazy-component';

const HelpPage = lazyComponent('the help page', () => import('./HelpPage').then((m) => m.HelpPage));

/** Hands and keys, one press away. */
export function Help() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className="icon-button font-bold"
        onClick={() => setOpen(true)}
        aria-label="Help: hands and keys"
        title="Hands and keys"
      >
        ?
      </button>
      {open && <HelpPage onClose={() => setOpen(false)} />}
    </>
  );
}
