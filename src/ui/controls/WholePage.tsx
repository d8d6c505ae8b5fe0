import type { ReactNode } from 'react';
import { pathTo } from '@/loading/base';
import { Mark } from './Mark';

/** A page with one thing to say: still loading, not found, or broken. */
export function WholePage({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <main className="flex h-dvh flex-col items-center justify-center gap-3 p-6 text-center">
      <Mark size={44} />
      <h1 className="text-xl font-bold">{title}</h1>
      {children}
      <a href={pathTo('/')} className="button mt-2">
        All lessons
      </a>
    </main>
  );
}
