/** @jest-environment jsdom */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { emptyLesson } from '@/core/circuit/lesson';
import type { Part } from '@/core/circuit/sheet';
import type { Wave } from '@/core/circuit/time-setup';
import { writeLesson } from '@/core/formats/write-lesson';
import { Stepper } from '@/core/logic/table/state-table';
import { sourceKey } from '@/core/netlist/netlist';
import { findKind, PLACEABLE } from '@/core/parts/catalogue';
import { readTyped } from '@/core/parts/typed';
import { updateDerived } from '@/core/synthesis/update-derived';
import { dice } from '@/core/testing/dice';
import { type Bit, PlainModel, type Word } from '@/core/testing/plain-model';
import { type Logic, letterOf } from '@/core/values/logic';
import { plainText } from '@/core/values/markup';
import { tidySheet } from '@/session/changes/arrange';
import { changeSettings, renameSheet } from '@/session/changes/lesson';
import { moveParts, relabel } from '@/session/changes/parts';
import { place } from '@/session/changes/place';
import { addSheet } from '@/session/changes/sheets';
import { typedLine } from '@/session/changes/statement';
import { putStimulus } from '@/session/changes/time';
import { colourWires } from '@/session/changes/wires';
import { Session } from '@/session/session';
import { randomGesture } from '@/session/testing/random-gesture';
import { table as tableCommand } from '../../cli/table';
import { Faces, type FacesRead } from './testing/read-faces';

/*
 * The drawing, the table, the state table, the diagram, the spoken words, the notes and the command line say the same of a
 * circuit at every moment: random sheets, edits, flips, rows, and time back and forth, each followed by reading all of
 * them and holding them against the plain model and against what the hand has done.
 */

const SHEETS = Number(process.env.SHEETS ?? 35);
const STEPS = 40;
const FIRST = Number(process.env.SEED ?? 1);

/** In these an unknown bit has several ways to an output: the engine may say X where the model knows better. */
const SEVERAL_WAYS = new Set(['adder', 'subtractor', 'comparator', 'encoder', 'counter', 'block']);
const BEGINNINGS = [
  ['Drive = Key and Bars'],
  ['Warn = Key xor ~Bars', 'Bell = Key or North'],
  ['clock 1Hz Clk', 'd Q', 'Q.C = Clk', 'Q.D = Next'],
  ['clock 1kHz Clk', 'jk Q', 'Q.C = Clk', 'Q.J = Up', 'Q.K = Down', 'Lit = Q.Q'],
  ['clock 1Hz Clk', 'counter 3 clear Stage', 'Stage.C = Clk', 'Stage.CLR = Reset'],
  ['sw Clk', 't Q', 'Q.C = Clk', 'Q.T = On', 'Lit = Q.Q and On'],
  ['d latch Kept', 'Kept.D = Horse', 'Kept.EN = Open', 'Lamp = Kept.Q'],
];
const NAMES = ['Key', 'Bars', 'North', 'South', 'Clear'];

/** One random walk over a session, with what its hand remembers. */
class Walk {
  readonly session = new Session(emptyLesson('walk', 'Walk'), { updateDerived });
  readonly faces = new Faces(this.session);
  /** Positions of switches by sheet: `part.bit`. */
  private readonly put = new Map<string, Map<string, 0 | 1>>();
  readonly wrong: string[] = [];
  steps: string[] = [];

  constructor(
    private readonly roll: () => number,
    private readonly folder: string,
  ) {}

  private whole = (least: number, most: number) => least + Math.floor(this.roll() * (most - least + 1));
  private one = <T,>(of: readonly T[]): T => of[Math.floor(this.roll() * of.length)]!;

  private get positions(): Map<string, 0 | 1> {
    const { rootId } = this.session.state;
    if (!this.put.has(rootId)) this.put.set(rootId, new Map());
    return this.put.get(rootId)!;
  }

  private type(line: string): void {
    const at = { x: this.whole(0, 60), y: this.whole(0, 60) };
    this.edit(`type “${line}”`, () => {
      const read = line.includes('=') ? null : readTyped(line, PLACEABLE);
      if (!read?.ok) void typedLine(this.session, line, at);
      else void place(this.session, read.value.kind, read.value.params, read.value.labels, at);
    });
  }

  begin(): void {
    for (const line of this.one(BEGINNINGS)) this.type(line);
  }

