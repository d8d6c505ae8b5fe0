'use client';

import { type ReactNode, useEffect, useRef } from 'react';

/** Where something stands over the sheet, in pixels from its upper left corner. */
export interface PanelPlace {
  readonly x: number;
  readonly y: number;
  /** Most pixels that it may be high. */
  readonly room: number;
  readonly onClose: () => void;
}

interface Props extends PanelPlace {
  readonly label: string;
  readonly width?: string;
  readonly onKey?: (key: string) => boolean;
  readonly children: ReactNode;
}

/** A small panel over the sheet: it takes the focus, and goes with Escape or when the focus leaves it. */
export function Panel({ label, x, y, room, width = 'w-72', onClose, onKey, children }: Props) {
  const root = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const first = root.current!.querySelector<HTMLElement>('input, button, [tabindex="0"]');
    (first ?? root.current)!.focus();
    if (first instanceof HTMLInputElement) first.select();
  }, []);
  return (
    <div
      ref={root}
      role="dialog"
      tabIndex={-1}
      aria-label={label}
      className={`absolute z-30 flex ${width} flex-col gap-2 overflow-y-auto rounded-xl border border-hairline bg-raised p-3 text-sm shadow-lg outline-none`}
      style={{ left: x, top: y, maxHeight: room }}
      onPointerDown={(event) => event.stopPropagation()}
      onDoubleClick={(event) => event.stopPropagation()}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) onClose();
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') onClose();
        else if (!onKey?.(event.key)) return;
        event.preventDefault();
      }}
    >
      {children}
    </div>
  );
}
