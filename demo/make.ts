import { readFileSync, writeFileSync } from 'node:fs';
import { boardOfPlan } from '../src/core/bench/lay';
import { DEFAULT_WAVE } from '../src/core/circuit/default-wave';
import { apply, type Edit } from '../src/core/circuit/edit';
import type { Exercise } from '../src/core/circuit/exercise';
import { boundingBox, type Point } from '../src/core/circuit/geometry';
import { emptyLesson, type Lesson } from '../src/core/circuit/lesson';
import { emptySheet, type Params, type Settings, type Sheet } from '../src/core/circuit/sheet';
import { NO_TIME_SETUP, type TimeSetup } from '../src/core/circuit/time-setup';
import { tidy } from '../src/core/drawing/editing/arrange';
import { connect, newPart } from '../src/core/drawing/editing/gestures';
import { portsFor } from '../src/core/drawing/editing/ports';
import { footprintOf } from '../src/core/drawing/geometry/placement';
import { layOut } from '../src/core/drawing/layout/lay-out';
import type { ExpectedTable } from '../src/core/exercise/expected/table/expected-table';
import { handInOf } from '../src/core/exercise/hand-in';
import { writeExercise } from '../src/core/formats/exercise-file';
import { writeHandIn } from '../src/core/formats/hand-in-file';
import { readLesson } from '../src/core/formats/lesson-file';
import { writeLesson } from '../src/core/formats/write-lesson';
import { blockParams } from '../src/core/netlist/blocks';
import { sheetPlan } from '../src/core/packages/sheet-plan';
import { findKind } from '../src/core/parts/catalogue';
import { defaultParams } from '../src/core/parts/params';
import { drawStatement } from '../src/core/synthesis/draw-statement';
import { readStatement } from '../src/core/synthesis/statement';
import { expectDone } from '../src/core/values/result';
import { readySets } from './sets';

/*
 * Draws the carousel lessons by the same edits as a person would: `npm run demo` writes them again. Longer than other
 * files because the lessons are its content: each stands here whole, part by part.
 */

function write(file: string, text: string): void {
  writeFileSync(new URL(file, import.meta.url), text);
}

class Pencil {
  private at = 0;

  constructor(private lesson: Lesson) {}

  private get sheet(): Sheet {
    return this.lesson.sheets[this.at]!;
  }

  /** Goes on with another sheet, a new one where none is called so. */
  onSheet(name: string): this {
    const found = this.lesson.sheets.findIndex((s) => s.name === name);
    this.at = found === -1 ? this.lesson.sheets.length : found;
    if (found === -1)
      this.make({ type: 'addSheet', sheet: emptySheet(`sheet${this.at + 1}`, name), at: this.at });
    return this;
  }

  /** Draws a typed statement. */
  write(text: string, at = { x: 4, y: 6 }): this {
    const read = readStatement(this.lesson, this.sheet.id, text);
    if (!read.ok) throw new Error(read.problem.message);
    this.make(drawStatement(this.lesson, this.sheet.id, read.value, at).edit);
    return this;
  }

  /** Makes ports of the switches and lamps. */
  asBlock(): this {
    this.make({ type: 'group', edits: portsFor(this.sheet) });
    return this;
  }

  /** Places another sheet as a block. */
  block(name: string, x: number, y: number): string {
    return this.place('block', x, y, '', blockParams(this.lesson.sheets.find((s) => s.name === name)!));
  }

  note(text: string, x: number, y: number, size = 'normal'): void {
    this.place('note', x, y, '', { text, size });
  }

