import type { Includes } from './preprocess';
import { type Place, VerilogError } from './tokens';

/** A word of a file for `$readmemh` or `$readmemb`: its address, or null for the next one, and its digits `0 1 x z`. */
export interface MemoryWord {
  readonly address: number | null;
  readonly digits: string;
}

/**
 * The words of a file of hexadecimal or binary digits (IEEE Std 1364-2005, 17.2.9).
 * @throws VerilogError where there is no such file, or something else stands in it.
 */
export function memoryFile(name: string, base: 'h' | 'b', includes: Includes, at: Place): MemoryWord[] {
  const fail = (message: string): never => {
    throw new VerilogError(message, { line: at.line, column: at.column });
  };
  const text = includes.get(name) ?? includes.get(name.replace(/^.*\//, ''));
  if (text === undefined) return fail(`there is no file ${name} beside this one: open both together`);
  const words: MemoryWord[] = [];
  let address: number | null = null;
  for (const word of text.replaceAll(/\/\/[^\n]*|\/\*.*?\*\//gs, ' ').split(/\s+/)) {
    if (word === '') continue;
    if (/^@[0-9a-fA-F]+$/.test(word)) {
      address = Number.parseInt(word.slice(1), 16);
      continue;
    }
    const digits = word.replaceAll('_', '').toLowerCase();
    if (!(base === 'h' ? /^[0-9a-fxz]+$/ : /^[01xz]+$/).test(digits))
      return fail(
        `“${word.slice(0, 20)}” in ${name} is no ${base === 'h' ? 'hexadecimal' : 'binary'} number`,
      );
    const bits =
      base === 'b'
        ? digits
        : [...digits]
            .map((c) => (/[xz]/.test(c) ? c.repeat(4) : Number.parseInt(c, 16).toString(2).padStart(4, '0')))
            .join('');
    words.push({ address, digits: bits });
    address = null;
  }
  return words;
}

/** Whether a system task reads a file into a memory, and in which digits. */
export const memoryBase = (name: string): 'h' | 'b' | null =>
  name === '$readmemh' ? 'h' : name === '$readmemb' ? 'b' : null;
