import { defaultParams, findKind } from '@/core/parts/catalogue';
import { interlock, Sketch } from '@/core/testing/sketch';
import { Session } from '@/session/session';
import { Hand } from './hand';
import { pick, pickBox } from './pick';
import { START_VIEW, toScreen, type View } from './view';

const PLAIN_KEYS = { shift: false, add: false, middle: false };

/** A hand on a sheet; points are in grid steps. */
function handOn(sketch: Sketch) {
  const session = new Session(sketch.lesson);
  let view: View = START_VIEW;
  const opened: string[] = [];
  const hand = new Hand({
    session,
    view: () => view,
    setView: (next) => {
      view = next;
    },
    repaint: () => {},
    openSettings: (part) => opened.push(part),
  });
  const at = (x: number, y: number) => toScreen(view, { x, y });
  const press = (x: number, y: number, keys = {}) => {
    hand.move(at(x, y));
    hand.down(at(x, y), { ...PLAIN_KEYS, ...keys });
  };
  const release = (x: number, y: number, keys = {}) => hand.up(at(x, y), { ...PLAIN_KEYS, ...keys });
  const click = (x: number, y: number, keys = {}) => {
    press(x, y, keys);
    release(x, y, keys);
  };
  const drag = (from: [number, number], to: [number, number], keys = {}) => {
    press(...from, keys);
    const [end, start] = [at(...to), at(...from)];
    hand.move({ x: (start.x + end.x) / 2, y: (start.y + end.y) / 2 });
    hand.move(end);
    hand.up(end, { ...PLAIN_KEYS, ...keys });
  };
  return { session, hand, opened, at, press, release, click, drag, view: () => view };
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
  expect(h.hand.wiring).toBe(true);
  h.click(11, 5);
  expect(h.hand.wiring).toBe(false);
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
  h.hand.move(h.at(8, 1));
  h.hand.move(h.at(11, 3));
  expect(h.hand.rubber!.at(-1)).toEqual({ x: 11, y: 3 });
  expect(h.hand.cursor).toBe('crosshair');
  expect(h.hand.cancel()).toBe(true);
  expect(h.hand.rubber).toBeNull();
  expect(h.hand.cancel()).toBe(false);
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
  h.hand.move(h.at(4, 0));
  expect(h.session.state.on.has('button1')).toBe(false);
  h.release(4, 0);
  expect(h.session.sheet.parts.get('button1')!.at).toEqual({ x: 4, y: 0 });
  h.click(4, 0, { shift: true });
  expect(h.session.state.on.has('button1')).toBe(true);
  h.click(4, 0);
  expect(h.session.state.on.has('button1')).toBe(false);
});

test('dragging paper pans; a double click opens settings', () => {
  const h = handOn(loose());
  h.drag([40, 40], [45, 42]);
  expect(h.view().x).toBeCloseTo(START_VIEW.x - 5, 6);
  h.hand.double(h.at(14, 4));
  expect(h.opened).toEqual(['and1']);
  expect(defaultParams(findKind('and')!)).toEqual({ inputs: 2, width: 1, inverted: [] });
});
