import type { Lesson } from '@/core/circuit/lesson';
import { type Netlist, storeName } from '@/core/netlist/netlist';
import { POWER_UP, Run } from '@/core/simulate/run';
import { type RunMoment, runFrom } from '@/core/simulate/run-moment';
import type { RunOptions } from '@/core/simulate/run-options';
import { type Logic, ONE, ZERO } from '@/core/values/logic';
import { fetcher } from '@/loading/load';
import { isTimed, movesByItself, nextHalf, rowNow, rowsOf } from './moment';
import { AS_FAST, type Goal, type Notice, type SessionState } from './state';

/** Ms of a frame that a run may take, and changes of nets after which it checks the wall clock. */
const MS_A_FRAME = 10;
/** Ms where nothing else is done in the frame; how few where frames come late; and at first, while the code is cold. */
const MS_ALONE = 8;
const MS_LEAST = 6;
const MS_COLD = 4;
/** By how many ms the share of the run grows from frame to frame, while none is late. */
const MS_MORE = 0.1;
/** Ms between two frames that are smooth, and by how much one may be late. */
const FRAME = 1000 / 60;
const LATE = 1;
/** At full speed: frames of running before one that updates the faces, and then frames in which they paint. */
const UNSEEN = 7;
const PAINTING = 2;
const EVENTS_A_LOOK = 250;
/** Steps of a run that is worth the kernel. */
const MANY_STEPS = 500;

/** Fetches the function that brings the kernel along. A run under way goes over to it by itself. */
export const fetchKernel = fetcher('the fast simulator', () =>
  import('@/core/simulate/compiled-kernel').then((m) => m.bringCompiledKernel),
);

/** The part of the session that the clockwork needs. */
export interface ClockHost {
  readonly state: SessionState;
  set(change: Partial<SessionState>): void;
  /** Takes all that is set on the way to the faces at once. */
  together<T>(work: () => T): T;
  /** Takes the values of the run, or of the past under the cursor, to all faces. */
  show(): void;
  say(text: string, tone?: Notice['tone']): void;
  /** Records the outputs in a row of the table. */
  note(row: number): void;
}

/** The running circuit of a session, and how time passes in it: at a pace, to a goal, step by step, and back. */
export class Clockwork {
  /** The run; another one after each change of the circuit. */
  run: Run;
  /** Frames since the faces were told. */
  private unseen = 0;
  /** Frames from now on in which canvases are painted, since the faces were told. */
  private painting = 0;
  /** Whether the run went on in the frame before, for all of its share. */
  private hasRun = false;
  /** Ms of a frame that a run may take now. */
  private share = MS_COLD;
  private isKernelAsked = false;
  /** Brings along the fast simulator, once it is fetched. */
  private bringKernel: (() => Promise<void>) | null = null;

  constructor(
    private readonly host: ClockHost,
    lesson: Lesson,
    netlist: Netlist,
    on: ReadonlySet<string>,
    moment?: RunMoment,
  ) {
    this.run = moment ? runFrom(netlist, freshRun(lesson, on), moment) : newRun(lesson, netlist, on);
  }

  /** Begins with another circuit. @param before the run whose time and held states it goes on with. */
  begin(lesson: Lesson, netlist: Netlist, on: ReadonlySet<string>, before?: Run): void {
    this.run = newRun(lesson, netlist, on, before);
  }

  private show(): void {
    this.unseen = 0;
    this.painting = PAINTING;
    this.host.show();
  }

  /**
   * Where parts take time and nothing moves by itself, a change of an input runs until the circuit settles.
   */
  goOn(): void {
    const { netlist, playing } = this.host.state;
    if (playing || movesByItself(netlist) || this.run.next() === Number.POSITIVE_INFINITY) return;
    this.host.set({ playing: true, behind: 0, goal: null });
  }

  play(playing: boolean): void {
    const { netlist, lesson, cursor } = this.host.state;
    if (playing && !isTimed(netlist, delaysOf(lesson))) return;
    this.host.together(() => {
      this.host.set({ playing, behind: 0, goal: null, cursor: playing ? null : cursor });
      this.show();
    });
  }

