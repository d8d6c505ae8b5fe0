import { createStore, type StoreApi } from 'zustand/vanilla';
import { apply, applyWithInverse, type Edit, type Effect, effectOf } from '@/core/circuit/edit';
import { type Lesson, type Part, type Sheet, sheetOf } from '@/core/circuit/lesson';
import type { Stimulus } from '@/core/circuit/time-plan';
import { inputAt, truthTable, whyNoTable } from '@/core/logic/truth-table';
import { compile, compileOnce } from '@/core/netlist/compile';
import { type Netlist, type SheetNets, sourceKey } from '@/core/netlist/netlist';
import { kindOf } from '@/core/parts/catalogue';
import { conflictsOf } from '@/core/simulate/conflicts';
import { drivenBy, drivingOf } from '@/core/simulate/drive';
import type { Violation } from '@/core/simulate/run';
import { type Logic, letterOf } from '@/core/values/logic';
import { sentence } from '@/core/values/result';
import { type Bench, Clockwork, delaysOf } from './clockwork';
import { EMPTY_HISTORY, type History, noted, redone, undone } from './history';
import { fittingPace, isTimed, rowNow } from './moment';
import {
  type Beginning,
  type Follow,
  type Keeper,
  NOTHING,
  type Notice,
  type Selection,
  type SessionState,
  type TableMaker,
} from './state';
import { troublesNow } from './troubles';

/** Tables of up to this many inputs are derived between two frames; larger ones by a worker. */
const TABLE_AT_ONCE = 12;
/** Whether anything in a lesson follows what is changed elsewhere: blocks, or tables and formulas on a sheet. */
function hasFollowers(lesson: Lesson): boolean {
  for (const sheet of lesson.sheets) for (const part of sheet.parts.values()) if (follows(part)) return true;
  return false;
}

/** Whether what follows comes with the edit itself. */
function bringsFollower(edit: Edit): boolean {
  if (edit.type === 'group') return edit.edits.some(bringsFollower);
  if (edit.type === 'addSheet') return [...edit.sheet.parts.values()].some(follows);
  return edit.type === 'addPart' && follows(edit.part);
}

const FOLLOWERS = ['block', 'truth', 'formula'];
const follows = (part: Part) => FOLLOWERS.includes(part.kind);

/**
 * One open lesson: the document with its history, the selection, and the running circuit of the sheet that is
 * shown. All faces read `store`; everything that changes goes through a method here.
 */
export class Session {
  readonly store: StoreApi<SessionState>;
  /** The running circuit of the root sheet, and how time passes in it. */
  readonly time: Clockwork;
  private tableWork = 0;
  /** State that is set but not yet shown, while one change is worked out. */
  private pending: SessionState | null = null;
  private depth = 0;
  private follow: Follow | null = null;
  private driving: Stimulus | null = null;

  constructor(
    lesson: Lesson,
    private keeper: Keeper | null = null,
    private readonly makeTable: TableMaker | null = null,
    beginning: Beginning = {},
  ) {
    const sheetId = sheetOf(lesson, beginning.sheetId ?? '')?.id ?? lesson.sheets[0]!.id;
    const sheet = sheetOf(lesson, sheetId)!;
    const netlist = drivenBy(compileOnce(sheet, lesson.sheets), drivingOf(sheet.time));
    this.driving = drivingOf(sheet.time);
    const on = new Set(beginning.on ?? []);
    this.time = new Clockwork(this.bench(), lesson, netlist, on);
    this.store = createStore<SessionState>(() => ({
      lesson,
      rootId: sheetId,
      path: [],
      sheetId,
      view: netlist,
      selection: NOTHING,
      history: EMPTY_HISTORY,
      netlist,
      table: { state: 'none', reason: '' },
      values: this.time.run.values.slice(),
      conflicts: new Set(),
      diagnostics: [],
      on,
      tried: new Map(beginning.tried ?? []),
      now: 0,
      cursor: null,
      playing: false,
      pace: fittingPace(netlist, delaysOf(lesson)),
      behind: 0,
      goal: null,
      readOnly: beginning.readOnly ?? false,
      notice: null,
      looks: { times: 0, onlyIfHidden: false },
    }));
    this.show();
    this.deriveTable();
  }

  get state(): SessionState {
    return this.pending ?? this.store.getState();
  }

  private bench(): Bench {
    const session = this;
    return {
      get state() {
        return session.state;
      },
      set: (change) => this.set(change),
      together: (work) => this.together(work),
      show: () => this.show(),
      say: (text) => this.say(text),
      note: (row) => this.note(row),
    };
  }

  private set(change: Partial<SessionState>): void {
    if (this.depth > 0) this.pending = { ...this.state, ...change };
    else this.store.setState(change);
  }

