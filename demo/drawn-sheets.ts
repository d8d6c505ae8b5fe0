import { apply, type Edit } from '../src/core/circuit/edit';
import { emptyLesson, type Lesson } from '../src/core/circuit/lesson';
import type { Params, Sheet } from '../src/core/circuit/sheet';
import { tidy } from '../src/core/drawing/editing/arrange';
import { connect, newPart } from '../src/core/drawing/editing/gestures';
import { readVerilog } from '../src/core/formats/verilog/read';
import { findKind } from '../src/core/parts/catalogue';
import { defaultParams } from '../src/core/parts/params';
import { drawStatement } from '../src/core/synthesis/draw-statement';
import { readStatement } from '../src/core/synthesis/statement';
import { expectDone } from '../src/core/values/result';

/*
 * Sheets of the carousel scenario, drawn of typed statements or modules and laid out as the command does it.
 */

/** The sheet laid out as the command does it. @param others the sheets of its blocks. */
export function tidied(sheet: Sheet, others: readonly Sheet[] = []): Sheet {
  const lesson = { ...emptyLesson('tidied', 'Tidied'), sheets: [sheet, ...others] };
  return expectDone(apply(lesson, tidy(lesson, sheet.id))).sheets[0]!;
}

/** A sheet drawn of typed statements. */
export function drawn(...statements: readonly string[]): Sheet {
  let lesson = emptyLesson('drawn', 'Drawn');
  const id = lesson.sheets[0]!.id;
  for (const [i, text] of statements.entries()) {
    const statement = expectDone(readStatement(lesson, id, text));
    lesson = expectDone(apply(lesson, drawStatement(lesson, id, statement, { x: 4, y: 6 + 14 * i }).edit));
  }
  return tidied(lesson.sheets[0]!);
}

/**
 * A sheet drawn of typed statements that use other sheets as blocks.
 * @param buses switches that are there before, with their bits.
 */
export function called(
  others: readonly Sheet[],
  statements: readonly string[],
  buses: Readonly<Record<string, number>> = {},
): Sheet {
  const lesson = emptyLesson('called', 'Called');
  let around: Lesson = { ...lesson, sheets: [...lesson.sheets, ...others] };
  const { id } = lesson.sheets[0]!;
  const make = (edit: Edit) => {
    around = expectDone(apply(around, edit));
  };
  const kind = findKind('switch')!;
  for (const [i, [name, width]] of Object.entries(buses).entries()) {
    const at = { x: 0, y: 6 * i };
    const part = newPart(around.sheets[0]!, kind, at, { ...defaultParams(kind), width }, name);
    make({ type: 'addPart', sheet: id, part });
  }
  for (const [i, text] of statements.entries()) {
    const statement = expectDone(readStatement(around, id, text));
    make(drawStatement(around, id, statement, { x: 4, y: 6 + 14 * i }).edit);
  }
  return tidied(around.sheets[0]!, others);
}

/** The sheet of a module with switches and lamps at its ports; an input `clk` is a clock. */
export function module(source: string): Sheet {
  const sheet = expectDone(readVerilog(source, 'Module')).sheets[0]!;
  const parts = new Map(sheet.parts);
  for (const [id, part] of parts) {
    if (part.kind !== 'port') continue;
    const isClock = part.label === 'clk';
    const kind = findKind(part.params.direction === 'out' ? 'lamp' : isClock ? 'clock' : 'switch')!;
    const width: Params = isClock ? {} : { width: part.params.width! };
    const label = isClock ? 'Clock' : part.label;
    parts.set(id, { ...part, kind: kind.kind, label, params: { ...defaultParams(kind), ...width } });
  }
  return tidied({ ...sheet, parts });
}

/** The interlock of the demo scenario. */
export const interlock = () => drawn('Drive = Key and Bars and Clear', 'Warn = Key and not Bars');
export const toggler = () =>
  module(`module toggler(input clk, input turn, output reg q);
initial q = 0;
always @(posedge clk) if (turn) q <= ~q;
endmodule`);
export const counter = (limit: number) =>
  module(`module counter(input clk, output reg [3:0] Count);
initial Count = 0;
always @(posedge clk) Count <= ${limit === 16 ? 'Count + 1' : `Count == ${limit - 1} ? 4'd0 : Count + 1`};
endmodule`);

/** Four toggling flip-flops, each clocked by the inverted output of the one before it. */
export function rippleCounter(): Sheet {
  let lesson = emptyLesson('ripple', 'Ripple');
  const { id } = lesson.sheets[0]!;
  const make = (edit: Edit | null) => {
    lesson = expectDone(apply(lesson, edit!));
  };
  const place = (kind: string, x: number, y: number, label = '', params: Params = {}) => {
    const found = findKind(kind)!;
    const part = newPart(lesson.sheets[0]!, found, { x, y }, { ...defaultParams(found), ...params }, label);
    make({ type: 'addPart', sheet: id, part });
    return part.id;
  };
  const wire = (from: string, port: string, part: string, to: string) =>
    make(connect(lesson.sheets[0]!, { part: from, port }, { part, port: to }));
  const clock = place('clock', 0, 40, 'Clock', { hertz: 1 });
  const one = place('constant', 0, 20, '', { value: 1 });
  const join = place('join', 90, 10, '', { widths: [1, 1, 1, 1] });
  wire(join, 'Y', place('lamp', 110, 10, 'Count', { width: 4 }), 'A');
  let before: readonly [part: string, port: string] = [clock, 'Y'];
  for (let i = 0; i < 4; i++) {
    const store = place('tff', 20 + 16 * i, 30, `Q${i}`);
    wire(one, 'Y', store, 'T');
    wire(before[0], before[1], store, 'C');
    wire(store, 'Q', join, `I${i}`);
    before = [store, "Q'"];
  }
  return tidied(lesson.sheets[0]!);
}
