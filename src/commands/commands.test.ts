import { exerciseOf } from '@/core/testing/exercises';
import { interlock } from '@/core/testing/sketch';
import { COMMANDS, commandsOf } from '.';
import { actionsFor } from './actions';
import { chordOf, chordText } from './chord';
import { type Command, runCommand } from './command';
import { findCommands } from './find';
import { keyLines } from './key-help';
import { pressKey, releaseKey } from './keys';
import { editorOn } from './testing/editor-on';

const PLAIN = { ctrlKey: false, metaKey: false, altKey: false, shiftKey: false };

/** The interlock with a word to set, and a second sheet. */
const LESSON = (() => {
  const sketch = interlock();
  sketch.place('switch', 0, 40, 'Word', { width: 4 });
  sketch.place('note', 20, 40, '', { text: 'Four places' });
  const second = { id: 'second', name: 'Second', parts: new Map(), wires: new Map() };
  return sketch.make({ type: 'addSheet', sheet: second, at: 1 }).lesson;
})();

const editor = () => editorOn(LESSON);

const SELECTIONS: Readonly<Record<string, readonly [parts: string[], wires: string[]]>> = {
  nothing: [[], []],
  'a gate': [['and1'], []],
  'a switch': [['switch1'], []],
  'a word': [['switch4'], []],
  'a note': [['note1'], []],
  'three parts': [['and1', 'not1', 'and2'], []],
  'three parts in a row': [['switch1', 'not1', 'and2'], []],
  'a wire': [[], ['w1']],
  'parts and wires': [
    ['and1', 'and2'],
    ['w1', 'w2'],
  ],
};

/** An editor with something selected. */
function withSelection([parts, wires]: readonly [string[], string[]]) {
  const e = editor();
  e.session.select({ parts: new Set(parts), wires: new Set(wires) });
  return e;
}

/** Commands that go to the clipboard of the browser are tried by hand on the page. */
const TRIED = COMMANDS.filter((command) => !command.isBrowserKey);

test('ids are unique, and each command has a name', () => {
  const all = commandsOf(editor().context);
  expect(new Set(all.map((c) => c.id)).size).toBe(all.length);
  for (const { id, name } of all) {
    expect(id).toMatch(/^[a-z]+\../);
    expect(name.trim()).not.toBe('');
  }
});

test('a command that applies makes one step of undo that is called as it says, or none', () => {
  const tried = new Set<string>();
  for (const selection of Object.values(SELECTIONS))
    for (const command of TRIED) {
      const e = withSelection(selection);
      const before = e.session.state.history.undo;
      if (!command.when(e.context).ok || ['history.undo', 'history.redo'].includes(command.id)) continue;
      expect(runCommand(command, e.context)).toBe(true);
      const { undo } = e.session.state.history;
      if (undo.length === before.length) continue;
      expect([command.id, undo.length]).toEqual([command.id, before.length + 1]);
      const name = undo.at(-1)!.name;
      expect([command.id, name.startsWith(command.undoName ?? '?')]).toEqual([command.id, true]);
      tried.add(command.id);
    }
  const { context } = editor();
  const silent = TRIED.filter((c) => c.undoName && !tried.has(c.id) && !c.isOn?.(context)).map((c) => c.id);
  // The wires of the interlock are as straight as they can be, and hemmed in.
  expect(silent.filter((id) => !/^(wire\.(pull|straighten)|order\.straight)/.test(id))).toEqual([]);
});

test('a command that does not apply says why, and changes nothing', () => {
  for (const selection of Object.values(SELECTIONS))
    for (const command of TRIED) {
      const e = withSelection(selection);
      const applies = command.when(e.context);
      if (applies.ok) continue;
      const before = e.session.state;
      expect(runCommand(command, e.context)).toBe(false);
      expect(e.session.state.notice?.text).toBe(`${command.name}: ${applies.problem.message}.`);
      expect(e.session.state.lesson).toBe(before.lesson);
      expect(e.session.state.selection).toBe(before.selection);
    }
});