  /** Takes all that is set on the way to the faces at once, so that they are painted once. */
  private together<T>(work: () => T): T {
    this.depth++;
    try {
      return work();
    } finally {
      if (--this.depth === 0 && this.pending) {
        const { pending } = this;
        this.pending = null;
        this.store.setState(pending, true);
      }
    }
  }

  get sheet(): Sheet {
    return sheetOf(this.state.lesson, this.state.sheetId)!;
  }

  /** Setup and hold times that were missed so far. */
  get violations(): readonly Violation[] {
    return this.time.run.violations;
  }

  /** When the next thing is going to happen, in ps; Infinity where everything is at rest. */
  get nextEvent(): number {
    return this.time.run.next();
  }

  /** The trace of the run, for the time face. */
  get trace() {
    return this.time.run.trace;
  }

  setKeeper(keeper: Keeper | null): void {
    this.keeper = keeper;
  }

  /**
   * Makes an edit: one step of undo. It is handed to the journal before this returns.
   * @returns whether it was made; if not, a notice says why.
   */
  edit(edit: Edit): boolean {
    const { lesson } = this.state;
    const applied = hasFollowers(lesson) || bringsFollower(edit) ? apply(lesson, edit) : null;
    if (!applied?.ok) return this.make(edit, (history, inverse) => noted(history, inverse));
    if (!this.follow) {
      // It is fetched where it is needed at all; the edit is made as soon as it is there.
      void this.fetchFollow().then((follow) => {
        this.follow = follow;
        this.edit(edit);
      });
      return true;
    }
    const { edits, wiresLost } = this.follow(applied.value);
    const whole: Edit = edits.length > 0 ? { type: 'group', edits: [edit, ...edits] } : edit;
    const made = this.make(whole, (history, inverse) => noted(history, inverse));
    if (made && wiresLost > 0)
      this.say(
        `${wiresLost} ${wiresLost === 1 ? 'wire' : 'wires'} hung on a port that its block no longer has, and went with it.`,
        'calm',
        () => this.undo(),
      );
    return made;
  }

  /** Gives what blocks and living notes need once an edit has been made. */
  setFollow(follow: Follow): void {
    this.follow = follow;
  }

  private fetchFollow(): Promise<Follow> {
    return import('@/core/synthesis/follow').then((m) => m.follow);
  }

  undo(): void {
    const last = this.state.history.undo.at(-1);
    if (last) this.make(last, undone);
  }

  redo(): void {
    const last = this.state.history.redo.at(-1);
    if (last) this.make(last, redone);
  }

  private make(edit: Edit, remember: (history: History, inverse: Edit) => History): boolean {
    const { lesson, readOnly, history } = this.state;
    if (readOnly) {
      this.say('This lesson cannot be changed here.', 'bad');
      return false;
    }
    const applied = applyWithInverse(lesson, edit);
    if (!applied.ok) {
      this.say(`That does not work: ${applied.problem.message}.`, 'bad');
      return false;
    }
    const { inverse } = applied.value;
    this.keeper?.edit(edit);
    const effect = effectOf(lesson, edit, (kind) => kindOf({ kind }).family === 'Notes');
    this.together(() => this.adopt(applied.value.lesson, remember(history, inverse), effect));
    return true;
  }

  private adopt(lesson: Lesson, history: History, effect: Effect): void {
    const before = this.state;
    const root = sheetOf(lesson, before.rootId) ?? lesson.sheets[0]!;
    const { path, sheet } = walked(lesson, root, before.path);
    const selection = {
      parts: kept(before.selection.parts, sheet.parts),
      wires: kept(before.selection.wires, sheet.wires),
    };
    this.set({ lesson, rootId: root.id, path, sheetId: sheet.id, history, selection });
    if (effect === 'behaviour' || root.id !== before.rootId) this.rewire(root, true);
    else if (effect === 'names') this.rename(root);
  }

  /** The circuit is another one: it goes on with the same switches and held states at the same time. */
  private rewire(sheet: Sheet, sameSheet: boolean): void {
    const { lesson, on } = this.state;
    const driving = drivingOf(sheet.time);
    const netlist = drivenBy(compile(sheet, lesson.sheets), driving);
    const delays = delaysOf(lesson);
    // Another stimulus begins at its beginning.
    const stay = sameSheet && isTimed(netlist, delays) && driving?.inputs === this.driving?.inputs;
    this.driving = driving;
    this.time.begin(lesson, netlist, on, stay ? this.time.run : undefined);
    this.set({
      netlist,
      view: this.viewIn(netlist),
      tried: new Map(),
      cursor: null,
      now: this.time.run.time,
      pace: fittingPace(netlist, delays),
      playing: this.state.playing && isTimed(netlist, delays),
      goal: null,
    });
    this.show();
    this.deriveTable();
  }