  /** An edit: parts that it brings begin at 0, whatever other parts have had their ids. */
  private edit(name: string, work: () => void): void {
    this.steps.push(name);
    const before = new Set(this.session.sheet.parts.keys());
    const sheet = this.session.state.rootId;
    const { undo, redo } = this.session.state.history;
    const known = new Set([...undo, ...redo].map(({ id }) => id));
    this.faces.do(work);
    const last = this.session.state.history.undo.at(-1)?.id;
    // Parts that an undo or redo brings back stand as they stood.
    const isBack = last === undefined || known.has(last);
    if (isBack || this.session.state.rootId !== sheet) return;
    for (const id of this.session.sheet.parts.keys())
      if (!before.has(id))
        for (const key of [...this.positions.keys()])
          if (key.startsWith(`${id}.`)) this.positions.delete(key);
  }

  /** An edit that cannot change what the circuit does: nothing of the moment may change with it. */
  private cosmetic(name: string, work: () => void): void {
    const { session } = this;
    const was = { ...session.state, trace: session.trace };
    this.edit(name, work);
    const is = session.state;
    if (is.rootId !== was.rootId) return;
    const kept = { tried: [...was.tried.keys()], now: was.now, cursor: was.cursor, on: [...was.on] };
    const now = { tried: [...is.tried.keys()], now: is.now, cursor: is.cursor, on: [...is.on] };
    if (JSON.stringify(kept) !== JSON.stringify(now))
      this.say(
        'moment lost by an edit that changes nothing',
        `${JSON.stringify(kept)} -> ${JSON.stringify(now)}`,
      );
    if (was.trace !== session.trace) this.say('diagram blanked by an edit that changes nothing', '');
  }

  private say(what: string, detail: string): void {
    this.wrong.push(`${what}: ${detail} after ${this.steps.slice(-6).join('; ')}`);
  }

  step(): void {
    const { session } = this;
    const parts = [...session.sheet.parts.values()];
    const some = this.one(parts);
    const hands: (() => void)[] = [
      () => this.flip(),
      () => this.flip(),
      () => this.flip(),
      () => this.row(),
      () => this.row(),
      () =>
        this.type(
          `${this.one(['Lamp', 'Bell', 'Out'])} = ${this.one(NAMES)} ${this.one(['and', 'or', 'xor'])} ${this.one(NAMES)}`,
        ),
      () =>
        this.type(this.one(['and', 'nor', 'sw Spare', 'lamp', 'number signed', 'd', 'counter 2', 'truth'])),
      () => this.edit('gesture', () => void randomGesture(session, this.roll, 14)),
      () => this.edit('gesture', () => void randomGesture(session, this.roll, 14)),
      () => this.edit('undo', () => void session.undo()),
      () => this.edit('redo', () => void session.redo()),
      () => this.cosmetic('tidy', () => void tidySheet(session)),
      () =>
        this.cosmetic(
          'truth note',
          () => void place(session, findKind('truth')!, {}, [''], { x: 90, y: 90 }),
        ),
      () => some && this.cosmetic('move', () => void moveParts(session, new Set([some.id]), { x: 0, y: 2 })),
      () => this.cosmetic('colour', () => void colourWires(session, 'teal')),
      () =>
        this.cosmetic(
          'rename',
          () => void renameSheet(session, session.state.rootId, this.one(['Ring', 'Drum'])),
        ),
      () =>
        some?.kind === 'and' &&
        this.cosmetic('label', () => void relabel(session, some.id, this.one(['G1', '']))),
      () => this.other(),
      () => this.other(),
      () => this.stimulus(),
      () => this.time('half', () => session.time.stepHalf()),
      () => this.time('half', () => session.time.stepHalf()),
      () => this.time('event', () => session.time.stepEvent()),
      () => this.time('event back', () => session.time.stepEvent(true)),
      () => this.time('to a time', () => session.time.goToTime(session.state.now * this.roll())),
      () => this.time('to now', () => session.time.goToTime(session.state.now)),
      () => this.time('power-up', () => session.time.restart()),
      () =>
        this.edit(
          'radix',
          () => void changeSettings(session, 'radix', { buses: this.one(['unsigned', 'signed', 'binary']) }),
        ),
    ];
    this.one(hands)();
  }

