import type { Edit } from '../../circuit/edit';
import type { Lesson } from '../../circuit/lesson';
import type { Params, Part, Sheet } from '../../circuit/sheet';
import { declaredInputs, declaredOutputs, terminalName } from '../../netlist/declared';
import { kindOf } from '../../parts/catalogue';
import { MOST_ROWS } from '../../parts/notes';
import { pinsOf } from '../geometry/placement';

/** The parameters of a truth table on this sheet: its columns, a bus bit by bit, and the number of rows. */
export function truthParams(sheet: Sheet): Params {
  const columns = (parts: readonly Part[]) =>
    parts.flatMap((part) => {
      const width = pinsOf(part)[0]?.port.width ?? 1;
      const name = terminalName(part);
      return width === 1 ? [name] : Array.from({ length: width }, (_, i) => `${name}[${width - 1 - i}]`);
    });
  const inputs = columns(declaredInputs(sheet));
  const all = [...inputs, ...columns(declaredOutputs(sheet))];
  return {
    columns: all.join('\t').slice(0, 4000),
    rows: Math.min(MOST_ROWS, 2 ** Math.min(inputs.length, 10)),
  };
}

/** The edits that give each truth table on a sheet room for that sheet's own table. */
export function updateTruthNotes(lesson: Lesson): Edit[] {
  const edits: Edit[] = [];
  for (const sheet of lesson.sheets)
    for (const part of sheet.parts.values()) {
      if (kindOf(part).follows !== 'truth table') continue;
      const params = truthParams(sheet);
      if (params.columns === part.params.columns && params.rows === part.params.rows) continue;
      edits.push({ type: 'changePart', sheet: sheet.id, id: part.id, change: { params } });
    }
  return edits;
}