  /** Only names or order changed: nets stay as they are numbered, the run goes on. */
  private rename(sheet: Sheet): void {
    const before = this.state.netlist;
    const netlist = drivenBy(compile(sheet, this.state.lesson.sheets), drivingOf(sheet.time));
    this.set({ netlist, view: this.viewIn(netlist) });
    const sameOrder = same(netlist.inputColumns, before.inputColumns, (c) => sourceKey(c));
    this.set({ tried: sameOrder ? this.seenAs(before, netlist) : new Map() });
    const columns = (n: Netlist) => [...n.inputColumns, ...n.outputColumns];
    const sameNames =
      sameOrder && same(columns(netlist), columns(before), (c) => `${sourceKey(c)} ${c.name}`);
    this.show();
    if (!sameNames) this.deriveTable();
  }

  /** What was seen, where outputs may stand in another order now. */
  private seenAs(before: Netlist, after: Netlist): ReadonlyMap<number, string> {
    const { tried } = this.state;
    const keys = before.outputColumns.map((c) => sourceKey(c));
    const places = after.outputColumns.map((c) => keys.indexOf(sourceKey(c)));
    if (places.length === keys.length && places.every((at, i) => at === i)) return tried;
    return new Map([...tried].map(([row, seen]) => [row, places.map((at) => seen[at] ?? 'X').join('')]));
  }

  /** Takes the run's values, or those of the past under the cursor, to all faces. */
  private show(): void {
    const { netlist, cursor, rootId, sheetId, path } = this.state;
    const values = cursor === null ? this.time.run.values.slice() : this.time.run.trace.stateAt(cursor);
    const found = conflictsOf(netlist, values);
    const conflicts = new Set(found.map((c) => c.net));
    const diagnostics = [
      ...netlist.diagnostics.filter((d) => d.severity === 'problem' && (d.inside ?? rootId) === sheetId),
      ...(path.length === 0 ? troublesNow(this.time.run, values, this.sheet, found) : []),
    ];
    this.set({ values, now: this.time.run.time, conflicts, diagnostics });
    this.keeper?.moment(this.state);
  }

  private deriveTable(): void {
    const { netlist } = this.state;
    const work = ++this.tableWork;
    const reason = whyNoTable(netlist);
    if (reason) {
      this.set({ table: { state: 'none', reason: sentence(reason) } });
      return;
    }
    if (netlist.inputColumns.length <= TABLE_AT_ONCE || !this.makeTable) {
      this.set({ table: { state: 'ready', table: truthTable(netlist) } });
      return;
    }
    const current = () => work === this.tableWork;
    const made = this.makeTable(
      sheetOf(this.state.lesson, this.state.rootId)!,
      this.state.lesson.sheets,
      (share) => {
        if (current()) this.set({ table: { state: 'working', share, cancel } });
      },
    );
    const cancel = () => {
      made.cancel();
      if (current())
        this.set({
          table: { state: 'none', reason: 'Stopped. The next change derives it again.' },
        });
    };
    this.set({ table: { state: 'working', share: 0, cancel } });
    made.table.then(
      (table) => current() && this.set({ table: { state: 'ready', table } }),
      (error: Error) =>
        current() && this.set({ table: { state: 'none', reason: `No table: ${error.message}` } }),
    );
  }

  select(selection: Selection): void {
    this.set({ selection });
  }

  openSheet(sheetId: string): void {
    this.together(() => {
      const sheet = sheetOf(this.state.lesson, sheetId);
      if (!sheet || (sheetId === this.state.rootId && this.state.path.length === 0)) return;
      const runs = sheetId === this.state.rootId;
      this.set({ rootId: sheetId, path: [], sheetId, selection: NOTHING });
      if (runs) this.look();
      else {
        this.set({ playing: false });
        this.rewire(sheet, false);
      }
    });
  }

  /** Shows what is inside a block of the shown sheet, while the circuit around it runs on. */
  enter(block: string): void {
    const part = this.sheet.parts.get(block);
    const inside = part?.kind === 'block' && sheetOf(this.state.lesson, part.params.sheet as string);
    if (!inside || !this.state.netlist.at([...this.state.path, block].join('/'))) {
      this.say('There is nothing inside this block: its sheet is not in the lesson, or holds itself.', 'bad');
      return;
    }
    this.together(() => {
      this.set({ path: [...this.state.path, block], sheetId: inside.id, selection: NOTHING });
      this.look();
    });
  }

  /** Back out of blocks, to the given number of them. */
  leave(depth: number): void {
    this.together(() => {
      const root = sheetOf(this.state.lesson, this.state.rootId)!;
      const { path, sheet } = walked(this.state.lesson, root, this.state.path.slice(0, depth));
      this.set({ path, sheetId: sheet.id, selection: NOTHING });
      this.look();
    });
  }