  setPace(pace: number): void {
    this.host.set({ pace, behind: 0 });
  }

  /** Lets time run for the length of a frame on the wall clock, in ms, or towards the goal. */
  tick(elapsedMs: number): void {
    this.host.together(() => {
      const { playing, pace, now, goal, behind } = this.host.state;
      if (!playing) return;
      if (this.run.steps >= MANY_STEPS && !this.isKernelAsked) {
        this.isKernelAsked = true;
        void fetchKernel().then((bring) => {
          this.bringKernel = bring;
        });
      }
      const frame = Math.min(elapsedMs, 250);
      const late = elapsedMs - FRAME;
      // A late frame without a run in it says nothing about how long a run may take.
      if (this.hasRun)
        this.share =
          late > LATE
            ? Math.max(Math.min(MS_LEAST, this.share), this.share - late / 2)
            : Math.min(MS_ALONE, this.share + MS_MORE);
      this.hasRun = false;
      const isPaced = goal === null && pace < AS_FAST;
      if (this.painting > 0 && !isPaced) {
        this.painting--;
        return;
      }
      this.painting = 0;
      if (this.unseen === UNSEEN) {
        this.show();
        return;
      }
      if (this.bringKernel) {
        // Takes about as long as a share of the run.
        void this.bringKernel();
        this.bringKernel = null;
        return;
      }
      this.hasRun = true;
      const until = isPaced ? Math.round(now + (pace * frame) / 1000) : Number.POSITIVE_INFINITY;
      const isThere =
        goal?.is === 'values'
          ? this.hunt(goal)
          : this.sliced(
              goal?.is === 'time' ? goal.time : until,
              Math.min(this.share, isPaced ? MS_A_FRAME : MS_ALONE),
            );
      if (isPaced) {
        const since = isThere ? 0 : behind + frame - ((this.run.time - now) / pace) * 1000;
        if (Math.round(since) !== Math.round(behind)) this.host.set({ behind: since });
      }
      const isAtRest = this.run.next() === Number.POSITIVE_INFINITY && goal?.is !== 'time';
      if (!isPaced && !isThere && !isAtRest) {
        this.unseen++;
        return;
      }
      const row = rowsOf(this.host.state) !== null ? rowNow(this.host.state.netlist, this.run.values) : -1;
      if (this.host.state.tried.has(row)) this.host.note(row);
      if ((goal && isThere) || isAtRest) {
        if (goal?.is === 'values' && !this.holds(goal))
          this.host.say('The circuit settled before getting there.');
        this.host.set({ playing: false, goal: null, behind: 0 });
      }
      this.show();
    });
  }

  private holds({ nets, values }: Extract<Goal, { is: 'values' }>): boolean {
    return nets.every((net, i) => this.run.values[net] === values[i]);
  }

  /** Goes on to a time, for as long as a frame may take. @returns whether it got there. */
  private sliced(until: number, ms: number): boolean {
    const end = performance.now() + ms;
    while (performance.now() < end) if (this.run.advance(until, EVENTS_A_LOOK)) return true;
    return false;
  }

  /** Goes on instant by instant until nets have some values, for as long as a frame may take. */
  private hunt(goal: Extract<Goal, { is: 'values' }>): boolean {
    const end = performance.now() + this.share;
    while (performance.now() < end)
      for (let steps = 0; steps < 500; steps++) {
        const next = this.run.next();
        if (next === Number.POSITIVE_INFINITY) return false;
        this.run.advance(next);
        if (this.holds(goal)) return true;
      }
    return false;
  }

  /** Runs as fast as it goes until a time, or until nets have some values; from the past it begins at the present. */
  runUntil(goal: Goal): void {
    if (goal.is === 'time' && goal.time <= this.run.time) this.goToTime(goal.time);
    else {
      // The page shows first that it runs.
      this.painting = PAINTING;
      this.host.set({ goal, playing: true, cursor: null, behind: 0 });
    }
  }

