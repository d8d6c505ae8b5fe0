import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Edit } from '@/core/circuit/edit';
import { type Lesson, sheetOf } from '@/core/circuit/lesson';
import type { Part, Sheet } from '@/core/circuit/sheet';
import { inputAt, whyNoTable } from '@/core/logic/table/truth-table';
import { compileOnce } from '@/core/netlist/compile';
import { isByHand, type Netlist, type SheetNets, sourceKey } from '@/core/netlist/netlist';
import { sheetInside } from '@/core/parts/catalogue';
import { conflictsOf } from '@/core/simulate/conflicts';
import { drivenBy, drivingOf } from '@/core/simulate/drive';
import type { Violation } from '@/core/simulate/stored-bits';
import { type Logic, letterOf, Z } from '@/core/values/logic';
import type { Result } from '@/core/values/result';
import type { Saving } from '@/store/lesson-writer';
import { type ClockHost, Clockwork, delaysOf } from './clockwork';
import type { UpdateDerived } from './derived';
import { type Change, type DocumentHost, LessonDocument, type Settle } from './document';
import { EMPTY_HISTORY, type History } from './history';
import { type LiveHost, LiveSheets } from './live-sheets';
import { fittingPace, rowNow, rowsOf } from './moment';
import { type RuleBook, rulesShown } from './rules';
import { runtimeDiagnostics } from './runtime-diagnostics';
import { isStillCircuit, type KeptStanding } from './standing';
import {
  type Beginning,
  NOTHING,
  type Notice,
  type PersistenceSink,
  SAVED,
  type Selection,
  type SessionState,
} from './state';
import { kept, same, walked } from './still-there';
import { TableDeriver, type TableHost } from './table-deriver';
import type { Transaction } from './transaction';

/**
 * One open lesson: the document with its history, the selection, and the running circuit of the sheet that is
 * shown. All faces read `store`; everything that changes goes through a method here.
 */
export class Session {
  readonly store: StoreApi<SessionState>;
  /** The running circuit of the root sheet, and how time passes in it. */
  readonly time: Clockwork;
  private readonly document: LessonDocument;
  private readonly live: LiveSheets;
  private readonly table: TableDeriver;
  /** State that is set but not yet shown, while one change is worked out. */
  private pending: SessionState | null = null;
  private depth = 0;
  private sink: PersistenceSink | null;
  private readonly rules: RuleBook | null;

