import { chordText } from './chord';
import type { Command } from './command';
import type { Group } from './groups';

/** The sections of the help page. */
export type HelpSection = 'Place' | 'Wire' | 'Try' | 'Change' | 'Look';

const SECTION: Readonly<Record<Group, HelpSection>> = {
  place: 'Place',
  part: 'Change',
  order: 'Change',
  room: 'Change',
  wire: 'Wire',
  colour: 'Wire',
  remove: 'Change',
  sheet: 'Change',
  save: 'Look',
  history: 'Change',
  moment: 'Try',
  view: 'Look',
  face: 'Look',
  settings: 'Look',
  lesson: 'Look',
};

const ARROWS = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'];

/** Keys as they are shown; all four arrows by one word, and digits in a row by their ends: `2 … 9`. */
function keysText(keys: readonly string[]): string {
  for (const modifier of ['', 'Shift+', 'Alt+']) {
    const arrows = ARROWS.map((arrow) => modifier + arrow);
    if (!arrows.every((chord) => keys.includes(chord))) continue;
    const others = keys.filter((chord) => !arrows.includes(chord));
    const word = `${chordText(modifier.replace('+', ''))} arrow keys`.trim();
    return [word, ...(others.length > 0 ? [keysText(others)] : [])].join(' · ');
  }
  const isRow = keys.length > 3 && keys.every((key, i) => Number(key) === Number(keys[0]) + i);
  return isRow ? `${keys[0]} … ${keys.at(-1)}` : keys.map(chordText).join(' · ');
}

/** The help lines of a section: the keys, and their effect. */
export function keyLines(
  commands: readonly Command[],
  section: HelpSection,
): readonly (readonly [keys: string, does: string])[] {
  const lines = new Map<string, string[]>();
  for (const { group, keys = [], help, name } of commands) {
    if (SECTION[group] !== section || keys.length === 0) continue;
    const does = help ?? name.toLowerCase();
    lines.set(does, [...new Set([...(lines.get(does) ?? []), ...keys])]);
  }
  return [...lines].map(([does, keys]) => [keysText(keys), does]);
}