  private flip(): void {
    const { session } = this;
    const switches = [...session.sheet.parts.values()].filter(
      ({ kind, params }) => kind === 'switch' || (kind === 'port' && params.direction === 'in'),
    );
    const part = this.one(switches);
    if (!part || session.state.netlist.sources.some((s) => s.part === part.id && s.kind === 'stimulus'))
      return;
    const bit = this.whole(0, Number(part.params.width) - 1);
    const key = `${part.id}.${bit}`;
    const isZero = session.state.lesson.settings.delays === 'zero';
    const model = isZero && session.state.cursor === null ? this.model() : null;
    this.steps.push(`flip ${part.label || part.id}.${bit}`);
    const was = this.positions.get(key) ?? 0;
    this.positions.set(key, was ? 0 : 1);
    this.faces.do(() => session.flip(part.id, bit));
    if (!model || session.state.cursor !== null) return;
    const word = [...this.sourceWords().get(part.id)!];
    model.put(new Map([[part.id, word]]));
    this.compareStored(model, 'a flip');
  }

  private row(): void {
    const { session } = this;
    if (session.state.table.state !== 'ready') return;
    const { netlist } = session.state;
    const count = netlist.inputColumns.length;
    if (
      netlist.inputColumns.some((c) =>
        netlist.sources.some((s) => s.kind === 'stimulus' && s.part === c.part),
      )
    )
      return;
    const row = this.whole(0, 2 ** count - 1);
    this.steps.push(`row ${row}`);
    for (const [i, { part, bit }] of netlist.inputColumns.entries())
      this.positions.set(`${part}.${bit}`, ((row >> (count - 1 - i)) & 1) as 0 | 1);
    this.faces.do(() => session.goToRow(row));
  }

  private other(): void {
    const { session } = this;
    const { sheets } = session.state.lesson;
    if (sheets.length < 3 && this.roll() < 0.5) {
      this.edit('another sheet', () => void addSheet(session));
      this.begin();
      return;
    }
    const to = this.one(sheets);
    this.steps.push(`open ${to.id}`);
    this.faces.do(() => session.openSheet(to.id));
  }

  private stimulus(): void {
    const { session } = this;
    const inputs = session.state.netlist.inputs.filter(
      (t) => session.sheet.parts.get(t.part)?.kind === 'switch',
    );
    const input = this.one(inputs);
    if (!input || session.state.path.length > 0) return;
    const data = this.one(['0110', '10', '0011']);
    const wave: Wave = { ...DEFAULT, data, step: this.one([250_000_000, 250_000_000_000]) };
    const one = { name: 'One', inputs: [{ part: input.part, wave }] };
    this.edit(`stimulus at ${input.name}`, () => void putStimulus(session, one, 'put a stimulus'));
  }

  /** A step of time. With clocks alone and no delays, what is stored after half a period follows from the plain model. */
  private time(name: string, work: () => void): void {
    const { session } = this;
    const { cursor, lesson, netlist } = session.state;
    const isPlain = cursor === null && lesson.settings.delays === 'zero';
    const isClocked = !netlist.sources.some(({ kind }) => kind === 'stimulus');
    const model = name === 'half' && isPlain && isClocked ? this.model() : null;
    const was = this.sourceWords();
    this.steps.push(name);
    this.faces.do(work);
    if (!model || session.state.cursor !== null) return;
    model.put(
      new Map([...this.sourceWords()].filter(([part, word]) => word.join() !== was.get(part)?.join())),
    );
    this.compareStored(model, 'a clock edge');
  }

  /** Words of the sources as they stand at the moment that is shown. */
  private sourceWords(): Map<string, Word> {
    const { netlist, values } = this.session.state;
    return new Map(
      netlist.inputs.map(({ part, nets }) => [
        part,
        nets.map((net) => letterOf(values[net] as Logic) as Bit),
      ]),
    );
  }

  /** The plain model at the moment that is shown; null for a circuit that it does not settle. */
  private model(): PlainModel | null {
    const { state, sheet, time } = this.session;
    const told = new Set(state.netlist.diagnostics.map((d) => d.code));
    if (
      ['loop', 'width-mismatch', 'recursion', 'unknown-block', 'missing-port'].some((code) =>
        told.has(code as never),
      )
    )
      return null;
    if (time.run.unsettled.size > 0) return null;
    const model = new PlainModel(state.lesson, sheet, this.sourceWords());
    const stored = new Map<string, Bit[]>();
    for (const [i, name] of [...time.run.held().keys()].entries()) {
      const part = /^(?:.*\/)?[^.]+/.exec(name)![0];
      const net = state.netlist.out[state.netlist.storage[i]!]!;
      stored.set(part, [...(stored.get(part) ?? []), letterOf(state.values[net] as Logic) as Bit]);
    }
    model.putStored(stored);
    return model;
  }