  constructor(lesson: Lesson, beginning: Beginning = {}) {
    this.sink = beginning.sink ?? null;
    this.rules = beginning.rules ?? null;
    const sheetId = sheetOf(lesson, beginning.sheetId ?? '')?.id ?? lesson.sheets[0]!.id;
    const sheet = sheetOf(lesson, sheetId)!;
    const bare = compileOnce(sheet, lesson.sheets);
    const driving = drivingOf(sheet.time);
    const netlist = drivenBy(bare, driving);
    const standing = beginning.standings?.get(sheetId);
    const on = standing?.on ?? new Set();
    const tried = standing && isStillCircuit(standing, () => bare) ? standing.tried : new Map();
    const host = this.host();
    this.time = new Clockwork(host, lesson, netlist, on, standing?.moment);
    const first = { bare, driving, delays: delaysOf(lesson) };
    this.live = new LiveSheets(host, this.time, first, beginning.standings ?? new Map());
    this.table = new TableDeriver(host, beginning.makeTable ?? null);
    this.document = new LessonDocument(host, beginning.updateDerived ?? null, this.rules);
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
      tried,
      probed: new Set(),
      now: 0,
      cursor: null,
      playing: false,
      pace: fittingPace(netlist, delaysOf(lesson)),
      behind: 0,
      goal: null,
      readOnly: beginning.readOnly ?? false,
      notice: null,
      looks: { times: 0, onlyIfHidden: false },
      saving: SAVED,
      rules: rulesShown(this.rules, { lesson, rootId: sheetId, sheetId }),
    }));
    this.show();
    this.table.derive();
  }

  get state(): SessionState {
    return this.pending ?? this.store.getState();
  }

  /** The view of the session for its own parts. */
  private host(): ClockHost & DocumentHost & LiveHost & TableHost {
    const session = this;
    return {
      get state() {
        return session.state;
      },
      set: (change) => this.set(change),
      together: (work) => this.together(work),
      show: () => this.show(),
      say: this.say.bind(this),
      sayUndoable: (text) => this.sayUndoable(text),
      note: (row) => this.note(row),
      adopt: (next, history, change) => this.together(() => this.adopt(next, history, change)),
      keep: (edit) => this.sink?.edit(edit),
    };
  }

  private set(change: Partial<SessionState>): void {
    const ruled =
      this.rules && ('lesson' in change || 'rootId' in change || 'sheetId' in change)
        ? { ...change, rules: rulesShown(this.rules, { ...this.state, ...change }) }
        : change;
    if (this.depth > 0) this.pending = { ...this.state, ...ruled };
    else this.store.setState(ruled);
  }

  /** Delivers all changes of some work to the faces at once, so they are painted once. */
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

  /** Switches and tried rows of every sheet that was looked at. */
  get standings(): ReadonlyMap<string, KeptStanding> {
    const { rootId, on, tried } = this.state;
    return new Map([...this.live.kept(), [rootId, { on, tried, circuit: this.live.signature }]]);
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

  setSink(sink: PersistenceSink | null): void {
    this.sink = sink;
  }

  /** Shows the lesson as another tab has it now; there is no way back over that. */
  follow(lesson: Lesson): void {
    this.together(() => this.adopt(lesson, EMPTY_HISTORY, 'new'));
  }

  setReadOnly(readOnly: boolean): void {
    this.set({ readOnly });
  }

  /** Reports how far the work is kept. */
  setSaving(saving: Saving): void {
    this.set({ saving });
  }

  /** Resolves when all that was done so far is kept; at once where nothing is on its way. */
  get saved(): Promise<void> {
    return this.whenSaving((saving) => saving.is === 'saved').then(() => {});
  }

  /** Resolves as `saved` does. @throws Error where the last attempt to keep it failed. */
  async savedOrFailed(): Promise<void> {
    const saving = await this.whenSaving(({ is }) => is !== 'saving');
    if (saving.is === 'failed') throw new Error(saving.problem.message);
  }

  private whenSaving(isThere: (saving: Saving) => boolean): Promise<Saving> {
    return new Promise((resolve) => {
      const look = () => {
        const { saving } = this.state;
        if (!isThere(saving)) return false;
        resolve(saving);
        return true;
      };
      if (look()) return;
      const stop = this.store.subscribe(() => {
        if (look()) stop();
      });
    });
  }

  /** Makes edits as one step of undo; see `LessonDocument.transaction`. */
  transaction<T>(name: string, work: (made: Transaction) => T, merge: string | null = null): Result<T> {
    return this.document.transaction(name, work, merge);
  }

  /** Makes one edit as a step of undo; see `LessonDocument.transaction`. */
  edit(name: string, edit: Edit | null, merge: string | null = null): Result<undefined> {
    return this.document.transaction(name, (made) => void made.make(edit), merge);
  }

  /** Makes an edit that stands whatever is undone or done again; see `LessonDocument.note`. */
  noteEdit(edit: Edit, overrides: (edit: Edit) => boolean = () => false): Result<undefined> {
    return this.document.note(edit, overrides);
  }

  /** Ends the last step of undo: the next edit is a step of its own. */
  endStep(): void {
    this.document.endStep();
  }

  undo(): Result<undefined> {
    return this.document.undo();
  }

  redo(): Result<undefined> {
    return this.document.redo();
  }

  /** Sets the function that brings blocks and notes up to date; see `needsUpdateDerived`. */
  setUpdateDerived(updateDerived: UpdateDerived): void {
    this.document.updateDerived = updateDerived;
  }

  /** Sets the function that keeps parts apart and wires clear of each other after each edit. */
  setSettled(settled: Settle): void {
    this.document.settled = settled;
  }

  /** Takes another version of the lesson to all faces. */
  private adopt(lesson: Lesson, history: History, change: Change): void {
    const before = this.state;
    // The way back that a message offers is that of its own step alone.
    if (before.notice && before.notice.undoes !== null) this.set({ notice: null });
    const root = sheetOf(lesson, before.rootId) ?? lesson.sheets[0]!;
    const { path, sheet } = walked(lesson, root, before.path);
    const selection = {
      parts: kept(before.selection.parts, sheet.parts),
      wires: kept(before.selection.wires, sheet.wires),
    };
    const isOther = root.id !== before.rootId;
    if (change === 'new') this.live.editedElsewhere(before.lesson, lesson);
    if (isOther) this.live.leave();
    this.set({ lesson, rootId: root.id, path, sheetId: sheet.id, history, selection });
    if (isOther) this.enterSheet(root);
    else if (change !== 'cosmetic' || this.state.rules.still !== before.rules.still)
      this.rewired(
        () => this.live.change(root, change === 'back') && this.state.rules.still === before.rules.still,
      );
  }

  private enterSheet(sheet: Sheet): void {
    this.rewired(() => {
      this.live.enter(sheet);
      return false;
    });
  }

  /**
   * Takes the circuit that runs to all faces, after it may have become another.
   * @param work changes it, and answers whether it is the same.
   */
  private rewired(work: () => boolean): void {
    const { netlist: before, table } = this.state;
    const isSame = work();
    const { netlist } = this.state;
    this.set({ view: this.viewIn(netlist) });
    this.show();
    const columns = (n: Netlist) => [...n.inputColumns, ...n.outputColumns];
    const isNamedAlike = same(columns(netlist), columns(before), (c) => `${sourceKey(c)} ${c.name}`);
    if (!isSame || !isNamedAlike || table.state === 'none' || whyNoTable(netlist)) this.table.derive();
  }

  /** Takes the run's values, or those of the past under the cursor, to all faces. */
  private show(): void {
    const { netlist, cursor, rootId, sheetId, path } = this.state;
    const running = cursor === null ? this.time.run.values.slice() : this.time.run.trace.stateAt(cursor);
    const values = this.state.rules.still ? running.fill(Z) : running;
    const found = conflictsOf(netlist, values);
    const conflicts = new Set(found.map((c) => c.net));
    const diagnostics = [
      ...netlist.diagnostics.filter((d) => d.severity === 'problem' && (d.inside ?? rootId) === sheetId),
      ...(path.length === 0 ? runtimeDiagnostics(this.time.run, values, this.sheet, found) : []),
    ];
    this.set({ values, now: this.time.run.time, conflicts, diagnostics });
    this.sink?.moment(this.state);
  }

  select(selection: Selection): void {
    this.endStep();
    const [wire] = selection.wires;
    const { rules, path } = this.state;
    const isProbe =
      rules.isDark && path.length === 0 && selection.wires.size === 1 && selection.parts.size === 0;
    const probed = isProbe ? { probed: new Set(this.state.probed).add(wire!) } : {};
    this.set({ selection, ...probed });
  }

  openSheet(sheetId: string): void {
    this.together(() => {
      const sheet = sheetOf(this.state.lesson, sheetId);
      if (!sheet || (sheetId === this.state.rootId && this.state.path.length === 0)) return;
      const isOther = sheetId !== this.state.rootId;
      if (isOther) this.live.leave();
      this.set({
        rootId: sheetId,
        path: [],
        sheetId,
        selection: NOTHING,
        ...(isOther ? { probed: new Set() } : {}),
      });
      if (isOther) this.enterSheet(sheet);
      else this.look();
    });
  }

  /** Shows the inside of a block of the shown sheet, while the circuit around it runs on. */
  enter(block: string): void {
    const part = this.sheet.parts.get(block);
    const inside = part && sheetInside(part, this.state.lesson.sheets);
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
   * Shows all of the sheet after much of it has changed.
   * @param onlyIfHidden whether the view stays if all of the selected parts are in sight, or their middles are.
   */
  lookAtAll(onlyIfHidden: SessionState['looks']['onlyIfHidden'] = false): void {
    this.set({ looks: { times: this.state.looks.times + 1, onlyIfHidden } });
  }

  say(
    text: string,
    tone: Notice['tone'] = 'calm',
    more: Pick<Notice, 'lit' | 'offers' | 'effectOf'> = {},
  ): void {
    this.set({ notice: { text, tone, undoes: null, ...more } });
  }

  /** Tells the effect of the last step, with a way back until another step follows. */
  sayUndoable(text: string): void {
    this.endStep();
    const { notice, history } = this.state;
    const step = history.undo.at(-1)?.id;
    const also = step !== undefined && notice?.effectOf === step ? ` ${notice.text}` : '';
    this.set({ notice: { text: text + also, tone: 'calm', undoes: step ?? null } });
  }

  dismissNotice(): void {
    this.set({ notice: null });
  }

  /** Puts switches and buttons to new positions at once, at the present. */
  put(positions: Iterable<readonly [key: string, value: 0 | 1]>): void {
    this.endStep();
    this.together(() => {
      const { netlist, rules } = this.state;
      if (rules.still) {
        this.say(`${rules.still[0]!.toUpperCase()}${rules.still.slice(1)}.`);
        return;
      }
      const on = new Set(this.state.on);
      const changes: [number, Logic][] = [];
      let isDriven = false;
      for (const [key, value] of positions) {
        const source = netlist.sources.find((s) => sourceKey(s) === key && isByHand(s));
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
      if (rowsOf(this.state) !== null) this.note(rowNow(netlist, this.time.run.values));
      this.show();
    });
  }

  /** Records the outputs in a row; while signals are pending they may change again. */
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
    const { netlist } = this.state;
    const rows = rowsOf(this.state);
    if (rows === null) return;
    this.goToRow((rowNow(netlist, this.time.run.values) + by + rows) % rows);
  }
}