  /** The same run, seen in another place. */
  private look(): void {
    this.set({ view: this.viewIn(this.state.netlist) });
    this.show();
  }

  private viewIn(netlist: Netlist): SheetNets {
    const { path } = this.state;
    return path.length === 0 ? netlist : (netlist.at(path.join('/')) ?? netlist);
  }

  /**
   * Shows all of the sheet, where much of it is new.
   * @param onlyIfHidden whether the view stays where what is selected is in sight anyhow.
   */
  lookAtAll(onlyIfHidden = false): void {
    this.set({ looks: { times: this.state.looks.times + 1, onlyIfHidden } });
  }

  say(text: string, tone: Notice['tone'] = 'calm', undo?: () => void): void {
    this.set({ notice: { text, tone, undo } });
  }

  dismissNotice(): void {
    this.set({ notice: null });
  }

  /** Puts switches and buttons to new positions at once, at the present. */
  put(positions: Iterable<readonly [key: string, value: 0 | 1]>): void {
    this.together(() => {
      const { netlist } = this.state;
      const on = new Set(this.state.on);
      const changes: [number, Logic][] = [];
      let isDriven = false;
      for (const [key, value] of positions) {
        const source = netlist.sources.find(
          (s) => sourceKey(s) === key && (s.kind === 'switch' || s.kind === 'button' || s.kind === 'port'),
        );
        if (!source) {
          isDriven ||= netlist.sources.some((s) => s.kind === 'stimulus' && sourceKey(s) === key);
          continue;
        }
        if (value) on.add(key);
        else on.delete(key);
        changes.push([source.net, value]);
      }
      if (isDriven && changes.length === 0) {
        this.say('A stimulus drives this input now. Choose “by hand” on the time face to move it yourself.');
        return;
      }
      this.time.run.set(changes);
      this.set({ on, cursor: null });
      this.time.goOn();
      if (this.state.table.state === 'ready') this.note(rowNow(netlist, this.time.run.values));
      this.show();
    });
  }

  /** Writes down what the outputs show in a row; while signals are under way that may change again. */
  private note(row: number): void {
    const { netlist, tried } = this.state;
    const seen = netlist.outputColumns
      .map((c) => letterOf(this.time.run.values[c.nets[0]] as Logic))
      .join('');
    if (tried.get(row) !== seen) this.set({ tried: new Map(tried).set(row, seen) });
  }

  /** The key among `on` of a part of the sheet that is shown. */
  keyOf(part: string, bit = 0): string {
    return sourceKey({ part: [...this.state.path, part].join('/'), bit });
  }

  /** The switch or button on the shown sheet that a key is bound to. */
  boundTo(key: string): Part | null {
    if (key.length !== 1) return null;
    const letter = key.toLowerCase();
    for (const part of this.sheet.parts.values())
      if (typeof part.params.key === 'string' && part.params.key.toLowerCase() === letter) return part;
    return null;
  }

  flip(part: string, bit = 0): void {
    const key = this.keyOf(part, bit);
    this.put([[key, this.state.on.has(key) ? 0 : 1]]);
  }

  /** Sets the inputs as in a row of the table; an input that is a clock stays where it is. */
  goToRow(row: number): void {
    const { inputColumns } = this.state.netlist;
    this.put(inputColumns.map((t, i) => [sourceKey(t), inputAt(inputColumns.length, i, row)] as const));
  }

  stepRow(by: number): void {
    const { netlist, table } = this.state;
    if (table.state !== 'ready') return;
    const { rows } = table.table;
    this.goToRow((rowNow(netlist, this.time.run.values) + by + rows) % rows);
  }
}

function kept(ids: ReadonlySet<string>, there: { has(id: string): boolean }): ReadonlySet<string> {
  return [...ids].every((id) => there.has(id)) ? ids : new Set([...ids].filter((id) => there.has(id)));
}

function same<T>(a: readonly T[], b: readonly T[], key: (of: T) => string): boolean {
  return a.length === b.length && a.every((of, i) => key(of) === key(b[i]!));
}

/** Goes from a sheet into its blocks as far as they are there. */
function walked(lesson: Lesson, root: Sheet, path: readonly string[]): { path: string[]; sheet: Sheet } {
  const gone: string[] = [];
  let sheet = root;
  for (const block of path) {
    const part = sheet.parts.get(block);
    const inside = part?.kind === 'block' ? sheetOf(lesson, part.params.sheet as string) : undefined;
    if (!inside) break;
    gone.push(block);
    sheet = inside;
  }
  return { path: gone, sheet };
}