  private compareStored(model: PlainModel, what: string): void {
    const is = this.model();
    if (!is || this.isVague()) return;
    for (const part of model.stores)
      if (model.stored(part).join('') !== is.stored(part).join(''))
        this.say(
          `stored otherwise by ${what}`,
          `${part} ${model.stored(part).join('')}, not ${is.stored(part).join('')}`,
        );
  }

  private isVague = () => [...this.session.sheet.parts.values()].some(({ kind }) => SEVERAL_WAYS.has(kind));

  /** Reads all faces and holds them against the model. */
  check(): void {
    const { session } = this;
    const { state } = session;
    if (state.path.length > 0) return;
    const read = this.faces.read();
    this.checkSources();
    const isSettled = state.lesson.settings.delays === 'zero';
    const model = isSettled ? this.model() : null;
    if (model) {
      this.checkDrawing(read, model);
      this.checkTable(read, model);
      this.checkWords(read, model);
      this.checkRecovered();
      // Last: it lets a clock edge come.
      this.checkStates(read, model);
    }
    this.checkTime(read);
  }

  private agrees(shown: string, right: string): boolean {
    if (shown === right) return true;
    return this.isVague() && [...right].every((b, i) => shown[i] === b || shown[i] === 'X');
  }

  private checkSources(): void {
    const { netlist, on, values, cursor } = this.session.state;
    for (const source of netlist.sources) {
      const kind = this.session.sheet.parts.get(source.part)?.kind ?? '';
      if (!['switch', 'button', 'port'].includes(kind) || source.kind === 'stimulus') continue;
      const right = this.positions.get(`${source.part}.${source.bit}`) ?? 0;
      if (on.has(sourceKey(source)) !== (right === 1))
        this.say('switch that nobody moved', `${source.part}.${source.bit} stands at ${right ? 0 : 1}`);
      else if (cursor === null && values[source.net] !== right)
        this.say('switch drawn otherwise than it stands', `${source.part}.${source.bit}`);
    }
  }

  private checkDrawing({ wires }: FacesRead, model: PlainModel): void {
    for (const [id, shown] of wires) {
      const right = model.wire(id);
      if (right.length !== 1 || right[0] === undefined || shown === '') continue;
      if (![...shown].some((letter) => this.agrees(letter, right[0]!)))
        this.say('wire painted in another value', `${id} ${shown}, not ${right[0]}`);
    }
  }

  private outputsOf(model: PlainModel): string {
    return this.session.state.netlist.outputColumns
      .map(({ part, bit }) => this.pinOf(model, part)[bit])
      .join('');
  }

  /** The bits that an output shows. */
  private pinOf(model: PlainModel, part: string): Word {
    const { kind } = this.session.sheet.parts.get(part)!;
    return kind === 'segments' ? [...'abcdefg'].map((pin) => model.pin(part, pin)[0]!) : model.pin(part, 'A');
  }

  private checkTable(read: FacesRead, model: PlainModel): void {
    const { state } = this.session;
    if (state.table.state !== 'ready') return;
    const { inputColumns } = state.netlist;
    const words = this.sourceWords();
    const row = inputColumns.reduce(
      (sum, { part, bit }) => 2 * sum + (words.get(part)![bit] === '1' ? 1 : 0),
      0,
    );
    const live = read.table?.filter(({ isLive }) => isLive) ?? [];
    const outputs = this.outputsOf(model);
    const shown = live[0]?.cells.slice(1).join('');
    const right = row.toString(2).padStart(inputColumns.length, '0');
    const isShown = read.table?.some((r) => r.row === row);
    if (isShown && (live.length !== 1 || live[0]!.row !== row))
      this.say('table marks another row', `${live[0]?.row}, not ${row}`);
    else if (live[0] && !this.agrees(shown!, (inputColumns.length ? right : '') + outputs))
      this.say('table row says otherwise than the drawing', `${shown}, not ${right}${outputs}`);
    if (read.moment.startsWith('Row') && !read.moment.includes(`Row ${row} `))
      this.say('the bar tells another row', `${read.moment}, not ${row}`);
    if (read.noted !== null && read.noted !== row)
      this.say('the note marks another row', `${read.noted}, not ${row}`);
    for (const [tried, letters] of state.tried) {
      const inRow = read.table?.find((r) => r.row === tried);
      if (!inRow) continue;
      if (inRow.cells[0] !== '●') this.say('a tried row is not marked', `${tried}`);
      const said = inRow.cells
        .slice(1)
        .join('')
        .slice(-letters.length || undefined);
      if (letters.length > 0 && said !== letters)
        this.say('a tried row has other outputs', `${tried}: ${letters}, not ${said}`);
    }
  }

