import { editorOn } from '@/commands/testing/editor-on';
import type { Point } from '@/core/circuit/geometry';
import { courseOf, pinOf } from '@/core/drawing/geometry/placement';
import { START_VIEW, toScreen } from '@/core/drawing/geometry/viewport';
import { findKind } from '@/core/parts/catalogue';
import { defaultParams } from '@/core/parts/params';
import { interlock, pin, Sketch } from '@/core/testing/sketch';
import { pick, pickBox } from '../canvas/pick';
import { PointerGesture } from './pointer-gesture';
import { Pointers } from './pointers';

const PLAIN_KEYS = { shift: false, add: false, middle: false };

/** A hand on a sheet; points are in grid steps. */
function handOn(sketch: Sketch) {
  const { session, context, popup, view, pointAt } = editorOn(sketch.lesson);
  const gesture = new PointerGesture(context);
  const at = (x: number, y: number) => toScreen(view(), { x, y });
  const press = (x: number, y: number, keys = {}) => {
    gesture.move(at(x, y));
    gesture.down(at(x, y), { ...PLAIN_KEYS, ...keys });
  };
  const release = (x: number, y: number, keys = {}) => {
    pointAt(at(x, y));
    gesture.up(at(x, y), { ...PLAIN_KEYS, ...keys });
  };
  const click = (x: number, y: number, keys = {}) => {
    press(x, y, keys);
    release(x, y, keys);
  };
  const drag = (from: [number, number], to: [number, number], keys = {}) => {
    press(...from, keys);
    const [end, start] = [at(...to), at(...from)];
    gesture.move({ x: (start.x + end.x) / 2, y: (start.y + end.y) / 2 });
    gesture.move(end);
    pointAt(end);
    gesture.up(end, { ...PLAIN_KEYS, ...keys });
  };
  return {
    session,
    context,
    gesture,
    popup,
    at,
    press,
    release,
    click,
    drag,
    view,
  };
}

/** Two switches at (0, 0) and (0, 8), an AND at (14, 4), a lamp at (26, 4); nothing wired. */
function loose(): Sketch {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A');
  s.place('switch', 0, 8, 'B');
  s.place('and', 14, 4);
  s.place('lamp', 26, 4, 'Y');
  return s;
}

test('a pin is picked before a body, a body before a wire, and bare paper is nothing', () => {
  const s = loose();
  const w = s.wire('switch1.Y', 'and1.A');
  expect(pick(s.sheet, { x: 2.2, y: 0.3 }, 1)).toMatchObject({ is: 'pin', part: 'switch1' });
  expect(pick(s.sheet, { x: 0.5, y: 0.5 }, 1)).toEqual({ is: 'part', part: 'switch1' });
  expect(pick(s.sheet, { x: 5.2, y: 0.2 }, 1)).toEqual({ is: 'wire', wire: w, at: { x: 5, y: 0 } });
  expect(pick(s.sheet, { x: 40, y: 40 }, 1)).toBeNull();
});

test('a box takes the parts that it touches and the wires that it holds', () => {
  const s = interlock();
  const found = pickBox(s.sheet, { x0: -3, y0: -3, x1: 3, y1: 8 });
  expect([...found.parts]).toEqual(['switch1', 'switch2']);
  expect(found.wires.size).toBe(0);
  expect(pickBox(s.sheet, { x0: -50, y0: -50, x1: 90, y1: 90 }).wires.size).toBe(8);
});

test('dragging from pin to pin wires them, and so do two clicks', () => {
  const h = handOn(loose());
  h.drag([2, 0], [11, 3]);
  h.click(2, 8);
  expect(h.gesture.isWiring).toBe(true);
  h.click(11, 5);
  expect(h.gesture.isWiring).toBe(false);
  h.drag([17, 4], [24, 4]);
  expect(h.session.state.diagnostics).toEqual([]);
  expect(h.session.sheet.wires.size).toBe(3);
});

test('dragging from the middle of a wire branches it', () => {
  const h = handOn(loose());
  h.drag([2, 0], [11, 3]);
  h.drag([4, 0], [11, 5]);
  expect(h.session.sheet.wires.get('w2')).toMatchObject({ from: { wire: 'w1', at: { x: 4, y: 0 } } });
});

