import type { ReactNode } from 'react';
import { Mark } from './Mark';

/** A page with one thing to say: still loading, not found, or broken. */
export function WholePage({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <main className="flex h-dvh flex-col items-center justify-center gap-3 p-6 text-center">
      <Mark size={44} />
      <h1 className="text-xl font-bold">{title}</h1>
      {children}
      <a href="/" className="button mt-2">
        All lessons
      </a>
    </main>
  );
}

/** Shown while something is fetched; it appears only after a moment, so that quick work does not flicker. */
export function Loading({ what }: { what: string }) {
  return (
    <main className="flex h-dvh items-center justify-center text-quiet" aria-busy="true">
      <p className="motion-safe:animate-[appear_0.3s_0.3s_both]">{what}</p>
    </main>
  );
}
