/*
 * Small things that a browser remembers for its pages. Where it keeps nothing (private windows, site data blocked) or has
 * no room, everything works, and is forgotten with the page.
 */

type Lasting = 'browser' | 'tab';

/** The browser's own store; reading the property alone may be refused. */
function storage(lasting: Lasting): Storage | null {
  try {
    return lasting === 'browser' ? localStorage : sessionStorage;
  } catch {
    return null;
  }
}

/** What was remembered under a key; null where nothing is. */
export function remembered(key: string, lasting: Lasting = 'browser'): string | null {
  try {
    return storage(lasting)?.getItem(key) ?? null;
  } catch {
    return null;
  }
}

/** @returns whether the browser has taken it. */
export function remember(key: string, text: string, lasting: Lasting = 'browser'): boolean {
  const into = storage(lasting);
  if (!into) return false;
  try {
    into.setItem(key, text);
    return true;
  } catch {
    return false;
  }
}

export function forget(key: string, lasting: Lasting = 'browser'): void {
  try {
    storage(lasting)?.removeItem(key);
  } catch {
    // What cannot be forgotten was not remembered.
  }
}