test('a wire that ends nowhere is not made, and one that ends on a body says what to aim at', () => {
  const h = handOn(loose());
  h.drag([2, 0], [6, 20]);
  expect(h.session.sheet.wires.size).toBe(0);
  h.drag([2, 0], [14, 4]);
  expect(h.session.sheet.wires.size).toBe(0);
  expect(h.session.state.notice?.text).toMatch(/ends at a pin/);
});

test('while a wire is drawn its course is shown, and Escape gives it up', () => {
  const h = handOn(loose());
  h.press(2, 0);
  h.gesture.move(h.at(8, 1));
  h.gesture.move(h.at(11, 3));
  expect(h.gesture.wirePreview[0]!.at(-1)).toEqual({ x: 11, y: 3 });
  expect(h.gesture.cursor).toBe('crosshair');
  expect(h.gesture.cancel()).toBe(true);
  expect(h.gesture.wirePreview).toEqual([]);
  expect(h.gesture.cancel()).toBe(false);
});

test('a click flips a switch and selects it; dragging moves it instead', () => {
  const h = handOn(loose());
  h.click(0, 0);
  expect([...h.session.state.on]).toEqual(['switch1']);
  expect([...h.session.state.selection.parts]).toEqual(['switch1']);
  h.drag([0, 0], [3, 2]);
  expect(h.session.sheet.parts.get('switch1')!.at).toEqual({ x: 3, y: 2 });
  expect([...h.session.state.on]).toEqual(['switch1']);
});

test('parts that are selected move together, by whole steps', () => {
  const h = handOn(loose());
  h.drag([-3, -3], [3, 12], { shift: true });
  expect([...h.session.state.selection.parts].sort()).toEqual(['switch1', 'switch2']);
  h.drag([0.4, 0.4], [2.6, 1.7]);
  expect(h.session.sheet.parts.get('switch2')!.at).toEqual({ x: 2, y: 9 });
  h.click(40, 40);
  expect(h.session.state.selection.parts.size).toBe(0);
});

test('Ctrl-click adds to what is selected and takes away again', () => {
  const h = handOn(loose());
  h.click(14, 4);
  h.click(26, 4, { add: true });
  expect([...h.session.state.selection.parts]).toEqual(['and1', 'lamp1']);
  h.click(14, 4, { add: true });
  expect([...h.session.state.selection.parts]).toEqual(['lamp1']);
});

test('a button is 1 while it is pressed, also when the pointer slips into a move', () => {
  const s = new Sketch();
  s.place('button', 0, 0, 'Push');
  const h = handOn(s);
  h.press(0, 0);
  expect(h.session.state.on.has('button1')).toBe(true);
  h.release(0, 0);
  expect(h.session.state.on.has('button1')).toBe(false);
  h.press(0, 0);
  h.gesture.move(h.at(4, 0));
  expect(h.session.state.on.has('button1')).toBe(false);
  h.release(4, 0);
  expect(h.session.sheet.parts.get('button1')!.at).toEqual({ x: 4, y: 0 });
  h.click(4, 0, { shift: true });
  expect(h.session.state.on.has('button1')).toBe(true);
  h.click(4, 0);
  expect(h.session.state.on.has('button1')).toBe(false);
});

test('a double press moves a lever once and opens nothing; on the label it opens the settings', () => {
  const h = handOn(loose());
  const said = () => h.session.state.notice?.text ?? '';
  h.click(0, 0, { time: 1000 });
  h.click(0, 0, { time: 1120 });
  h.gesture.double(h.at(0, 0));
  expect([...h.session.state.on]).toEqual(['switch1']);
  expect(h.popup()).toBeNull();
  expect(said()).toMatch('press twice on the label');
  // To and fro at leisure, and as often as one likes.
  h.click(0, 0, { time: 1500 });
  expect([...h.session.state.on]).toEqual([]);
  h.click(0, 0, { time: 1900 });
  expect([...h.session.state.on]).toEqual(['switch1']);
  h.click(-1.8, 0, { time: 3000 });
  h.click(-1.8, 0, { time: 3100 });
  h.gesture.double(h.at(-1.8, 0));
  expect([...h.session.state.on]).toEqual(['switch1']);
  expect(h.popup()).toEqual({ is: 'settings', parts: ['switch1'], at: 'label' });
});

