import { useSyncExternalStore } from 'react';

export type Theme = 'light' | 'dark';

function subscribe(changed: () => void): () => void {
  const observer = new MutationObserver(changed);
  observer.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
  return () => observer.disconnect();
}

const current = (): Theme => (document.documentElement.dataset.theme === 'dark' ? 'dark' : 'light');

export function useTheme(): Theme {
  return useSyncExternalStore(subscribe, current, () => 'light');
}

export function chooseTheme(theme: Theme): void {
  document.documentElement.dataset.theme = theme;
  try {
    localStorage.setItem('manege-theme', theme);
  } catch {
    // A browser that keeps nothing still shows the theme on this page.
  }
}
