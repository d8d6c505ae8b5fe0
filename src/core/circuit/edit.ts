import { done, type Result, refused } from '../values/result';
import type { TaskChecks, TaskWork, Work } from './exercise';
import type { Point } from './geometry';
import type { Lesson } from './lesson';
import { MOST_CORNERS, MOST_PARTS, MOST_SHEETS, MOST_WIRES } from './limits';
import type { End, Part, Settings, Sheet, Wire } from './sheet';
import { isPinEnd } from './sheet';

/**
 * A change to a lesson as plain data (it survives a structured clone, so the journal can hold it). Undo,
 * autosave and replay rest on `apply` and `applyWithInverse` alone.
 */
export type Edit =
  | { readonly type: 'addPart'; readonly sheet: string; readonly part: Part }
  | { readonly type: 'removePart'; readonly sheet: string; readonly id: string }
  | { readonly type: 'changePart'; readonly sheet: string; readonly id: string; readonly change: PartChange }
  /** Moves parts and wires that go along unchanged by whole grid steps: short, however many they are. */
  | {
      readonly type: 'shift';
      readonly sheet: string;
      readonly parts: readonly string[];
      readonly wires: readonly string[];
      readonly by: Point;
    }
  | { readonly type: 'addWire'; readonly sheet: string; readonly wire: Wire }
  | { readonly type: 'removeWire'; readonly sheet: string; readonly id: string }
  | { readonly type: 'changeWire'; readonly sheet: string; readonly id: string; readonly change: WireChange }
  | { readonly type: 'addSheet'; readonly sheet: Sheet; readonly at: number }
  | { readonly type: 'removeSheet'; readonly id: string }
  | { readonly type: 'changeSheet'; readonly id: string; readonly change: SheetChange }
  | { readonly type: 'changeLesson'; readonly change: LessonChange }
  /** A student's answer to a task. */
  | { readonly type: 'changeWork'; readonly task: string; readonly work: TaskWork }
  /** The checks that a student has made of a task. */
  | { readonly type: 'noteChecks'; readonly task: string; readonly checks: TaskChecks }
  | { readonly type: 'group'; readonly edits: readonly Edit[] };

export type PartChange = Partial<Omit<Part, 'id'>>;
export type WireChange = Partial<Omit<Wire, 'id'>>;
export type SheetChange = Partial<Pick<Sheet, 'name' | 'plan' | 'time' | 'chips' | 'board'>>;
export type LessonChange = { readonly title?: string; readonly settings?: Settings };

/** An edit that was made, and the one that takes it back. */
export interface Applied {
  readonly lesson: Lesson;
  readonly inverse: Edit;
}

class Refusal extends Error {}

const NO_CHECKS: TaskChecks = { count: 0, solved: false };

const shifted = ({ x, y }: Point, by: Point): Point => ({ x: x + by.x, y: y + by.y });

const endShifted = (end: End, by: Point): End => (isPinEnd(end) ? end : { ...end, at: shifted(end.at, by) });

const wireShifted = (wire: Wire, by: Point): Wire => ({
  ...wire,
  from: endShifted(wire.from, by),
  to: endShifted(wire.to, by),
  course: wire.course.map((corner) => shifted(corner, by)),
});

/** The result of `work`, or why the edit cannot be made. */
function attempt<T>(work: () => T): Result<T> {
  try {
    return done(work());
  } catch (refusal) {
    if (refusal instanceof Refusal) return refused('edit-does-not-apply', refusal.message);
    throw refusal;
  }
}

/** The lesson while one edit is applied: each sheet and map is copied once, however many edits a group holds. */
class Draft {
  private readonly copied = new Map<string, { parts: Map<string, Part>; wires: Map<string, Wire> }>();
  constructor(public lesson: Lesson) {}

  sheet(id: string): Sheet {
    const sheet = this.lesson.sheets.find((s) => s.id === id);
    if (!sheet) throw new Refusal(`there is no sheet ${id}`);
    return sheet;
  }

