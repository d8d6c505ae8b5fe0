import { instancesIn } from './elaborate';
import { parseVerilog } from './parse';
import type { Includes } from './preprocess';
import type { Module } from './syntax';
import { VerilogError } from './tokens';

/*
 * Designs of several files: a file names others with `include, with $readmemh, or by the modules in them.
 */

export interface NamedText {
  readonly name: string;
  readonly text: string;
}

const DECLARED = /^\s*module\s+([A-Za-z_]\w*)/gm;
const NAMED = /(?:`include|\$readmem[hb]\s*\()\s*"([^"\n]+)"/g;

/** Names of the modules that a text declares, without reading it. */
const modulesOf = (text: string): string[] => [...text.matchAll(DECLARED)].map((found) => found[1]!);

/** Names of the files that a text includes or fills memories from. */
export const filesNamed = (text: string): string[] => [...text.matchAll(NAMED)].map((found) => found[1]!);

/** Files that no other of them uses: each is a design of its own, the others belong to it. */
export function mainFiles(files: readonly NamedText[]): string[] {
  const words = new Map(files.map(({ name, text }) => [name, new Set(text.match(/[A-Za-z_]\w*/g) ?? [])]));
  const uses = (user: NamedText, used: NamedText): boolean =>
    user !== used &&
    (filesNamed(user.text).some((name) => name.replace(/^.*\//, '') === used.name) ||
      modulesOf(used.text).some((module) => words.get(user.name)!.has(module)));
  const main = files.filter((file) => !files.some((other) => uses(other, file) && !uses(file, other)));
  return main.map(({ name }) => name);
}

/** Modules with those that they use and that stand in other files. */
export function withOthers(modules: readonly Module[], includes: Includes | undefined): Module[] {
  const all = [...modules];
  const known = new Set(all.map(({ name }) => name));
  for (let at = 0; includes && at < all.length; at++)
    for (const wanted of instancesIn(all[at]!.items)) {
      if (known.has(wanted)) continue;
      const file = [...includes].find(
        ([name, text]) => name.endsWith('.v') && modulesOf(text).includes(wanted),
      );
      if (!file) continue;
      for (const module of parsedIn(file[0], file[1], includes))
        if (!known.has(module.name)) {
          known.add(module.name);
          all.push(module);
        }
    }
  return all;
}

function parsedIn(name: string, text: string, includes: Includes): Module[] {
  try {
    return parseVerilog(text, includes);
  } catch (error) {
    if (!(error instanceof VerilogError)) throw error;
    const { line, column } = error.place;
    throw new VerilogError(`in ${name}, line ${line}, column ${column}: ${error.message}`, {
      line: 1,
      column: 1,
    });
  }
}
