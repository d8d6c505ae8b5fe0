import { type Command, GROUPS, nameOf } from './command';
import type { EditorContext } from './context';

const plain = (text: string) => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();

const wordsOf = (text: string) =>
  plain(text)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

interface Found {
  readonly command: Command;
  readonly rank: number;
}

/**
 * The commands that match a search, best first: each searched word begins one of a command's words. Commands
 * whose name begins with the text come first, then those with all words in their name, then the rest. An
 * empty search gives all commands, those that apply now first.
 */
export function findCommands(
  typed: string,
  commands: readonly Command[],
  context: EditorContext,
): readonly Command[] {
  const searched = wordsOf(typed);
  if (searched.length === 0) {
    const applies = new Map(commands.map((command) => [command, command.when(context).ok]));
    return [...commands].sort((a, b) => Number(applies.get(b)) - Number(applies.get(a)));
  }
  const found: Found[] = [];
  for (const command of commands) {
    const name = wordsOf(nameOf(command, context));
    const more = wordsOf(`${command.name} ${GROUPS[command.group]} ${command.words ?? ''}`);
    const isIn = (list: readonly string[]) =>
      searched.every((word) => list.some((candidate) => candidate.startsWith(word)));
    if (!isIn([...name, ...more])) continue;
    const begins = plain(command.name).startsWith(plain(typed.trim()));
    found.push({ command, rank: begins ? 0 : isIn(name) ? 1 : 2 });
  }
  return found.sort((a, b) => a.rank - b.rank).map(({ command }) => command);
}