  maps(id: string): { parts: Map<string, Part>; wires: Map<string, Wire> } {
    const ready = this.copied.get(id);
    if (ready) return ready;
    const sheet = this.sheet(id);
    const maps = { parts: new Map(sheet.parts), wires: new Map(sheet.wires) };
    this.copied.set(id, maps);
    this.replace({ ...sheet, ...maps });
    return maps;
  }

  replace(sheet: Sheet): void {
    this.lesson = { ...this.lesson, sheets: this.lesson.sheets.map((s) => (s.id === sheet.id ? sheet : s)) };
  }

  part(sheet: string, id: string): Part {
    const part = this.maps(sheet).parts.get(id);
    if (!part) throw new Refusal(`there is no part ${id} on this sheet`);
    return part;
  }

  get work(): Work {
    return this.lesson.work ?? { tasks: {}, checks: {} };
  }

  workAt(task: string): TaskWork {
    const work = this.work.tasks[task];
    if (!work) throw new Refusal(`there is no task ${task}`);
    return work;
  }

  private changeWork(change: Partial<Work>): void {
    this.lesson = { ...this.lesson, work: { ...this.work, ...change } };
  }

  wire(sheet: string, id: string): Wire {
    const wire = this.maps(sheet).wires.get(id);
    if (!wire) throw new Refusal(`there is no wire ${id} on this sheet`);
    return wire;
  }

  run(edit: Edit): void {
    switch (edit.type) {
      case 'addPart': {
        const { parts } = this.maps(edit.sheet);
        if (parts.has(edit.part.id)) throw new Refusal(`a part ${edit.part.id} is there already`);
        parts.set(edit.part.id, edit.part);
        return;
      }
      case 'removePart':
        this.part(edit.sheet, edit.id);
        this.maps(edit.sheet).parts.delete(edit.id);
        this.removed.push({ sheet: edit.sheet, id: edit.id });
        return;
      case 'changePart':
        this.maps(edit.sheet).parts.set(edit.id, { ...this.part(edit.sheet, edit.id), ...edit.change });
        return;
      case 'shift': {
        const { parts, wires } = this.maps(edit.sheet);
        for (const id of edit.parts) {
          const part = this.part(edit.sheet, id);
          parts.set(id, { ...part, at: shifted(part.at, edit.by) });
        }
        for (const id of edit.wires) wires.set(id, wireShifted(this.wire(edit.sheet, id), edit.by));
        return;
      }
      case 'addWire': {
        const { wires } = this.maps(edit.sheet);
        if (wires.has(edit.wire.id)) throw new Refusal(`a wire ${edit.wire.id} is there already`);
        wires.set(edit.wire.id, edit.wire);
        this.laid.push({ sheet: edit.sheet, id: edit.wire.id });
        return;
      }
      case 'removeWire':
        this.wire(edit.sheet, edit.id);
        this.maps(edit.sheet).wires.delete(edit.id);
        this.removed.push({ sheet: edit.sheet, id: edit.id });
        return;
      case 'changeWire': {
        const wire = { ...this.wire(edit.sheet, edit.id), ...edit.change };
        this.maps(edit.sheet).wires.set(edit.id, wire);
        this.laid.push({ sheet: edit.sheet, id: edit.id });
        return;
      }
      case 'addSheet': {
        if (this.lesson.sheets.some((s) => s.id === edit.sheet.id))
          throw new Refusal(`a sheet ${edit.sheet.id} is there already`);
        const sheets = [...this.lesson.sheets];
        sheets.splice(edit.at, 0, edit.sheet);
        this.lesson = { ...this.lesson, sheets };
        return;
      }
      case 'removeSheet':
        this.sheet(edit.id);
        if (this.lesson.sheets.length === 1) throw new Refusal('a lesson keeps at least one sheet');
        this.copied.delete(edit.id);
        this.lesson = { ...this.lesson, sheets: this.lesson.sheets.filter((s) => s.id !== edit.id) };
        return;
      case 'changeSheet':
        this.replace({ ...this.sheet(edit.id), ...edit.change });
        return;
      case 'changeLesson':
        this.lesson = { ...this.lesson, ...edit.change };
        return;
      case 'changeWork':
        this.workAt(edit.task);
        this.changeWork({ tasks: { ...this.work.tasks, [edit.task]: edit.work } });
        return;
      case 'noteChecks':
        this.workAt(edit.task);
        this.changeWork({ checks: { ...this.work.checks, [edit.task]: edit.checks } });
        return;
      case 'group':
        for (const inner of edit.edits) this.run(inner);
        return;
    }
  }

