import { apply, type Edit } from '../../circuit/edit';
import { type Lesson, sheetOf } from '../../circuit/lesson';
import { isPinEnd } from '../../circuit/sheet';
import { blockParams } from '../../netlist/blocks';
import { blockParamsOf, readPins } from '../../parts/block';
import { sheetInside } from '../../parts/catalogue';
import { setParams } from './gestures';

/** The edits that bring the ports and names of all blocks up to date with their sheets. */
export interface DerivedUpdate {
  readonly edits: readonly Edit[];
  /** Wires that hung on a pin which is gone. */
  readonly wiresLost: number;
}

/** Ports that have another name now: as many new names as old ones are gone, in order and equally wide. */
function renames(before: string, after: string): [string, string][] {
  const [old, now] = [readPins(before), readPins(after)];
  const gone = old.filter((p) => !now.some((q) => q.name === p.name));
  const come = now.filter((p) => !old.some((q) => q.name === p.name));
  if (gone.length !== come.length) return [];
  return gone.flatMap((p, i): [string, string][] =>
    p.width === come[i]!.width ? [[p.name, come[i]!.name]] : [],
  );
}

export function updateBlocks(lesson: Lesson): DerivedUpdate {
  let now = lesson;
  const edits: Edit[] = [];
  let wiresLost = 0;
  for (const sheet of lesson.sheets)
    for (const part of sheet.parts.values()) {
      const inside = sheetInside(part, lesson.sheets);
      if (!inside) continue;
      const before = blockParamsOf(part);
      const params = blockParams(inside);
      if (Object.entries(params).every(([name, value]) => part.params[name] === value)) continue;
      const renamed = new Map([
        ...renames(before.inputs, params.inputs),
        ...renames(before.outputs, params.outputs),
      ]);
      const edit = setParams(now, sheet.id, part.id, { ...part.params, ...params }, renamed);
      const applied = apply(now, edit);
      if (!applied.ok) continue;
      const hanging = (l: Lesson) =>
        [...sheetOf(l, sheet.id)!.wires.values()].filter((w) =>
          [w.from, w.to].some((e) => isPinEnd(e) && e.part === part.id),
        ).length;
      wiresLost += hanging(now) - hanging(applied.value);
      now = applied.value;
      edits.push(edit);
    }
  return { edits, wiresLost };
}
