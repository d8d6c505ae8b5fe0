import { apply, applyWithInverse, type Edit } from '../circuit/edit';
import { emptyLesson, type Lesson } from '../circuit/lesson';
import type { End, Params, Sheet } from '../circuit/sheet';
import { connect, newPart } from '../drawing/editing/gestures';
import { cell, truthTable } from '../logic/table/truth-table';
import { compile } from '../netlist/compile';
import { findKind } from '../parts/catalogue';
import { defaultParams } from '../parts/params';

/** A lesson put together by hand in a test: parts by kind, wires from `id.port` to `id.port`. */
export class Sketch {
  lesson: Lesson = emptyLesson('test-lesson', 'Test');

  get sheet(): Sheet {
    return this.lesson.sheets[0]!;
  }

  make(edit: Edit | null): this {
    if (!edit) throw new Error('nothing to do');
    const applied = apply(this.lesson, edit);
    if (!applied.ok) throw new Error(applied.problem.message);
    this.lesson = applied.value;
    return this;
  }

  place(kind: string, x: number, y: number, label = '', params: Params = {}): string {
    const entry = findKind(kind)!;
    const part = newPart(this.sheet, entry, { x, y }, { ...defaultParams(entry), ...params }, label);
    this.make({ type: 'addPart', sheet: this.sheet.id, part });
    return part.id;
  }

  wire(from: string, to: string): string {
    return this.join(pin(from), pin(to));
  }

  branch(wire: string, x: number, y: number, to: string): string {
    return this.join({ wire, at: { x, y } }, pin(to));
  }

  /** The column of each output of its truth table, row 0 first: `0001`. */
  columns(): string[] {
    const table = truthTable(compile(this.sheet, this.lesson.sheets));
    return table.outputs.map((_, output) =>
      Array.from({ length: table.rows }, (_, row) => '01XZ'[cell(table, output, row)]).join(''),
    );
  }

  private join(from: End, to: End): string {
    const before = new Set(this.sheet.wires.keys());
    this.make(connect(this.sheet, from, to));
    return [...this.sheet.wires.keys()].find((id) => !before.has(id))!;
  }
}

/** The edit that takes another back, for a lesson on which that one applies. */
export function inverseOf(lesson: Lesson, edit: Edit): Edit {
  const made = applyWithInverse(lesson, edit);
  if (!made.ok) throw new Error(made.problem.message);
  return made.value.inverse;
}

export function pin(text: string): End {
  const dot = text.indexOf('.');
  return { part: text.slice(0, dot), port: text.slice(dot + 1) };
}

/** The drive interlock: Drive = Key and Bars and Clear; Warn = Key and not Bars. */
export function interlock(): Sketch {
  const s = new Sketch();
  for (const [i, name] of ['Key', 'Bars', 'Clear'].entries()) s.place('switch', 0, 6 * i, name);
  s.place('and', 16, 4, '', { inputs: 3 });
  s.place('not', 12, 18);
  s.place('and', 20, 17);
  s.place('lamp', 30, 4, 'Drive');
  s.place('lamp', 30, 17, 'Warn');
  s.wire('switch1.Y', 'and1.A');
  s.wire('switch2.Y', 'and1.B');
  s.wire('switch3.Y', 'and1.C');
  s.wire('switch1.Y', 'and2.A');
  s.wire('switch2.Y', 'not1.A');
  s.wire('not1.Y', 'and2.B');
  s.wire('and1.Y', 'lamp1.A');
  s.wire('and2.Y', 'lamp2.A');
  return s;
}