  private checkSizes(): void {
    if (this.lesson.sheets.length > MOST_SHEETS)
      throw new Refusal(`a lesson has ${MOST_SHEETS} sheets at most`);
    for (const { parts, wires } of this.copied.values()) {
      if (parts.size > MOST_PARTS) throw new Refusal(`a sheet holds ${MOST_PARTS} parts at most`);
      if (wires.size > MOST_WIRES) throw new Refusal(`a sheet holds ${MOST_WIRES} wires at most`);
    }
  }

  private readonly removed: { sheet: string; id: string }[] = [];
  private readonly laid: { sheet: string; id: string }[] = [];

  /**
   * After the whole edit, each new wire must end on something, and no wire may refer to a removed object. The
   * order within a group does not matter. One pass over each sheet that lost anything.
   */
  checkEnds(): void {
    this.checkSizes();
    for (const { sheet, id } of this.laid) {
      const where = this.lesson.sheets.find((s) => s.id === sheet);
      const wire = where?.wires.get(id);
      if (!where || !wire) continue;
      if (wire.course.length > MOST_CORNERS)
        throw new Refusal(`a wire has ${MOST_CORNERS} corners at most, not ${wire.course.length}`);
      for (const end of [wire.from, wire.to]) {
        if (isPinEnd(end)) {
          if (!where.parts.has(end.part))
            throw new Refusal(`wire ${id} ends on ${end.part}, which is not there`);
        } else if (end.wire === id) throw new Refusal(`wire ${id} ends on itself`);
        else if (!where.wires.has(end.wire))
          throw new Refusal(`wire ${id} ends on ${end.wire}, which is not there`);
      }
    }
    const gone = new Map<string, Set<string>>();
    for (const { sheet, id } of this.removed) gone.set(sheet, (gone.get(sheet) ?? new Set()).add(id));
    for (const [sheetId, ids] of gone) {
      const sheet = this.lesson.sheets.find((s) => s.id === sheetId);
      if (!sheet) continue;
      for (const wire of sheet.wires.values())
        for (const end of [wire.from, wire.to]) {
          const holder = isPinEnd(end) ? end.part : end.wire;
          const there = isPinEnd(end) ? sheet.parts.has(holder) : sheet.wires.has(holder);
          if (ids.has(holder) && !there) throw new Refusal(`wire ${wire.id} still hangs on ${holder}`);
        }
    }
  }
}

/**
 * The lesson with the edit made, or the reason why it cannot be; never half of it. Costs one copy of each map
 * that the edit touches.
 */
export function apply(lesson: Lesson, edit: Edit): Result<Lesson> {
  return attempt(() => {
    const draft = new Draft(lesson);
    draft.run(edit);
    draft.checkEnds();
    return draft.lesson;
  });
}

function before<T extends object>(whole: T, change: Partial<T>): Partial<T> {
  const old: Partial<T> = {};
  for (const key of Object.keys(change) as (keyof T)[]) old[key] = whole[key];
  return old;
}

/** As `apply`, and with it the edit that takes it back: `applyWithInverse(its lesson, its inverse)` gives the lesson. */
export function applyWithInverse(lesson: Lesson, edit: Edit): Result<Applied> {
  return attempt(() => {
    const draft = new Draft(lesson);
    const inverse = invertOn(draft, edit);
    draft.checkEnds();
    return { lesson: draft.lesson, inverse };
  });
}

function invertOn(draft: Draft, edit: Edit): Edit {
  if (edit.type === 'group')
    return { type: 'group', edits: edit.edits.map((e) => invertOn(draft, e)).reverse() };
  const inverse = inverseOf(draft, edit);
  draft.run(edit);
  return inverse;
}

