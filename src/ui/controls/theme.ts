import { useSyncExternalStore } from 'react';
import { remember } from '@/loading/page-memory';

export type Theme = 'light' | 'dark';

function subscribe(changed: () => void): () => void {
  const observer = new MutationObserver(changed);
  observer.observe(document.documentElement, {
    attributes: true,
    attributeFilter: ['data-theme', 'data-projector'],
  });
  return () => observer.disconnect();
}

export const currentTheme = (): Theme =>
  document.documentElement.dataset.theme === 'dark' ? 'dark' : 'light';

export function useTheme(): Theme {
  return useSyncExternalStore(subscribe, currentTheme, () => 'light');
}

/** The sizes for a projector: none, large, larger. */
const PROJECTOR_SIZES = 3;

const projector = (): number => Number(document.documentElement.dataset.projector ?? 0);

/** How large text, lines and values are drawn for a projector: 0 as usual, then 1 and 2. */
export function useProjector(): number {
  return useSyncExternalStore(subscribe, projector, () => 0);
}

/** Goes on to the next size, and from the largest back to the usual one. */
export function nextProjectorSize(): void {
  const next = (projector() + 1) % PROJECTOR_SIZES;
  if (next === 0) delete document.documentElement.dataset.projector;
  else document.documentElement.dataset.projector = String(next);
}

export function chooseTheme(theme: Theme): void {
  document.documentElement.dataset.theme = theme;
  remember('manege-theme', theme);
}
