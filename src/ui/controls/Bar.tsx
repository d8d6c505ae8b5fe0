'use client';

import { type ReactNode, useEffect, useLayoutEffect, useRef, useState } from 'react';

/** The last way in which something can give way in a bar; the first is 0. */
const LAST_WAY = 7;

const ways = (bar: HTMLElement): number => (bar.dataset.way ?? '').split(' ').filter(Boolean).length;

/** Lets the first so many levels of a bar give way. @returns whether the rest fits into one line, which lays out the page. */
function fits(bar: HTMLElement, levels: number): boolean {
  const way = Array.from({ length: levels }, (_, level) => level).join(' ');
  if (bar.dataset.way !== way) bar.dataset.way = way;
  return bar.scrollWidth <= bar.clientWidth;
}

/** Lets so much of a bar give way, level after level, that the rest fits into one line; begins with what gives way now. */
function giveWay(bar: HTMLElement): void {
  let levels = ways(bar);
  if (fits(bar, levels)) {
    while (levels > 0 && fits(bar, levels - 1)) levels--;
    if (levels > 0) fits(bar, levels);
  } else while (levels <= LAST_WAY && !fits(bar, ++levels));
}

/**
 * A bar of one line, however narrow. What has `data-way={n}` is left out when the bar is too narrow for it, that with the
 * lowest number first; a `Fold` goes behind a button. An element with `data-shrinks` is truncated before the last level.
 */
export function Bar({ className, children }: { className: string; children: ReactNode }) {
  const root = useRef<HTMLElement>(null);
  useLayoutEffect(() => giveWay(root.current!), []);
  useEffect(() => {
    const bar = root.current!;
    const again = () => giveWay(bar);
    const sizes = new ResizeObserver(again);
    const observe = () => {
      // What lies in a fold has boxes of its own.
      for (const one of [bar, ...bar.children, ...bar.querySelectorAll('.fold > div > *')])
        sizes.observe(one);
      again();
    };
    observe();
    const contents = new MutationObserver(observe);
    // A text that changes is heard of by its size: asking for that at each rendering would lay out the page in every frame of a run.
    contents.observe(bar, { childList: true, subtree: true });
    document.fonts.addEventListener('loadingdone', again);
    return () => {
      sizes.disconnect();
      contents.disconnect();
      document.fonts.removeEventListener('loadingdone', again);
    };
  }, []);
  return (
    <header ref={root} className={`bar ${className}`}>
      {children}
    </header>
  );
}

/** Controls that fold behind a button when the bar is too narrow. @param way the order in which groups fold. */
export function Fold({ way, label, children }: { way: number; label: string; children: ReactNode }) {
  const root = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<{ top: number; right: number } | null>(null);
  useEffect(() => {
    if (!at) return;
    const close = (event: Event) => {
      const to = event.target as Element;
      if (!root.current?.contains(to) && !to.closest?.('[data-radix-popper-content-wrapper]')) setAt(null);
    };
    const onKey = (event: KeyboardEvent) => event.key === 'Escape' && setAt(null);
    for (const type of ['pointerdown', 'focusin']) document.addEventListener(type, close);
    document.addEventListener('keydown', onKey);
    return () => {
      for (const type of ['pointerdown', 'focusin']) document.removeEventListener(type, close);
      document.removeEventListener('keydown', onKey);
    };
  }, [at]);
  return (
    <div ref={root} className="fold" data-folds={way}>
      <button
        type="button"
        className="icon-button size-7"
        aria-label={label}
        aria-expanded={at !== null}
        onClick={(event) => {
          const { bottom, right } = event.currentTarget.getBoundingClientRect();
          setAt(at ? null : { top: bottom + 4, right: Math.max(4, window.innerWidth - right) });
        }}
      >
        ⋯
      </button>
      <div {...(at && { 'data-open': '', style: at })}>{children}</div>
    </div>
  );
}