  private make(edit: Edit | null): void {
    const applied = edit && apply(this.lesson, edit);
    if (!applied?.ok) throw new Error(applied ? applied.problem.message : 'nothing to do');
    this.lesson = applied.value;
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

  /** Gives everything on the sheet a place of its own. */
  /** Lays the sheet out as the command does. */
  tidied(): void {
    this.make(tidy(this.lesson, this.sheet.id));
  }

  /** The upper left corner of all that is on the sheet, on the grid. */
  corner(): Point {
    const box = boundingBox([...this.sheet.parts.values()].map(footprintOf))!;
    return { x: Math.round(box.x0), y: Math.floor(box.y0) };
  }

  tidy(): this {
    const tidy = layOut(this.sheet);
    this.lesson = {
      ...this.lesson,
      sheets: this.lesson.sheets.map((s) => (s.id === tidy.id ? tidy : s)),
    };
    return this;
  }

  /** The content of the sheet's time face, and its stimuli. */
  time(time: Partial<TimeSetup>): this {
    this.make({ type: 'changeSheet', id: this.sheet.id, change: { time: { ...NO_TIME_SETUP, ...time } } });
    return this;
  }

  /** Its wiring board with the packages and no wire, for the guide to begin. */
  board(): this {
    const { plan } = sheetPlan(this.sheet, this.lesson.sheets);
    this.make({ type: 'changeSheet', id: this.sheet.id, change: { board: boardOfPlan(plan) } });
    return this;
  }

  save(file: string): void {
    write(file, writeLesson(this.lesson));
  }

  handIn(file: string, name: string, exercise: Exercise, handedIn: string, minutes: number): void {
    const [task] = exercise.tasks;
    const work = { tasks: { [task!.id]: { sheet: this.sheet.id, answer: null } }, checks: {} };
    const lesson = { ...this.lesson, work };
    write(file, writeHandIn(handInOf(exercise, lesson, name, minutes * 60, new Date(handedIn))));
  }
}

function started(id: string, title: string, sheet: string, settings: Partial<Settings> = {}): Pencil {
  const lesson = emptyLesson(id, title);
  return new Pencil({
    ...lesson,
    settings: { ...lesson.settings, ...settings },
    sheets: [{ ...lesson.sheets[0]!, name: sheet }],
  });
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
  p.board().save('drive-interlock.manege.json');
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
  const quick = { ...DEFAULT_WAVE, pattern: 'periodic' as const, step: 125e9, high: 62.5e9 };
  p.time({ stimuli: [{ name: 'Four times as fast', inputs: [{ part: clock, wave: quick }] }] });
  p.save('lamp-chase.manege.json');
}

/** Children's and adults' tickets, four bits each, added by blocks from a half adder upwards. */
function ticketAdder(): void {
  const p = started('demo-ticket-adder', 'Ticket adder', 'Ticket adder', { buses: 'unsigned' });
  p.onSheet('Half adder').write('Sum = A xor B').write('Carry = A and B').asBlock();
  p.onSheet('Full adder');
  p.write('s, c = Half adder(A, B)').write('Sum, d = Half adder(s, In)').write('Carry = c or d').asBlock();

  p.onSheet('Four bits');
  const a = p.place('port', 4, 6, 'A', { direction: 'in', width: 4 });
  const b = p.place('port', 4, 12, 'B', { direction: 'in', width: 4 });
  const sum = p.place('join', 62, 29, '', { widths: [1, 1, 1, 1, 1] });
  const out = p.place('port', 70, 29, 'Sum', { direction: 'out', width: 5 });
  const zero = p.place('constant', 28, 12, '', { value: 0 });
  let carry = `${zero}.Y`;
  for (let bit = 0; bit < 4; bit++) {
    const y = 8 + 13 * bit;
    const adder = p.block('Full adder', 42, y);
    for (const [i, from] of [a, b].entries()) {
      const slice = p.place('slice', 24, y - 4 + 4 * i, '', { width: 4, high: bit, low: bit });
      p.wire(`${from}.Y`, `${slice}.A`);
      p.wire(`${slice}.Y`, `${adder}.${'AB'[i]}`);
    }
    p.wire(carry, `${adder}.In`);
    p.wire(`${adder}.Sum`, `${sum}.I${bit}`);
    carry = `${adder}.Carry`;
  }
  p.wire(carry, `${sum}.I4`);
  p.wire(`${sum}.Y`, `${out}.A`);
  p.tidied();

  p.onSheet('Ticket adder');
  p.note('Ticket adder', 0, 0, 'title');
  p.note(
    "Children's and adults' tickets are added bit by bit.\nGo inside the block with two clicks.",
    0,
    5,
    'small',
  );
  const children = p.place('switch', 10, 14, 'Children', { width: 4, values: true });
  const adults = p.place('switch', 10, 24, 'Adults', { width: 4, values: true });
  const adder = p.block('Four bits', 30, 19);
  const lamps = p.place('lamp', 50, 13, 'Lamps', { width: 5, reads: 'unsigned' });
  const shown = p.place('number', 50, 24, 'Tickets', { width: 5, radix: 'unsigned' });
  p.wire(`${children}.Y`, `${adder}.A`);
  p.wire(`${adults}.Y`, `${adder}.B`);
  p.wire(`${adder}.Sum`, `${shown}.A`);
  p.wire(`${adder}.Sum`, `${lamps}.A`);
  p.board().save('ticket-adder.manege.json');
}

/** A drum of eight stops that turns forwards or backwards: three T flip-flops on one clock. */
function organDrum(): void {
  const p = started('demo-organ-drum', 'Organ drum', 'Organ drum');
  p.note('Organ drum', 0, -8, 'title');
  const forward = p.place('switch', 4, 4, 'Forward');
  const clock = p.place('clock', 4, 42, 'Clock', { hertz: 1 });
  const one = p.place('constant', 36, 6, '', { value: 1 });
  const q = [0, 1, 2].map((i) => p.place('tff', 46, 8 + 14 * i, `Q_${i}`));
  const same = [0, 1].map((i) => p.place('xnor', 22, 17 + 14 * i));
  const both = p.place('and', 33, 33);
  p.wire(`${one}.Y`, `${q[0]}.T`);
  p.wire(`${forward}.Y`, `${same[0]}.A`);
  p.wire(`${q[0]}.Q`, `${same[0]}.B`);
  p.wire(`${same[0]}.Y`, `${q[1]}.T`);
  p.wire(`${forward}.Y`, `${same[1]}.A`);
  p.wire(`${q[1]}.Q`, `${same[1]}.B`);
  p.wire(`${same[0]}.Y`, `${both}.A`);
  p.wire(`${same[1]}.Y`, `${both}.B`);
  p.wire(`${both}.Y`, `${q[2]}.T`);
  for (const stage of q) p.wire(`${clock}.Y`, `${stage}.C`);
  const stop = p.place('join', 62, 21, '', { widths: [1, 1, 1] });
  const shown = p.place('number', 72, 21, 'Stop', { width: 3, radix: 'unsigned' });
  for (const [i, stage] of q.entries()) p.wire(`${stage}.Q`, `${stop}.I${i}`);
  p.wire(`${stop}.Y`, `${shown}.A`);
  const levels = { ...DEFAULT_WAVE, data: '0 s 1, 8 s 0, 16 s 1' };
  p.time({
    lanes: [
      { of: [forward], name: '' },
      { of: [clock], name: '' },
      { of: [shown], name: '', radix: 'unsigned' },
    ],
    stimuli: [{ name: 'There and back', inputs: [{ part: forward, wave: levels }] }],
  });
  p.save('organ-drum.manege.json');
}

/**
 * The timer of a ride counts tens of its clock: one decade of flip-flops that clock each other, cleared when they stand
 * at ten, and one whose flip-flops all follow the clock. Behind it fourteen stages that divide the clock.
 */
function rideTimer(): void {
  const p = started('demo-ride-timer', 'Ride timer', 'Ride timer', { delays: 'parts' });
  const clock = p.place('clock', 0, 12, 'Clock', { hertz: 5e6 });
  const ripple = [0, 1, 2, 3].map((i) =>
    p.place('tff', 16 + 16 * i, 10, `R_${i}`, { edge: 'falling', clear: 'low' }),
  );
  const ten = p.place('nand', 72, 25, '', {});
  for (const [i, stage] of ripple.entries()) {
    const one = p.place('constant', 7 + 16 * i, 8, '', { value: 1 });
    p.wire(`${one}.Y`, `${stage}.T`);
    p.wire(i === 0 ? `${clock}.Y` : `${ripple[i - 1]}.Q`, `${stage}.C`);
  }
  const counted = ripple.map((stage, i) => {
    const lamp = p.place('lamp', 22 + 16 * i, 0, `Ripple_${i}`);
    p.wire(`${stage}.Q`, `${lamp}.A`);
    return lamp;
  });
  p.wire(`${ripple[1]}.Q`, `${ten}.A`);
  p.wire(`${ripple[3]}.Q`, `${ten}.B`);
  for (const stage of ripple) p.wire(`${ten}.Y`, `${stage}.CLR`);

  const same = [0, 1, 2, 3].map((i) => p.place('tff', 22 + 18 * i, 52, `S_${i}`));
  for (const stage of same) p.wire(`${clock}.Y`, `${stage}.C`);
  const always = p.place('constant', 13, 50, '', { value: 1 });
  p.wire(`${always}.Y`, `${same[0]}.T`);
  const low = p.place('and', 32, 44);
  p.wire(`${same[0]}.Q`, `${low}.A`);
  p.wire(`${same[3]}.Q'`, `${low}.B`);
  p.wire(`${low}.Y`, `${same[1]}.T`);
  const both = p.place('and', 50, 43);
  p.wire(`${same[0]}.Q`, `${both}.A`);
  p.wire(`${same[1]}.Q`, `${both}.B`);
  p.wire(`${both}.Y`, `${same[2]}.T`);
  const eight = p.place('and', 58, 64);
  const nine = p.place('and', 58, 70);
  const either = p.place('or', 66, 67);
  p.wire(`${both}.Y`, `${eight}.A`);
  p.wire(`${same[2]}.Q`, `${eight}.B`);
  p.wire(`${same[0]}.Q`, `${nine}.A`);
  p.wire(`${same[3]}.Q`, `${nine}.B`);
  p.wire(`${eight}.Y`, `${either}.A`);
  p.wire(`${nine}.Y`, `${either}.B`);
  p.wire(`${either}.Y`, `${same[3]}.T`);
  const stepped = same.map((stage, i) => {
    const lamp = p.place('lamp', 24 + 18 * i, 38, `Same_${i}`);
    p.wire(`${stage}.Q`, `${lamp}.A`);
    return lamp;
  });
  p.tidied();
  const corner = p.corner();
  p.note('Ride timer', corner.x, corner.y - 13, 'title');
  p.note(
    'Above, each flip-flop clocks the next; at ten a NAND clears them all.\nBelow, the clock moves all of them at once.',
    corner.x,
    corner.y - 8,
    'large',
  );
  const slow = { ...DEFAULT_WAVE, pattern: 'periodic' as const, step: 1_000_000, high: 500_000 };
  p.time({
    lanes: [
      { of: [clock], name: '' },
      ...counted.map((lamp) => ({ of: [lamp], name: '' })),
      ...stepped.map((lamp) => ({ of: [lamp], name: '' })),
    ],
    stimuli: [{ name: 'A slower clock', inputs: [{ part: clock, wave: slow }] }],
  });

  p.onSheet('Fourteen stages');
  const beat = p.place('clock', 0, 8, 'Clock', { hertz: 32_768 });
  const stages = Array.from({ length: 14 }, (_, i) =>
    p.place('tff', 14 + 16 * (i % 7), 8 + 22 * Math.floor(i / 7), `D_${i + 1}`, { edge: 'falling' }),
  );
  for (const [i, stage] of stages.entries()) {
    const one = p.place('constant', 6 + 16 * (i % 7), 6 + 22 * Math.floor(i / 7), '', { value: 1 });
    p.wire(`${one}.Y`, `${stage}.T`);
    p.wire(i === 0 ? `${beat}.Y` : `${stages[i - 1]}.Q`, `${stage}.C`);
  }
  const second = p.place('lamp', 122, 30, 'Second');
  p.wire(`${stages[13]}.Q`, `${second}.A`);
  p.note('Fourteen stages divide the beat of a watch: 32 768 Hz become 2 Hz.', 0, -4, 'large');
  p.onSheet('Ride timer').board().save('ride-timer.manege.json');
}

/** Visitors are added up at every clock, as long as the clock leaves the adder the time. */
function turnstileTotal(): void {
  const p = started('demo-turnstile-total', 'Turnstile total', 'Turnstile total', {
    delays: 'parts',
    buses: 'unsigned',
  });
  p.note('Turnstile total', 0, -7, 'title');
  p.note('At each clock the visitors who came in are added to the total.', 0, -3, 'normal');
  const visitors = p.place('switch', 4, 9, 'Visitors', { width: 8 });
  const sum = p.place('adder', 22, 12, '', { width: 8 });
  const total = p.place('register', 38, 12, 'Total', { width: 8 });
  const clock = p.place('clock', 24, 26, 'Clock', { hertz: 4e6 });
  const shown = p.place('number', 56, 12, 'Inside', { width: 8, radix: 'unsigned' });
  p.wire(`${visitors}.Y`, `${sum}.A`);
  const none = p.place('constant', 14, 16, '', { value: 0 });
  p.wire(`${none}.Y`, `${sum}.CI`);
  p.wire(`${sum}.S`, `${total}.D`);
  p.wire(`${total}.Q`, `${sum}.B`);
  p.wire(`${clock}.Y`, `${total}.C`);
  p.wire(`${total}.Q`, `${shown}.A`);
  const groups = { ...DEFAULT_WAVE, pattern: 'values' as const, data: '1 127 3 28 97 1', step: 250_000 };
  p.time({
    lanes: [
      { of: [clock], name: '' },
      { of: [visitors], name: '', radix: 'unsigned' },
      { of: [shown], name: '', radix: 'unsigned' },
    ],
    stimuli: [{ name: 'A busy morning', inputs: [{ part: visitors, wave: groups }] }],
    driven: 'A busy morning',
  });
  p.save('turnstile-total.manege.json');
}

/** Two queues, one platform: a selector of four NAND gates. */
function queueSelector(): void {
  const p = started('demo-queue-selector', 'Queue selector', 'Queue selector');
  p.write('Platform = (North nand (Turn nand Turn)) nand (South nand Turn)');
  p.note('Queue selector', 2, -4, 'title');
  p.note('While Turn is 0 the queue from the North goes on, then that from the South.', 2, 0, 'normal');
  p.board().save('queue-selector.manege.json');
}

const tableExpected: ExpectedTable = {
  kind: 'table',
  inputs: ['Key', 'Bars', 'Clear'],
  outputs: [
    { name: 'Drive', rows: '00000001' },
    { name: 'Warn', rows: '00001100' },
  ],
};

const warningLamp: Exercise = {
  id: 'demo-warning-lamp',
  title: 'Warning lamp',
  words: '',
  edition: 1,
  made: '2026-09-01T08:00:00.000Z',
  order: 'free',
  tasks: [
    {
      id: 'task1',
      kind: 'build',
      title: 'Warning lamp',
      words:
        'The carousel has a key switch **Key** and a switch **Bars** that is 1 while the safety bars are down; **Clear** is 1 while the platform is clear.\n\n' +
        '- **Drive** may be 1 only while the key is in, the bars are down *and* the platform is clear.\n' +
        '- **Warn** lights while the key is in and a bar is up.\n\n' +
        'Use only AND, OR and NOT.',
      points: 1,
      tells: 'wanted',
      tries: null,
      given: null,
      asked: { parts: ['and', 'or', 'not'], drawing: 'typed', blocks: [], limits: {}, standIn: null },
      key: tableExpected,
    },
  ],
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
ticketAdder();
organDrum();
queueSelector();
rideTimer();
turnstileTotal();
handIns();

const lessonAt = (file: string) =>
  expectDone(readLesson(readFileSync(new URL(`${file}.manege.json`, import.meta.url), 'utf8')));
for (const { file, exercise } of readySets(lessonAt('ticket-adder'), lessonAt('lamp-chase')))
  write(`sets/${file}.exercise.json`, writeExercise(exercise));