  private checkStates({ states, stateHeads }: FacesRead, model: PlainModel): void {
    if (!states) return;
    const { netlist } = this.session.state;
    const stepper = Stepper.of(netlist);
    if (!stepper.ok) {
      this.say('state table without a next edge', stepper.problem.message);
      return;
    }
    const { columns } = stepper.value;
    const bits = stepper.value.nets.length;
    const live = states.find(({ isLive }) => isLive);
    const letters = [...stepper.value.nets, ...columns.map((c) => c.nets[0])].map((net) =>
      letterOf(this.session.state.values[net] as Logic),
    );
    if (!live) {
      if (
        letters.every((l) => l === '0' || l === '1') &&
        states.some((s) => s.cells.slice(0, letters.length).join('') === letters.join(''))
      )
        this.say('state table marks no row', letters.join(''));
      return;
    }
    const shown = live.cells.slice(0, letters.length).join('');
    if (shown !== letters.join(''))
      this.say('state table marks another state than is drawn', `${shown}, not ${letters.join('')}`);
    if (stateHeads.some((head) => /^(jkff|dff|tff|srff)\d/.test(head)))
      this.say('state table headed by ids', stateHeads.join());
    const clock = netlist.inputs.find(({ part }) => !columns.some((c) => c.part === part));
    const parts = [...this.session.sheet.parts.values()];
    if (clock?.nets.length !== 1 || parts.some(({ params }) => params.edge === 'falling')) return;
    model.put(new Map([[clock.part, ['0']]]));
    const before = model.stores.map((part) => model.stored(part).join('')).join();
    const outputs = this.outputsOf(model);
    if (!this.agrees(live.cells.slice(letters.length + bits).join(''), outputs))
      this.say(
        'state table has other outputs',
        `${live.cells.slice(letters.length + bits).join('')}, not ${outputs}`,
      );
    model.put(new Map([[clock.part, ['1']]]));
    const isKept = before === model.stores.map((part) => model.stored(part).join('')).join();
    const next = live.cells.slice(letters.length, letters.length + bits).join('');
    const now = live.cells.slice(0, bits).join('');
    if (!this.isVague() && (next === now) !== isKept)
      this.say('state table has another next state', `${now} -> ${next}`);
  }

  private checkWords({ words }: FacesRead, model: PlainModel): void {
    const { lesson, netlist } = this.session.state;
    // What a part drives against others is not what comes of it on the wire.
    const tied = new Set(
      netlist.diagnostics.filter((d) => d.code === 'outputs-tied').flatMap((d) => d.pins.map((p) => p.part)),
    );
    for (const part of this.session.sheet.parts.values()) {
      const said = words.get(part.id);
      if (said === undefined || this.isVague() || tied.has(part.id)) continue;
      const right = spokenValue(part, model, String(part.params.radix ?? lesson.settings.buses));
      if (right !== null && !said.includes(right))
        this.say('spoken otherwise than it is drawn', `${said}: no “${right}”`);
    }
  }

  /** Storage that power-up and the inputs make known is not left unknown by how the circuit came about. */
  private checkRecovered(): void {
    const { state, time } = this.session;
    const last = this.steps.at(-1)!;
    if (!/^type|^gesture/.test(last) || time.run.trace.length > 0 || state.cursor !== null || this.isVague())
      return;
    const fresh = new PlainModel(state.lesson, this.session.sheet, this.sourceWords());
    for (const [name, value] of time.run.held()) {
      const part = /^(?:.*\/)?[^.]+/.exec(name)![0];
      const word = fresh.stored(part);
      if (value > 1 && word.length === 1 && word[0] !== 'X')
        this.say('storage stays unknown after it was wired', name);
    }
  }

