'use client';

import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { Diagnostic } from '@/core/netlist/diagnostic';
import { useSessionState } from '@/ui/session/session-context';
import { problemCountLook, problemCountText } from './problem-count-text';

/** Each problem, in words; a press leads to its place. */
export function ProblemList({ onShow }: { onShow: (problem: Diagnostic) => void }) {
  const found = useSessionState((s) => s.diagnostics);
  const [open, setOpen] = useState(true);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className={problemCountLook(found)}>{problemCountText(found)}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="end" className="menu max-h-80 w-96 overflow-auto p-2" aria-label="Problems">
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
