import { writeFileSync } from 'node:fs';
import { apply, type Edit } from '../src/core/circuit/edit';
import type { Exercise } from '../src/core/circuit/exercise';
import { emptyLesson, type Lesson, type Params, type Sheet } from '../src/core/circuit/lesson';
import { connect, newPart } from '../src/core/drawing/gestures';
import { check } from '../src/core/exercise/check';
import { writeExercise } from '../src/core/formats/exercise-file';
import { writeHandIn } from '../src/core/formats/hand-in-file';
import { writeLesson } from '../src/core/formats/lesson-file';
import { defaultParams, findKind } from '../src/core/parts/catalogue';

/*
 * Lays out the carousel lessons by the same gestures as a hand would: `npm run demo` writes them anew.
 */

function write(file: string, text: string): void {
  writeFileSync(new URL(file, import.meta.url), text);
}

class Pencil {
  constructor(private lesson: Lesson) {}

  private get sheet(): Sheet {
    return this.lesson.sheets[0]!;
  }

  private make(edit: Edit | null): void {
    const applied = edit && apply(this.lesson, edit);
    if (!applied?.ok) throw new Error(applied ? applied.reason : 'nothing to do');
    this.lesson = applied.lesson;
  }

  place(kind: string, x: number, y: number, label = '', params: Params = {}): string {
    const entry = findKind(kind)!;
    const part = newPart(this.sheet, entry, { x, y }, { ...defaultParams(entry), ...params }, label);
    this.make({ type: 'addPart', sheet: this.sheet.id, part });
    return part.id;
  }

  /** Wires `sw1.Y` to `and1.A`. */
  wire(from: string, to: string): void {
    const end = (text: string) => ({ part: text.split('.')[0]!, port: text.split('.')[1]! });
    this.make(connect(this.sheet, end(from), end(to)));
  }

  save(file: string): void {
    write(file, writeLesson(this.lesson));
  }

  handIn(file: string, name: string, exercise: Exercise, handedIn: string, minutes: number): void {
    const { right, rows, complaints } = check(this.sheet, exercise);
    const { id, title } = exercise;
    const result = { right, rows, complaints: [...complaints] };
    write(
      file,
      writeHandIn({
        exercise: { id, title },
        name,
        result,
        handedIn,
        seconds: minutes * 60,
        lesson: this.lesson,
      }),
    );
  }
}

function started(id: string, title: string, sheet: string): Pencil {
  const lesson = emptyLesson(id, title);
  return new Pencil({ ...lesson, sheets: [{ ...lesson.sheets[0]!, name: sheet }] });
}

function interlock(): void {
  const p = started('demo-drive-interlock', 'Drive interlock', 'Drive interlock');
  const key = p.place('switch', 4, 5, 'Key');
  const bars = p.place('switch', 4, 12, 'Bars');
  const clear = p.place('switch', 4, 19, 'Clear');
  const all = p.place('and', 21, 7, '', { inputs: 3 });
  const not = p.place('not', 15, 25);
  const both = p.place('and', 24, 24);
  const drive = p.place('lamp', 33, 7, 'Drive');
  const warn = p.place('lamp', 33, 24, 'Warn');
  p.wire(`${key}.Y`, `${all}.A`);
  p.wire(`${bars}.Y`, `${all}.B`);
  p.wire(`${clear}.Y`, `${all}.C`);
  p.wire(`${bars}.Y`, `${not}.A`);
  p.wire(`${key}.Y`, `${both}.A`);
  p.wire(`${not}.Y`, `${both}.B`);
  p.wire(`${all}.Y`, `${drive}.A`);
  p.wire(`${both}.Y`, `${warn}.A`);
  p.save('drive-interlock.manege.json');
}