  private checkTime({ lanes }: FacesRead): void {
    const { state } = this.session;
    const at = state.cursor ?? state.now;
    for (const { part, nets } of [...state.netlist.inputs, ...state.netlist.outputs]) {
      const shown = lanes.get(part);
      if (shown === undefined) continue;
      const right = [...nets]
        .reverse()
        .map((net) => letterOf(state.values[net] as Logic))
        .join('');
      if (shown !== right)
        this.say('the diagram says otherwise than the drawing', `${part} at ${at}: ${shown}, not ${right}`);
    }
  }

  /** The command line on the lesson as it is kept. */
  async checkCommandLine(read: FacesRead): Promise<void> {
    const { state } = this.session;
    if (state.path.length > 0 || !(read.table ?? read.states)) return;
    const file = path.join(this.folder, 'walk.lesson.json');
    const out = path.join(this.folder, 'walk.csv');
    writeFileSync(file, writeLesson(state.lesson));
    await tableCommand(file, {
      format: 'csv',
      out,
      sheet: state.rootId,
    } as never);
    const lines = readFileSync(out, 'utf8')
      .trim()
      .split(/\r?\n/)
      .map((line) => line.split(','));
    const heads = (read.table ? read.tableHeads.slice(2) : read.stateHeads).join();
    const written = lines[0]!.map(plainText).join();
    if (written !== heads) this.say('the command line has other headings', `${written}, not ${heads}`);
    const rows = lines.slice(1).map((cells) => cells.join(''));
    for (const { row, cells } of read.table ?? read.states ?? []) {
      const shown = (read.table ? cells.slice(1) : cells).join('');
      if (read.table && state.netlist.inputColumns.length === 0) continue;
      if (rows[row] !== shown)
        this.say('the command line says otherwise than the table', `row ${row}: ${rows[row]}, not ${shown}`);
    }
  }
}

const DEFAULT: Wave = {
  pattern: 'bits',
  data: '',
  step: 1000,
  high: 500,
  phase: 0,
  first: 'most',
  repeat: true,
  endsAtZero: false,
  place: 0,
  seed: 1,
};

/** What is said of a part's value; null for one of which nothing simple is said. */
function spokenValue({ id, kind, params }: Part, model: PlainModel, radix: string): string | null {
  const number = (word: Word): string => {
    if (word.length === 1) return word[0]!;
    if (!word.every((b) => b === '0' || b === '1')) return '';
    const value = word.reduce((sum, b, i) => sum + (b === '1' ? 2 ** i : 0), 0);
    if (radix === 'signed') return String(value >= 2 ** (word.length - 1) ? value - 2 ** word.length : value);
    return radix === 'unsigned' ? String(value) : '';
  };
  if (kind === 'number') return number(model.pin(id, 'A'));
  if (['and', 'or', 'nor', 'xor', 'not', 'nand'].includes(kind))
    return params.width === 1 ? `output ${model.pin(id, 'Y')[0]}` : null;
  if (['dff', 'jkff', 'tff', 'dlatch'].includes(kind)) return `Q is ${model.pin(id, 'Q')[0]}`;
  return null;
}

test('all faces say the same of random circuits at every moment', async () => {
  // What is fetched late comes when it comes.
  jest.spyOn(console, 'error').mockImplementation(() => {});
  const folder = mkdtempSync(path.join(tmpdir(), 'walk-'));
  const kinds = new Map<string, string>();
  for (let seed = FIRST; seed < FIRST + SHEETS; seed++) {
    const walk = new Walk(dice(seed * 7919), folder);
    walk.begin();
    walk.check();
    for (let i = 0; i < STEPS; i++) {
      walk.step();
      walk.check();
      if (i % 10 === 9) await walk.checkCommandLine(walk.faces.read());
    }
    for (const wrong of walk.wrong) {
      const kind = wrong.split(':')[0]!;
      if (!kinds.has(kind)) kinds.set(kind, `seed ${seed}: ${wrong}`);
    }
    walk.faces.close();
  }
  rmSync(folder, { recursive: true });
  expect([...kinds.values()]).toEqual([]);
}, 1_800_000);
