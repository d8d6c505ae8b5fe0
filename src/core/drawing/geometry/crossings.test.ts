import { Sketch } from '../../testing/sketch';
import { crossingsOf, HOP, stepsOf } from './crossings';
import { courseOf } from './placement';

test('a crossing is where two nets pass through each other, and not where one branches', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Key');
  s.place('lamp', 30, 0, 'Drive');
  s.place('lamp', 30, 12, 'Warn');
  const flat = s.wire('switch1.Y', 'lamp1.A');
  s.branch(flat, 20, 0, 'lamp2.A');
  s.place('switch', 10, -10, 'Bars');
  s.place('lamp', 10, 20, 'Low');
  s.make({ type: 'changePart', sheet: 'sheet1', id: 'switch2', change: { turn: 1 } });
  s.make({ type: 'changePart', sheet: 'sheet1', id: 'lamp3', change: { turn: 1 } });
  s.wire('switch2.Y', 'lamp3.A');
  expect([...crossingsOf(s.sheet)]).toEqual([[flat, [{ x: 10, y: 0 }]]]);
  const steps = stepsOf(courseOf(s.sheet, s.sheet.wires.get(flat)!), [{ x: 10, y: 0 }]);
  expect(steps).toEqual([
    { to: { x: 2, y: 0 } },
    { to: { x: 10 - HOP, y: 0 } },
    { to: { x: 10 + HOP, y: 0 }, over: true },
    { to: { x: 28, y: 0 } },
  ]);
});

test('hops come in the order in which a course passes them, whichever way it runs', () => {
  const steps = stepsOf(
    [
      { x: 20, y: 5 },
      { x: 0, y: 5 },
    ],
    [
      { x: 4, y: 5 },
      { x: 12, y: 5 },
      { x: 12, y: 6 },
      { x: 20, y: 5 },
    ],
  );
  expect(steps.filter((s) => s.over).map((s) => s.to.x)).toEqual([12 - HOP, 4 - HOP]);
});
