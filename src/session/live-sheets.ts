import { type Lesson, sheetOf } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import { compile, compileOnce } from '@/core/netlist/compile';
import { type Netlist, sourceKey } from '@/core/netlist/netlist';
import { isSameCircuit, outputsSignature } from '@/core/netlist/same-circuit';
import { drivenBy, drivingOf } from '@/core/simulate/drive';
import { timeText } from '@/core/values/time';
import { counted } from '@/core/values/wording';
import { type Clockwork, delaysOf } from './clockwork';
import { fittingPace, isTimed } from './moment';
import {
  isStillCircuit,
  type KeptStanding,
  type Live,
  reordered,
  type Standing,
  type TriedRows,
  UNTOUCHED,
} from './standing';
import type { Notice, SessionState } from './state';

/** Circuits of which tried rows are remembered, so that undo brings them back. */
const MOST_REMEMBERED = 8;

/** The part of the session that its live sheets need. */
export interface LiveHost {
  readonly state: SessionState;
  set(change: Partial<SessionState>): void;
  say(text: string, tone?: Notice['tone'], more?: Pick<Notice, 'effectOf'>): void;
}

/**
 * The live circuits of a lesson's sheets: the running one, and those of sheets visited before. Switch positions, tried rows,
 * the moment and the run belong to a sheet. An edit that compiles to the same circuit changes none of them.
 */
export class LiveSheets {
  private readonly left = new Map<string, Standing>();
  /** Tried rows that a change of the circuit has ended, the newest last. */
  private readonly ended: {
    readonly circuit: string;
    readonly netlist: Netlist;
    readonly tried: TriedRows;
  }[] = [];

  /**
   * @param live the circuit that runs.
   * @param kept what is known of other sheets from earlier visits.
   */
  constructor(
    private readonly host: LiveHost,
    private readonly time: Clockwork,
    private live: Omit<Live, 'run'>,
    kept: ReadonlyMap<string, KeptStanding>,
  ) {
    for (const [sheet, standing] of kept) this.left.set(sheet, { ...UNTOUCHED, ...standing });
  }

  /** Puts the circuit that runs aside, as it stands. */
  leave(): void {
    const { rootId, on, tried, cursor, pace } = this.host.state;
    const live = { ...this.live, run: this.time.run };
    this.left.set(rootId, { on, tried, cursor, pace, live, circuit: this.signature });
    this.host.set({ playing: false });
  }

  /** Resumes a sheet as it was left. Tried rows and the run end if the circuit has changed since. */
  enter(sheet: Sheet): void {
    const standing = this.left.get(sheet.id) ?? UNTOUCHED;
    this.left.delete(sheet.id);
    const { on, tried, cursor, pace } = standing;
    const { lesson } = this.host.state;
    const isSame =
      standing.live !== null || isStillCircuit(standing, () => compileOnce(sheet, lesson.sheets));
    this.host.set({ on, tried: isSame ? tried : new Map(), cursor, pace });
    this.goOn(sheet, standing.live);
  }

  /** Sheets that were left have been edited from elsewhere: parts that are new there begin at 0, whatever had their ids. */
  editedElsewhere(before: Lesson, after: Lesson): void {
    for (const [id, standing] of this.left) {
      const [was, is] = [sheetOf(before, id), sheetOf(after, id)];
      if (standing.on.size === 0 || !was || !is || was.parts === is.parts) continue;
      const on = [...standing.on].filter((key) => {
        const part = /^[^./]+/.exec(key)![0];
        return was.parts.has(part) || !is.parts.has(part);
      });
      if (on.length < standing.on.size) this.left.set(id, { ...standing, on: new Set(on) });
    }
  }

  /**
   * The circuit that runs was edited.
   * @param isBack whether by going back to how it was: then removed switches return as they stood.
   * @returns whether it is the same circuit.
   */
  change(sheet: Sheet, isBack: boolean): boolean {
    const { netlist } = this.host.state;
    const before = this.host.state.tried.size;
    const moved = this.time.run.trace.begins < this.time.run.time;
    const was = { ...this.live, run: this.time.run };
    const sources = new Set(netlist.sources.map(sourceKey));
    const isSame = this.goOn(sheet, was, isBack ? null : sources);
    if (isSame) return true;
    const ended: string[] = [];
    const open = before - this.host.state.tried.size;
    if (open > 0) ended.push(`${counted(open, 'tried row')} ${open === 1 ? 'is' : 'are'} open again`);
    const { run } = this.time;
    if (moved && run.time > 0) ended.push(`the diagram begins again at ${timeText(run.time)}`);
    const effectOf = this.host.state.history.undo.at(-1)?.id;
    if (ended.length > 0)
      this.host.say(`The circuit has changed: ${ended.join(', and ')}.`, 'calm', { effectOf });
    return false;
  }

  /** The signature of the circuit that runs. */
  get signature(): string {
    return outputsSignature(this.live.bare);
  }

  /** What is to be kept of the sheets that were left. */
  kept(): ReadonlyMap<string, KeptStanding> {
    return this.left;
  }

  /**
   * Goes on with a sheet after a circuit.
   * @param was the circuit before; null if there is none.
   * @param sources the sources that were there; a new one begins at 0 even if an earlier one had its name.
   * @returns whether the circuit is the same.
   */
  private goOn(sheet: Sheet, was: Live | null, sources: ReadonlySet<string> | null = null): boolean {
    const { host, time } = this;
    const { lesson, tried } = host.state;
    const delays = delaysOf(lesson);
    const bare = compile(sheet, lesson.sheets);
    const driving = drivingOf(sheet.time);
    const netlist = drivenBy(bare, driving);
    const on = sources ? sinceThen(host.state.on, sources, netlist) : host.state.on;
    const isSame = was !== null && isSameCircuit(was.bare, bare);
    const isDrivenAlike = was !== null && driving?.inputs === was.driving?.inputs;
    const rows = !was ? tried : isSame ? reordered(tried, was.bare, bare) : this.rowsAfter(was.bare, bare);
    if (isSame && isDrivenAlike && delays === was.delays) time.run = was.run;
    else {
      // Another stimulus begins at its beginning.
      time.begin(lesson, netlist, on, isDrivenAlike ? was.run : undefined);
      host.set({
        cursor: null,
        pace: fittingPace(netlist, delays),
        playing: host.state.playing && isTimed(netlist, delays),
        goal: null,
      });
    }
    this.live = { bare, driving, delays };
    host.set({ on, netlist, tried: rows, now: time.run.time });
    return isSame;
  }

  /** The tried rows of a circuit that has taken the place of another. */
  private rowsAfter(before: Netlist, after: Netlist): TriedRows {
    const { tried } = this.host.state;
    if (tried.size === 0 && this.ended.length === 0) return tried;
    const circuit = outputsSignature(after);
    if (tried.size > 0) {
      const was = outputsSignature(before);
      if (was === circuit) return reordered(tried, before, after);
      this.ended.push({ circuit: was, netlist: before, tried });
      if (this.ended.length > MOST_REMEMBERED) this.ended.shift();
    }
    const known = this.ended.findLast((one) => one.circuit === circuit);
    return known ? reordered(known.tried, known.netlist, after) : new Map();
  }
}

/** Switch positions after an edit, without those of earlier parts whose ids new parts have reused. */
function sinceThen(
  on: ReadonlySet<string>,
  before: ReadonlySet<string>,
  after: Netlist,
): ReadonlySet<string> {
  const isNew = new Set(after.sources.map(sourceKey).filter((key) => on.has(key) && !before.has(key)));
  return isNew.size === 0 ? on : new Set([...on].filter((key) => !isNew.has(key)));
}
