import type { ExpectedSignal } from '@/core/exercise/expected/expected-kind';

/** Names with commas, with the width of each bus. */
export const named = (signals: readonly ExpectedSignal[]): string =>
  signals.map(({ name, width }) => (width > 1 ? `${name} (${width} bits)` : name)).join(', ');