test('several parts are selected without a key: by a box, or one by one, and no lever moves', () => {
  const h = handOn(loose());
  const selecting = () => h.context.drawing.open({ is: 'selecting' });
  selecting();
  h.click(0, 0, { selecting: true });
  h.click(26, 4, { selecting: true });
  expect([...h.session.state.selection.parts]).toEqual(['switch1', 'lamp1']);
  expect([...h.session.state.on]).toEqual([]);
  expect(h.popup()).toEqual({ is: 'selecting' });
  h.drag([-6, -6], [8, 14], { selecting: true });
  expect([...h.session.state.selection.parts].sort()).toEqual(['switch1', 'switch2']);
  expect(h.popup()).toBeNull();
});

test('a pin is reached within fourteen pixels, and a wire ends at the pin that it comes near to', () => {
  const h = handOn(loose());
  h.drag([2.9, 0], [11, 2.2]);
  expect([...h.session.sheet.wires.values()]).toMatchObject([{ from: pin('switch1.Y'), to: pin('and1.A') }]);
  expect(h.popup()).toBeNull();
  // On the body, a little away from the pin, the part is meant.
  expect(h.gesture.under(h.at(12.9, 3))).toEqual({ is: 'part', part: 'and1' });
});

test('dragging paper pans; a double click opens settings', () => {
  const h = handOn(loose());
  h.drag([40, 40], [45, 42]);
  expect(h.view().x).toBeCloseTo(START_VIEW.x - 5, 6);
  h.gesture.double(h.at(14, 4));
  expect(h.popup()).toEqual({ is: 'settings', parts: ['and1'], at: 'label' });
  expect(defaultParams(findKind('and')!)).toEqual({ inputs: 2, width: 1, inverted: [] });
});

test('a wire let go over bare paper asks what fits there', () => {
  const h = handOn(loose());
  h.drag([2, 0], [6, 20]);
  expect(h.popup()).toMatchObject({
    is: 'typing',
    pull: [{ part: 'switch1', port: 'Y' }],
    at: h.at(6, 20),
  });
  expect(h.session.sheet.wires.size).toBe(0);
});

test('a drag over several pins of one part and another joins them one by one', () => {
  const s = new Sketch();
  s.place('dff', 0, 0);
  s.place('and', 20, 0, '', { inputs: 3 });
  const h = handOn(s);
  const at = (part: string, port: string) => pinOf(h.session.sheet, part, port)!.at;
  const [q, nq] = [at('dff1', 'Q'), at('dff1', "Q'")];
  const a = at('and1', 'A');
  h.press(q.x, q.y);
  for (const p of [{ x: q.x + 1, y: q.y + 1 }, nq, { x: nq.x + 3, y: nq.y }, a])
    h.gesture.move(h.at(p.x, p.y));
  expect(h.gesture.wirePreview).toHaveLength(2);
  h.release(a.x, a.y);
  const ends = [...h.session.sheet.wires.values()].map((w) => [w.from, w.to]);
  expect(ends).toEqual([
    [pin('dff1.Q'), pin('and1.A')],
    [pin("dff1.Q'"), pin('and1.B')],
  ]);
  h.session.undo();
  expect(h.session.sheet.wires.size).toBe(0);
});

test('with Ctrl a drag leaves a copy, joined to what it touches', () => {
  const h = handOn(loose());
  h.click(26, 4);
  h.drag([26, 4], [26, 14], { add: true });
  expect(h.session.sheet.parts.get('lamp2')).toMatchObject({ at: { x: 26, y: 14 }, label: 'Y 2' });
  expect([...h.session.state.selection.parts]).toEqual(['lamp2']);
  expect(h.session.sheet.parts.get('lamp1')!.at).toEqual({ x: 26, y: 4 });
});

test('a part dropped against a pin is joined, in one step with the move', () => {
  const h = handOn(loose());
  h.drag([26, 4], [19, 4]);
  expect(h.session.sheet.wires.size).toBe(1);
  h.session.undo();
  expect(h.session.sheet.wires.size).toBe(0);
  expect(h.session.sheet.parts.get('lamp1')!.at).toEqual({ x: 26, y: 4 });
});

