import { useSyncExternalStore } from 'react';

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

const projector = (): boolean => document.documentElement.dataset.projector !== undefined;

/** Whether text, lines and values are drawn large for a projector. */
export function useProjector(): boolean {
  return useSyncExternalStore(subscribe, projector, () => false);
}

export function toggleProjector(): void {
  if (projector()) delete document.documentElement.dataset.projector;
  else document.documentElement.dataset.projector = '';
}

export function chooseTheme(theme: Theme): void {
  document.documentElement.dataset.theme = theme;
  try {
    localStorage.setItem('manege-theme', theme);
  } catch {
    // A browser that keeps nothing still shows the theme on this page.
  }
}
