'use client';

import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { Diagnostic } from '@/core/netlist/diagnostic';
import { useSessionState } from '@/ui/lesson/session-context';

/** How many things are wrong on the sheet, and on a press each of them in words. */
export function Trouble({ onShow }: { onShow: (trouble: Diagnostic) => void }) {
  const found = useSessionState((s) => s.diagnostics);
  const [open, setOpen] = useState(false);
  if (found.length === 0) return <span className="ml-auto text-quiet">nothing loose</span>;
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="ml-auto cursor-pointer rounded-md px-1.5 font-semibold text-bad hover:bg-accent-soft">
        {found.length === 1 ? '1 thing to mend' : `${found.length} things to mend`}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          className="menu max-h-80 w-96 overflow-auto p-2"
          aria-label="Things to mend"
        >
          <ul className="flex flex-col">
            {found.map((d, i) => (
              <li key={i}>
                <button
                  type="button"
                  className="w-full cursor-pointer rounded-lg px-2 py-1.5 text-left text-sm hover:bg-accent-soft"
                  onClick={() => {
                    setOpen(false);
                    onShow(d);
                  }}
                >
                  {d.message}
                </button>
              </li>
            ))}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
