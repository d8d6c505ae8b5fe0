'use client';

import { useEffect, useLayoutEffect, useRef } from 'react';

export interface NoticeProps {
  readonly text: string;
  readonly tone: 'calm' | 'bad';
  /** What it offers: to take back what it tells of, or to end it. */
  readonly offer?: { readonly label: string; readonly run: () => unknown } | undefined;
  readonly dismiss: () => void;
}

/** How long a calm word stays, in ms: at least, and for each letter of a longer one. */
const CALM_MS = 8000;
const LETTER_MS = 80;

/**
 * A word at the bottom of the drawing, where it covers paper and nothing that is read: calm ones go by themselves, bad ones
 * stay until they are read.
 */
export function Notice({ text, tone, offer, dismiss }: NoticeProps) {
  // A new text starts the time anew.
  useEffect(() => {
    if (tone === 'bad') return;
    const timer = setTimeout(dismiss, Math.max(CALM_MS, LETTER_MS * text.length));
    return () => clearTimeout(timer);
  }, [text, tone, dismiss]);
  const root = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => {
    const box = document.querySelector('[role="application"]')?.getBoundingClientRect();
    if (!box?.width || !root.current) return;
    root.current.style.left = `${box.left + 12}px`;
    root.current.style.maxWidth = `${box.width - 24}px`;
    root.current.style.translate = 'none';
  });
  return (
    <div
      ref={root}
      role={tone === 'bad' ? 'alert' : 'status'}
      className={`fixed bottom-5 left-1/2 z-[60] flex max-w-[min(44rem,92vw)] -translate-x-1/2 items-center gap-3 rounded-xl border bg-raised px-4 py-2.5 shadow-lg ${tone === 'bad' ? 'border-bad' : 'border-hairline'}`}
    >
      {tone === 'bad' && (
        <span
          className="flex size-5 shrink-0 items-center justify-center rounded-full bg-bad text-xs font-bold text-raised"
          aria-hidden="true"
        >
          !
        </span>
      )}
      <span>{text}</span>
      {offer && (
        <button
          type="button"
          className="button small shrink-0"
          onClick={() => {
            offer.run();
            dismiss();
          }}
        >
          {offer.label}
        </button>
      )}
      <button type="button" className="icon-button" onClick={dismiss} aria-label="Close this message">
        ×
      </button>
    </div>
  );
}