  /** On to the next thing that happens, or back to the one before. */
  stepEvent(back = false): void {
    this.host.together(() => {
      const { cursor } = this.host.state;
      const { trace } = this.run;
      const moment = cursor ?? this.run.time;
      this.host.set({ playing: false, goal: null });
      if (back) {
        this.goToTime(trace.changeBefore(null, moment) ?? trace.begins);
        return;
      }
      const known = cursor === null ? null : trace.changeAfter(null, moment);
      if (known !== null) {
        this.goToTime(known);
        return;
      }
      const next = this.run.next();
      if (next === Number.POSITIVE_INFINITY) {
        this.host.say('Nothing is pending: the circuit has settled.');
        return;
      }
      this.run.advance(next);
      this.host.set({ cursor: null });
      this.show();
    });
  }

  /** On by a stretch of time in ps, or back by it where that is negative. */
  stepTime(by: number): void {
    const target = (this.host.state.cursor ?? this.run.time) + by;
    if (target <= this.run.time) this.goToTime(target);
    else this.runUntil({ is: 'time', time: target, isStep: true });
  }

  /** On to the next change of a clock; from the past, on to the next one that was. */
  stepHalf(): void {
    this.host.together(() => {
      const { netlist, cursor } = this.host.state;
      this.host.set({ playing: false });
      const next = nextHalf(netlist, cursor ?? this.run.time);
      if (next === null) return;
      if (cursor !== null && next <= this.run.time) {
        this.goToTime(next);
        return;
      }
      this.run.advance(next);
      this.host.set({ cursor: null });
      this.show();
    });
  }

  /** Back to the change of a clock before the moment. */
  stepHalfBack(): void {
    const { netlist, cursor } = this.host.state;
    const clocks = new Set(netlist.sources.flatMap((s) => (s.kind === 'clock' ? [s.net] : [])));
    const before = this.run.trace.changeBefore(clocks, cursor ?? this.run.time);
    this.goToTime(before ?? this.run.trace.begins);
  }

  /** Shows the circuit as it was at a time in ps; at or past the present, as it is. */
  goToTime(time: number): void {
    this.host.together(() => {
      const past = time < this.run.time ? Math.max(Math.round(time), this.run.trace.begins) : null;
      this.host.set({ cursor: past, playing: false, goal: null });
      this.show();
    });
  }

  /** Back to power-up at time 0; switches stay. @param shaken whether storage starts with random values. */
  restart(shaken = false): void {
    this.host.together(() => {
      const { lesson, netlist, on } = this.host.state;
      const held = shaken
        ? new Map(
            [...netlist.storage.keys()].map((i): [string, Logic] => [
              storeName(netlist, i),
              Math.random() < 0.5 ? ZERO : ONE,
            ]),
          )
        : undefined;
      this.run = newRun(lesson, netlist, on, undefined, held);
      this.host.set({ playing: false, cursor: null, behind: 0, goal: null });
      this.show();
    });
  }
}

/**
 * The states with which a changed circuit goes on. Storage that was unknown, because an input was open or a wire not yet
 * there, begins anew.
 */
const knownStates = (before: Run | undefined): ReadonlyMap<string, Logic> | undefined =>
  before && new Map([...before.held()].filter(([, value]) => value === ZERO || value === ONE));

/** How a circuit begins at power-up, with switches as they stand. */
export const freshRun = (lesson: Lesson, on: ReadonlySet<string>): RunOptions => ({
  delays: delaysOf(lesson),
  powerUp: POWER_UP[lesson.settings.powerUp],
  inputs: new Map([...on].map((key) => [key, ONE])),
});

function newRun(
  lesson: Lesson,
  netlist: Netlist,
  on: ReadonlySet<string>,
  before?: Run,
  held?: ReadonlyMap<string, Logic>,
): Run {
  return new Run(netlist, {
    ...freshRun(lesson, on),
    held: held ?? knownStates(before),
    from: before?.time,
  });
}

/** Files of before there was a choice had no delays on the page. */
export const delaysOf = (lesson: Lesson) => lesson.settings.delays ?? 'zero';
