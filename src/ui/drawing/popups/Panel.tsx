'use client';

import type { ReactNode } from 'react';
import { type PopoverPlace, SheetPopover } from './SheetPopover';

interface Props extends PopoverPlace {
  readonly label: string;
  readonly width?: string;
  /** Handles a key. @returns whether it did. */
  readonly onKey?: (key: string) => boolean;
  readonly children: ReactNode;
}

/** A small panel beside a part; its first field or button has the focus. */
export function Panel({ place, onClose, label, width = 'w-72', onKey, children }: Props) {
  return (
    <SheetPopover
      place={place}
      onClose={onClose}
      label={label}
      className={`flex flex-col gap-2 overflow-y-auto p-3 text-sm ${width}`}
      onOpen={(content) => {
        const first = content.querySelector<HTMLElement>('input, button, [tabindex="0"]');
        (first ?? content).focus();
        if (first instanceof HTMLInputElement) first.select();
      }}
      onKeyDown={(event) => {
        if (onKey?.(event.key)) event.preventDefault();
      }}
    >
      {children}
    </SheetPopover>
  );
}
