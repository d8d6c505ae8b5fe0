import type { Edit } from '@/core/circuit/edit';
import type { Point } from '@/core/circuit/geometry';
import type { Params, ParamValue, Symbols } from '@/core/circuit/sheet';
import { changeKind, move, remove, setParams, turn } from '@/core/drawing/editing/gestures';
import { joinUp, removeHealing } from '@/core/drawing/editing/join-up';
import { kindOf, spokenName } from '@/core/parts/catalogue';
import { readParams } from '@/core/parts/params';
import type { PartKind } from '@/core/parts/part-kind';
import { DONE, type Result } from '@/core/values/result';
import { counted } from '@/core/values/wording';
import type { Session } from '../session';
import { NOTHING } from '../state';

/** Parts as they are named in a step of undo: one by its name, several by their number. */
export function namedParts({ sheet }: Session, ids: Iterable<string>): string {
  const list = [...ids];
  const only = list.length === 1 ? sheet.parts.get(list[0]!) : undefined;
  return only ? spokenName(only) : counted(list.length, 'part');
}

export function moveParts(session: Session, parts: ReadonlySet<string>, by: Point): Result<undefined> {
  if (parts.size === 0 || (by.x === 0 && by.y === 0)) return DONE;
  const { lesson, sheetId } = session.state;
  const merge = `move ${[...parts].sort().join()}`;
  return session.edit(`move ${namedParts(session, parts)}`, move(lesson, sheetId, parts, by), merge);
}

/** Drops dragged parts, or copies of them; contacts with other parts are joined in the same step. */
export function letGo(session: Session, edit: Edit | null, copies: boolean): Result<undefined> {
  if (!edit) return DONE;
  const before = session.sheet.parts;
  const { parts: moved } = session.state.selection;
  const dropped = session.transaction(
    `${copies ? 'copy' : 'move'} ${namedParts(session, moved)}`,
    (made): readonly string[] => {
      if (!made.make(edit)) return [];
      const parts = copies ? [...made.sheet.parts.keys()].filter((id) => !before.has(id)) : [...moved];
      made.make(joinUp(made.lesson, made.sheet.id, parts));
      return parts;
    },
  );
  if (!dropped.ok) return dropped;
  if (copies) session.select({ parts: new Set(dropped.value), wires: new Set() });
  return DONE;
}

/** @param heal whether the input of each part is led on to its readers. */
export function removeSelected(session: Session, heal = false): Result<undefined> {
  const { selection, lesson, sheetId } = session.state;
  const { parts, wires } = selection;
  const count = parts.size + wires.size;
  if (count === 0) return DONE;
  const what = [parts.size > 0 && namedParts(session, parts), wires.size > 0 && counted(wires.size, 'wire')]
    .filter(Boolean)
    .join(' and ');
  const edit = heal ? removeHealing(lesson, sheetId, parts) : remove(session.sheet, parts, wires);
  const removed = session.edit(`remove ${what}`, edit);
  if (!removed.ok) return removed;
  session.select(NOTHING);
  if (count > 1) session.sayUndoable(`Removed ${what}.`);
  return DONE;
}

export function turnSelected(session: Session, quarters = 1): Result<undefined> {
  const { selection, lesson, sheetId } = session.state;
  if (selection.parts.size === 0) return DONE;
  return session.edit(
    `turn ${namedParts(session, selection.parts)}`,
    turn(lesson, sheetId, selection.parts, quarters),
  );
}

export function relabel(session: Session, part: string, label: string): Result<undefined> {
  const now = session.sheet.parts.get(part);
  const text = label.trim().slice(0, 40);
  if (!now || now.label === text) return DONE;
  return session.edit(
    text ? `label ${text}` : 'remove the label',
    { type: 'changePart', sheet: session.state.sheetId, id: part, change: { label: text } },
    `label ${part}`,
  );
}

/** Makes a part one of another kind, with its label and its wires as far as the other has pins for them. */
export function changeInto(session: Session, id: string, kind: PartKind, params: Params): Result<undefined> {
  const { lesson, sheetId } = session.state;
  if (!session.sheet.parts.has(id)) return DONE;
  const before = session.sheet.wires.size;
  const name = `change ${namedParts(session, [id])} into ${kind.name}`;
  const changed = session.edit(name, changeKind(lesson, sheetId, id, kind, params));
  const lost = before - session.sheet.wires.size;
  if (changed.ok && lost > 0)
    session.sayUndoable(`${kind.name} has no pin for ${counted(lost, 'wire')}, which went with the change.`);
  return changed;
}

/** Draws parts by one of the two standards, whatever the lesson says; as the lesson says without one. */
export function drawBy(
  session: Session,
  parts: readonly string[],
  symbols: Symbols | undefined,
): Result<undefined> {
  const sheet = session.state.sheetId;
  return session.edit(`change the symbol of ${namedParts(session, parts)}`, {
    type: 'group',
    edits: parts.map((id) => ({ type: 'changePart', sheet, id, change: { symbols } })),
  });
}

/** Sets one parameter of parts, in one step of undo. Refused where a part's kind does not take the value. */
export function setParam(
  session: Session,
  parts: readonly string[],
  param: string,
  value: ParamValue | undefined,
): Result<undefined> {
  for (const id of parts) {
    const part = session.sheet.parts.get(id);
    if (!part) continue;
    const { [param]: _, ...others } = part.params;
    const params = readParams(kindOf(part), value === undefined ? others : { ...others, [param]: value });
    if (!params.ok) return params;
  }
  const set = session.transaction(
    `set ${namedParts(session, parts)}`,
    (made) => {
      for (const id of parts) {
        const part = made.sheet.parts.get(id);
        if (!part) continue;
        const { [param]: _, ...others } = part.params;
        const all = value === undefined ? others : { ...others, [param]: value };
        const params = readParams(kindOf(part), all);
        if (params.ok) made.make(setParams(made.lesson, made.sheet.id, id, params.value));
      }
    },
    `set ${param} of ${parts.join()}`,
  );
  return set.ok ? DONE : set;
}