/** A ring of four flip-flops with one twist runs through eight states; two neighbours name each of them. */
function lampChase(): void {
  const p = started('demo-lamp-chase', 'Lamp chase', 'Lamp chase');
  const clock = p.place('clock', 4, 34, 'Clock', { hertz: 2 });
  const stages = [0, 1, 2, 3].map((i) => p.place('dff', 16, 5 + 10 * i, `Q${i}`));
  const decoded = [
    ["0.Q'", "3.Q'"],
    ['0.Q', "1.Q'"],
    ['1.Q', "2.Q'"],
    ['2.Q', "3.Q'"],
    ['3.Q', '0.Q'],
    ["0.Q'", '1.Q'],
    ["1.Q'", '2.Q'],
    ["2.Q'", '3.Q'],
  ] as const;
  const pin = (text: string) => `${stages[Number(text[0])]}.${text.slice(2)}`;
  for (let i = 0; i < 3; i++) p.wire(`${stages[i]}.Q`, `${stages[i + 1]}.D`);
  p.wire(`${stages[3]}.Q'`, `${stages[0]}.D`);
  for (const stage of stages) p.wire(`${clock}.Y`, `${stage}.C`);
  for (const [i, [a, b]] of decoded.entries()) {
    const gate = p.place('and', 44, 3 + 5 * i);
    const lamp = p.place('lamp', 52, 3 + 5 * i, `L${i}`);
    p.wire(pin(a), `${gate}.A`);
    p.wire(pin(b), `${gate}.B`);
    p.wire(`${gate}.Y`, `${lamp}.A`);
  }
  p.save('lamp-chase.manege.json');
}

const warningLamp: Exercise = {
  id: 'demo-warning-lamp',
  title: 'Warning lamp',
  task:
    'The carousel has a key switch **Key** and a switch **Bars** that is 1 while the safety bars are down; **Clear** is 1 while the platform is clear.\n\n' +
    '- **Drive** may be 1 only while the key is in, the bars are down *and* the platform is clear.\n' +
    '- **Warn** lights while the key is in and a bar is up.\n\n' +
    'Use only AND, OR and NOT.',
  wanted: {
    inputs: ['Key', 'Bars', 'Clear'],
    outputs: [
      { name: 'Drive', rows: '00000001' },
      { name: 'Warn', rows: '00001100' },
    ],
  },
  allowed: ['and', 'or', 'not'],
  made: '2026-09-01T08:00:00.000Z',
};

/** The frame of each hand-in: three switches, Drive done, and a lamp for Warn. */
function begun(id: string) {
  const p = started(id, 'Warning lamp', 'Sheet 1');
  const [key, bars, clear] = ['Key', 'Bars', 'Clear'].map((name, i) => p.place('switch', 0, 2 + 7 * i, name));
  const drive = p.place('lamp', 30, 4, 'Drive');
  const warn = p.place('lamp', 30, 22, 'Warn');
  const all = p.place('and', 18, 4, '', { inputs: 3 });
  for (const [i, part] of [key, bars, clear].entries()) p.wire(`${part}.Y`, `${all}.${'ABC'[i]}`);
  p.wire(`${all}.Y`, `${drive}.A`);
  return { p, key, bars, clear, warn };
}

function handIns(): void {
  write('exercise/warning-lamp.exercise.json', writeExercise(warningLamp));
  {
    const { p, key, bars, warn } = begun('hand-in-ada');
    const not = p.place('not', 12, 23);
    const both = p.place('and', 21, 22);
    p.wire(`${key}.Y`, `${both}.A`);
    p.wire(`${bars}.Y`, `${not}.A`);
    p.wire(`${not}.Y`, `${both}.B`);
    p.wire(`${both}.Y`, `${warn}.A`);
    p.handIn('exercise/ada.handin.json', 'Ada Sample', warningLamp, '2026-09-04T09:12:00.000Z', 11);
  }
  {
    // Takes the platform into the warning as well: wrong in the row where only it is missing.
    const { p, key, bars, clear, warn } = begun('hand-in-ben');
    const down = p.place('and', 10, 26);
    const not = p.place('not', 17, 26);
    const both = p.place('and', 24, 22);
    p.wire(`${bars}.Y`, `${down}.A`);
    p.wire(`${clear}.Y`, `${down}.B`);
    p.wire(`${down}.Y`, `${not}.A`);
    p.wire(`${key}.Y`, `${both}.A`);
    p.wire(`${not}.Y`, `${both}.B`);
    p.wire(`${both}.Y`, `${warn}.A`);
    p.handIn('exercise/ben.handin.json', 'Ben Sample', warningLamp, '2026-09-04T09:30:00.000Z', 24);
  }
  {
    const { p, key, bars, warn } = begun('hand-in-cleo');
    const not = p.place('not', 12, 21);
    const neither = p.place('nor', 21, 22);
    p.wire(`${key}.Y`, `${not}.A`);
    p.wire(`${not}.Y`, `${neither}.A`);
    p.wire(`${bars}.Y`, `${neither}.B`);
    p.wire(`${neither}.Y`, `${warn}.A`);
    p.handIn('exercise/cleo.handin.json', 'Cleo Sample', warningLamp, '2026-09-05T16:02:00.000Z', 17);
  }
}

interlock();
lampChase();
handIns();
