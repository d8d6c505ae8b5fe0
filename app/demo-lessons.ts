import { readFile } from 'node:fs/promises';
import { join } from 'node:path';

const DEMOS = [
  'drive-interlock',
  'ticket-adder',
  'queue-selector',
  'organ-drum',
  'lamp-chase',
  'ride-timer',
  'turnstile-total',
];

/** The files of the demo lessons, in the order of the shelf. */
export const demoLessons = (): Promise<string[]> =>
  Promise.all(DEMOS.map((name) => readFile(join(process.cwd(), 'demo', `${name}.manege.json`), 'utf8')));
