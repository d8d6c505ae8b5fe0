'use client';

import { useEffect } from 'react';

export interface NoticeProps {
  readonly text: string;
  readonly tone: 'calm' | 'bad';
  readonly undo?: (() => unknown) | undefined;
  readonly dismiss: () => void;
}

const CALM_MS = 8000;

/** A word at the bottom of the page: calm ones go by themselves, bad ones stay until they are read. */
export function Notice({ text, tone, undo, dismiss }: NoticeProps) {
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new text starts the time anew
  useEffect(() => {
    if (tone === 'bad') return;
    const timer = setTimeout(dismiss, CALM_MS);
    return () => clearTimeout(timer);
  }, [text, tone, dismiss]);
  return (
    <div
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
      {undo && (
        <button
          type="button"
          className="button small"
          onClick={() => {
            undo();
            dismiss();
          }}
        >
          Undo
        </button>
      )}
      <button type="button" className="icon-button" onClick={dismiss} aria-label="Close this message">
        ×
      </button>
    </div>
  );
}
