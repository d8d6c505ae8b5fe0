import { isWrittenAt } from '../src/core/formats/format';
import { FORMATS } from '../src/core/formats/kinds';
import type { LogicFamily } from '../src/core/parts/packages/package-type';

/*
 * Choices and defaults that the help text lists. The commands themselves are loaded only when they are called.
 */

/** The families as they are named on the command line. */
export const FAMILIES: Readonly<Record<string, LogicFamily>> = {
  '74': '74HC',
  '74HC': '74HC',
  '74LS': '74LS',
  '4000': '4000B',
};

/** Steps of a run at most, where nothing else is said: some five seconds of one that only swings. */
export const MOST_STEPS = 100_000_000;

export const WRITTEN = FORMATS.filter(isWrittenAt('command line'));

/** `*.manege.json, *.v, *.svg`: the files that can be written, for the help and for refusals. */
export const WRITTEN_FILES = WRITTEN.map((format) => `*${format.endings[0]}`).join(', ');