function inverseOf(draft: Draft, edit: Exclude<Edit, { type: 'group' }>): Edit {
  switch (edit.type) {
    case 'addPart':
      return { type: 'removePart', sheet: edit.sheet, id: edit.part.id };
    case 'removePart':
      return { type: 'addPart', sheet: edit.sheet, part: draft.part(edit.sheet, edit.id) };
    case 'changePart':
      return { ...edit, change: before(draft.part(edit.sheet, edit.id), edit.change) };
    case 'shift':
      return { ...edit, by: { x: 0 - edit.by.x, y: 0 - edit.by.y } };
    case 'addWire':
      return { type: 'removeWire', sheet: edit.sheet, id: edit.wire.id };
    case 'removeWire':
      return { type: 'addWire', sheet: edit.sheet, wire: draft.wire(edit.sheet, edit.id) };
    case 'changeWire':
      return { ...edit, change: before(draft.wire(edit.sheet, edit.id), edit.change) };
    case 'addSheet':
      return { type: 'removeSheet', id: edit.sheet.id };
    case 'removeSheet': {
      const at = draft.lesson.sheets.findIndex((s) => s.id === edit.id);
      return { type: 'addSheet', sheet: draft.sheet(edit.id), at };
    }
    case 'changeSheet':
      return { ...edit, change: before(draft.sheet(edit.id), edit.change) };
    case 'changeLesson':
      return { ...edit, change: before(draft.lesson, edit.change) };
    case 'changeWork':
      return { ...edit, work: draft.workAt(edit.task) };
    case 'noteChecks':
      return { ...edit, checks: draft.work.checks[edit.task] ?? NO_CHECKS };
  }
}

/**
 * Whether an edit changes only positions and looks, and nothing that the compiled circuit or its tables depend on.
 * @param lesson as it is before the edit.
 * @param isSilent whether parts of a kind take no part in the circuit, as notes.
 */
export function isCosmetic(
  lesson: Lesson,
  edit: Edit,
  isSilent: (kind: string) => boolean = () => false,
): boolean {
  switch (edit.type) {
    case 'addPart':
      return isSilent(edit.part.kind);
    case 'removePart':
    case 'changePart': {
      const kindNow = lesson.sheets.find((s) => s.id === edit.sheet)?.parts.get(edit.id)?.kind;
      if (kindNow !== undefined && isSilent(kindNow)) return true;
      if (edit.type === 'removePart') return false;
      const { kind, params, label, rank } = edit.change;
      return kind === undefined && params === undefined && label === undefined && rank === undefined;
    }
    case 'changeWire': {
      const was = lesson.sheets.find((s) => s.id === edit.sheet)?.wires.get(edit.id);
      const stays = (to: End | undefined, from: End | undefined) => !to || (!!from && sameJoin(to, from));
      return stays(edit.change.from, was?.from) && stays(edit.change.to, was?.to);
    }
    case 'changeSheet': {
      const was = lesson.sheets.find((s) => s.id === edit.id)?.time;
      const is = edit.change.time;
      // Expected outputs drive nothing.
      const drives = (plan: typeof is) => plan?.stimuli.find((s) => s.name === plan.driven)?.inputs;
      return !('time' in edit.change) || drives(is) === drives(was);
    }
    case 'changeLesson': {
      const { settings: is } = edit.change;
      const was = lesson.settings;
      return !is || (is.powerUp === was.powerUp && is.delays === was.delays);
    }
    case 'shift':
    case 'changeWork':
    case 'noteChecks':
      return true;
    case 'group':
      return edit.edits.every((e) => isCosmetic(lesson, e, isSilent));
    default:
      return false;
  }
}

/** Whether two ends join the same, be it at another place of the same wire. */
function sameJoin(a: End, b: End): boolean {
  if (isPinEnd(a)) return isPinEnd(b) && a.part === b.part && a.port === b.port;
  return !isPinEnd(b) && a.wire === b.wire;
}
