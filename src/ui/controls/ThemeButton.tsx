'use client';

import { hint } from './hint';
import { chooseTheme, useTheme } from './theme';

export function ThemeButton() {
  const theme = useTheme();
  const other = theme === 'dark' ? 'light' : 'dark';
  return (
    <button
      type="button"
      className="icon-button"
      onClick={() => chooseTheme(other)}
      aria-label={`Use the ${other} theme`}
      {...hint(`Use the ${other} theme`)}
    >
      <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
        <circle cx="9" cy="9" r="6.5" fill="none" stroke="currentColor" strokeWidth="1.6" />
        <path d="M9 2.5a6.5 6.5 0 0 1 0 13Z" fill="currentColor" />
      </svg>
    </button>
  );
}
