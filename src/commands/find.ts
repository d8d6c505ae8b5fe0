import { type Command, nameOf } from './command';
import type { EditorContext } from './context';
import { GROUPS } from './groups';

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
 * The commands that match a search, best first. A command matches if each searched word is a prefix of one of its
 * words. Names equal to the text come first, then names that begin with it, then names that contain all the words,
 * then the rest. An empty search returns all commands, those that apply now first.
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
    const whole = plain(command.name);
    const given = plain(typed.trim());
    const rank = whole === given ? 0 : whole.startsWith(given) ? 1 : isIn(name) ? 2 : 3;
    found.push({ command, rank });
  }
  return found.sort((a, b) => a.rank - b.rank).map(({ command }) => command);
}
