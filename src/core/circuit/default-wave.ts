import type { Wave } from './time-setup';

/** Kept apart from its schema, which a page that reads no files does not load. */
export const DEFAULT_WAVE: Wave = {
  pattern: 'levels',
  data: '',
  step: 10_000,
  high: 5000,
  phase: 0,
  first: 'most',
  repeat: false,
  endsAtZero: false,
  place: 0,
  seed: 1,
};