test('where a lesson is only looked at, no command changes it', () => {
  for (const selection of Object.values(SELECTIONS)) {
    const e = withSelection(selection);
    e.session.setReadOnly(true);
    const { lesson } = e.session.state;
    for (const command of TRIED) if (command.when(e.context).ok) command.run(e.context);
    expect(e.session.state.lesson).toBe(lesson);
  }
});

test('a key does what the first of its commands that applies does', () => {
  const e = editor();
  const at = () => e.session.sheet.parts.get('and1')!.at;
  const before = at();
  const press = (key: string, more = {}) => pressKey({ ...PLAIN, key, ...more }, e.context);
  e.session.select({ parts: new Set(['and1']), wires: new Set() });
  press('ArrowRight');
  expect(at()).toEqual({ x: before.x + 1, y: before.y });
  press('ArrowDown', { shiftKey: true });
  expect(at()).toEqual({ x: before.x + 1, y: before.y + 5 });
  press('z', { ctrlKey: true });
  press('z', { metaKey: true });
  expect(at()).toEqual(before);
  expect(press('3')).toBe(true);
  e.session.select({ parts: new Set(['switch1']), wires: new Set() });
  press('Enter');
  expect(e.session.state.on.size).toBe(1);
  e.session.select({ parts: new Set(['switch4']), wires: new Set() });
  press('Enter');
  expect(e.popup()).toEqual({ is: 'value', part: 'switch4' });
  press('F2');
  expect(e.popup()).toMatchObject({ is: 'settings', parts: ['switch4'] });
  press('n');
  expect(e.popup()).toMatchObject({ is: 'typing', first: 'n' });
});

test('a key with nothing to act on is left to the browser; one that cannot work says why', () => {
  const e = editor();
  expect(pressKey({ ...PLAIN, key: 'Delete' }, e.context)).toBe(false);
  expect(e.session.state.notice).toBeNull();
  e.session.setReadOnly(true);
  expect(pressKey({ ...PLAIN, key: 'n' }, e.context)).toBe(true);
  expect(e.session.state.notice?.text).toMatch(/this lesson cannot be changed here/);
});

test('a number that the selected part has no use for begins the typing line', () => {
  const e = withSelection([['switch1'], []]);
  expect(pressKey({ ...PLAIN, key: '3' }, e.context)).toBe(true);
  expect(e.popup()).toMatchObject({ is: 'typing', first: '3' });
  expect(e.session.state.notice).toBeNull();
});

test('while another face has the focus, only keys that do not touch the selection work', () => {
  const e = withSelection([['and1'], []]);
  const press = (key: string, more = {}) => pressKey({ ...PLAIN, key, elsewhere: true, ...more }, e.context);
  pressKey({ ...PLAIN, key: ']' }, e.context);
  const { lesson } = e.session.state;
  for (const key of ['Delete', ']', '|', 'Enter', '3']) expect([key, press(key)]).toEqual([key, false]);
  expect(press('a', { ctrlKey: true })).toBe(false);
  expect(e.session.state.lesson).toBe(lesson);
  expect(press('z', { ctrlKey: true })).toBe(true);
  expect(e.session.state.lesson).not.toBe(lesson);
  expect(press('k', { ctrlKey: true })).toBe(true);
  expect(e.asked).toContain('commands');
});

test('a key that a switch is bound to moves the switch and does nothing else', () => {
  const sketch = interlock();
  sketch.place('button', 0, 50, 'Horn', { key: 'h' });
  sketch.place('switch', 0, 60, 'Gate', { key: '3' });
  const e = editorOn(sketch.lesson);
  e.session.select({ parts: new Set(['and1']), wires: new Set() });
  pressKey({ ...PLAIN, key: 'h' }, e.context);
  pressKey({ ...PLAIN, key: '3' }, e.context);
  pressKey({ ...PLAIN, key: '3', isRepeat: true }, e.context);
  expect([...e.session.state.on.keys()].sort()).toEqual(['button1', 'switch4']);
  expect(e.popup()).toBeNull();
  expect(e.session.state.history.undo).toEqual([]);
  releaseKey('h', e.context);
  expect([...e.session.state.on.keys()]).toEqual(['switch4']);
});