test('a selected wire is pulled aside, and an end of it is put elsewhere', () => {
  const s = loose();
  s.wire('switch1.Y', 'lamp1.A');
  s.place('lamp', 26, 14, 'Z');
  const h = handOn(s);
  const course = () => courseOf(h.session.sheet, h.session.sheet.wires.get('w1')!);
  const piece = course().findIndex((p, i) => course()[i + 1]?.x === p.x);
  const x = course()[piece]!.x;
  h.click(x, 2);
  expect(h.session.state.selection.wires.has('w1')).toBe(true);
  h.press(x, 2);
  expect(h.gesture.cursor).toBe('crosshair');
  h.gesture.move(h.at(x - 3, 2));
  expect(h.gesture.cursor).toBe('ew-resize');
  h.release(x - 3, 2);
  expect(course()[piece]!.x).toBe(x - 3);
  h.drag([24, 4], [24, 14]);
  expect(h.session.sheet.wires.get('w1')!.to).toEqual(pin('lamp2.A'));
  expect(h.session.sheet.wires.size).toBe(1);
});

test('with Alt a drag over paper makes room', () => {
  const h = handOn(loose());
  h.drag([8, -3], [13, -3], { alt: true });
  expect(h.session.sheet.parts.get('and1')!.at).toEqual({ x: 19, y: 4 });
  expect(h.session.sheet.parts.get('lamp1')!.at).toEqual({ x: 31, y: 4 });
  expect(h.session.sheet.parts.get('switch1')!.at).toEqual({ x: 0, y: 0 });
  h.session.undo();
  h.drag([8, 2], [8, 5], { alt: true });
  expect(h.session.sheet.parts.get('switch2')!.at).toEqual({ x: 0, y: 11 });
});

test('two clicks on a wire select all that hangs together with it', () => {
  const s = interlock();
  const h = handOn(s);
  const [first] = courseOf(s.sheet, s.sheet.wires.get('w1')!);
  h.gesture.double(h.at(first!.x + 2, first!.y));
  expect([...h.session.state.selection.wires].sort()).toEqual(['w1', 'w4']);
});

test('two fingers move and zoom, and what the first had begun is given up', () => {
  const h = handOn(loose());
  const held: unknown[] = [];
  const fingers = new Pointers(h.gesture, h.context, (pixel) => held.push(pixel));
  fingers.down(1, h.at(2, 0), true, PLAIN_KEYS);
  fingers.move(1, h.at(4, 0), true);
  fingers.down(2, h.at(14, 0), true, PLAIN_KEYS);
  expect(h.gesture.isWiring).toBe(false);
  const before = toScreen(h.view(), { x: 4, y: 0 });
  fingers.move(2, h.at(24, 0), true);
  expect(h.view().scale).toBeCloseTo(2, 1);
  expect(toScreen(h.view(), { x: 4, y: 0 }).x).toBeCloseTo(before.x, 0);
  fingers.up(1, h.at(4, 0), true, PLAIN_KEYS);
  fingers.up(2, h.at(24, 0), true, PLAIN_KEYS);
  expect(h.session.sheet.wires.size).toBe(0);
  expect(held).toEqual([]);
});

test('a finger draws a wire, and one that rests asks what can be done', () => {
  jest.useFakeTimers();
  const h = handOn(loose());
  const held: Point[] = [];
  const fingers = new Pointers(h.gesture, h.context, (pixel) => held.push(pixel));
  fingers.down(1, h.at(2.6, 0.5), true, PLAIN_KEYS);
  fingers.move(1, h.at(8, 2), true);
  fingers.move(1, h.at(10.6, 3.4), true);
  fingers.up(1, h.at(10.6, 3.4), true, PLAIN_KEYS);
  expect(h.session.sheet.wires.size).toBe(1);
  fingers.down(1, h.at(26, 4), true, PLAIN_KEYS);
  jest.advanceTimersByTime(600);
  fingers.up(1, h.at(26, 4), true, PLAIN_KEYS);
  expect(held).toEqual([h.at(26, 4)]);
  expect(h.session.state.selection.parts.size).toBe(0);
  jest.useRealTimers();
});