test('a chord is the same on every keyboard', () => {
  const of = (key: string, more = {}) => chordOf({ ...PLAIN, key, ...more });
  expect(of('z', { ctrlKey: true })).toBe('Ctrl+Z');
  expect(of('Z', { metaKey: true, shiftKey: true })).toBe('Ctrl+Shift+Z');
  expect(of('|', { shiftKey: true })).toBe('|');
  expect(of('[', { ctrlKey: true, altKey: true })).toBe('[');
  expect(of('ArrowLeft', { altKey: true })).toBe('Alt+ArrowLeft');
  expect(of(' ')).toBe('Space');
  expect(['Ctrl+Shift+Z', 'Alt+ArrowLeft', '+', '-'].map(chordText)).toEqual([
    'Ctrl Shift Z',
    'Alt ←',
    '+',
    '−',
  ]);
  for (const { id, keys = [] } of COMMANDS)
    for (const chord of keys) {
      const names = chord === '+' ? ['+'] : chord.split('+');
      const [key, has] = [names.at(-1)!, (name: string) => names.slice(0, -1).includes(name)];
      const press = { key: key === 'Space' ? ' ' : key, ctrlKey: has('Ctrl'), altKey: has('Alt') };
      expect([id, chordOf({ ...PLAIN, ...press, shiftKey: has('Shift') })]).toEqual([id, chord]);
    }
});

test('commands, parts, sheets and faces are found by any of their words', () => {
  const { context } = editor();
  const all = commandsOf(context);
  const best = (typed: string) => findCommands(typed, all, context).map((c) => c.id);
  expect(best('undo')[0]).toBe('history.undo');
  expect(best('rotate')).toEqual(['part.turn-back', 'part.turn']);
  expect(best('nand')[0]).toBe('place.nand');
  expect(best('turn')[0]).toBe('part.turn');
  expect(best('second')[0]).toBe('sheet.open-second');
  expect(best('face map')).toContain('face.map');
  expect(best('mirr bottom')).toEqual(['part.mirror-down']);
  expect(best('no such thing')).toEqual([]);
  expect(best('  ')).toHaveLength(all.length);
  const applies = findCommands('', all, context).map((c) => c.when(context).ok);
  expect(applies.lastIndexOf(true)).toBeLessThan(applies.indexOf(false));
});

test('the menu at the pointer holds only commands that apply', () => {
  for (const [name, selection] of Object.entries(SELECTIONS)) {
    const { context } = withSelection(selection);
    const groups = actionsFor(context);
    const commands = groups.flatMap((group) => group.commands);
    expect([name, commands.length > 0, commands.every((c) => c.when(context).ok)]).toEqual([
      name,
      true,
      true,
    ]);
  }
});

test('every key has a line on the help page', () => {
  const sections = ['Place', 'Wire', 'Try', 'Change', 'Look'] as const;
  const told = sections.flatMap((section) => keyLines(COMMANDS, section));
  const texts = told.map(([keys]) => keys).join(' ');
  const word = (key: string) =>
    /^[2-9]$/.test(key) ? '2 … 9' : chordText(key).replace(/[←→↑↓]/, 'arrow keys');
  const isTold = ({ keys = [] }: Command) =>
    keys.every((key) => texts.includes(word(key)) || texts.includes(chordText(key)));
  expect(COMMANDS.filter((c) => !isTold(c)).map((c) => c.id)).toEqual([]);
});

test('a student gets no worksheet, whose answer sheet would tell the answer; a teacher does', () => {
  const paper = COMMANDS.find(({ id }) => id === 'save.paper')!;
  expect(paper.when(editor().context).ok).toBe(true);
  const atWork = editorOn({ ...LESSON, exercise: exerciseOf([]) });
  expect(paper.when(atWork.context).ok).toBe(false);
  pressKey({ ...PLAIN, key: 'p', ctrlKey: true }, atWork.context);
  expect(atWork.asked).toEqual([]);
  expect(atWork.session.state.notice?.text).toContain('not of work at an exercise');
});
