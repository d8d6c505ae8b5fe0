import { compile } from '../../netlist/compile';
import { pin, Sketch } from '../../testing/sketch';
import { expectTidy } from '../../testing/tidy-sheet';
import { gather, remediesFor, remediesForAll, widthAt, widthRemedies } from './remedies';

const problems = (s: Sketch) =>
  compile(s.sheet, s.lesson.sheets).diagnostics.filter((d) => d.severity === 'problem');

/** Takes the named remedy of the first problem of a kind. */
function applyRemedy(s: Sketch, code: string, name: string): void {
  const problem = problems(s).find((d) => d.code === code)!;
  const remedies = remediesFor(s.lesson, 'sheet1', problem);
  const remedy = remedies.find((r) => r.name === name);
  if (!remedy) throw new Error(`there is ${remedies.map((r) => r.name).join(', ') || 'no remedy'}`);
  s.make(remedy.edit);
}

test('a loose input gets a switch, or is made 0 or 1, and no problem is left', () => {
  for (const [name, column] of [
    ['Put a switch there', '0001'],
    ['Make it 0', '00'],
    ['Make it 1', '01'],
  ] as const) {
    const s = new Sketch();
    s.place('switch', 0, 0, 'Key');
    s.place('and', 16, 4);
    s.place('lamp', 30, 4, 'Drive');
    s.wire('switch1.Y', 'and1.A');
    s.wire('and1.Y', 'lamp1.A');
    applyRemedy(s, 'loose-input', name);
    expect(problems(s)).toEqual([]);
    expect(s.columns()).toEqual([column]);
    expectTidy(s.sheet);
  }
});

test('ten open inputs are mended by one remedy', () => {
  for (const [nth, name] of ['Put switches at all 10', 'Make all 10 0', 'Make all 10 1'].entries()) {
    const s = new Sketch();
    for (let i = 0; i < 5; i++) s.place('and', 16, 6 * i);
    const remedy = remediesForAll(s.lesson, 'sheet1', problems(s))[nth]!;
    expect(remedy.name).toBe(name);
    s.make(remedy.find());
    expect(problems(s)).toEqual([]);
    expectTidy(s.sheet);
  }
});

/** Four switches as a bus onto a row of so many lamps. */
function uneven(lamps: number): Sketch {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Count', { width: 4 });
  s.place('lamp', 40, 0, 'Lamps', { width: lamps });
  s.wire('switch1.Y', 'lamp1.A');
  return s;
}

test('unequal widths are joined by zeros, by the sign, by repeating, or by taking bits', () => {
  const shows = (s: Sketch) =>
    s
      .columns()
      .map((c) => c[0b1001])
      .join('');
  for (const [lamps, name, row] of [
    [8, 'Extend by zeros', '00001001'],
    [8, 'Extend by the sign', '11111001'],
    [8, 'Repeat it 2 times', '10011001'],
    [2, 'Take bits 1 to 0', '01'],
    [2, 'Take bits 3 to 2', '10'],
    [1, 'Take bit 3', '1'],
    [1, 'Take bit 2', '0'],
  ] as const) {
    const s = uneven(lamps);
    expect(problems(s).map((d) => d.code)).toContain('width-mismatch');
    applyRemedy(s, 'width-mismatch', name);
    expect(problems(s)).toEqual([]);
    expect(shows(s)).toBe(row);
    expectTidy(s.sheet);
  }
});

test('only what can be is offered', () => {
  const s = uneven(6);
  const names = remediesFor(s.lesson, 'sheet1', problems(s)[0]!).map((r) => r.name);
  expect(names).toEqual(['Extend by zeros', 'Extend by the sign']);
  expect(widthAt(s.sheet, { wire: 'w1', at: { x: 5, y: 0 } })).toBe(4);
  expect(widthRemedies(s.sheet, pin('switch1.Y'), 4, { part: 'nobody', port: 'A' })).toEqual([]);
});

test('a second name is changed, and tied outputs are taken apart', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Key');
  s.place('switch', 0, 8, 'Key');
  s.place('lamp', 30, 0, 'Drive');
  s.wire('switch1.Y', 'lamp1.A');
  applyRemedy(s, 'duplicate-name', 'Rename the second');
  expect(s.sheet.parts.get('switch2')!.label).toBe('Key 2');
  s.place('not', 12, 8);
  s.place('not', 12, 16);
  s.wire('switch2.Y', 'not1.A');
  s.wire('switch1.Y', 'not2.A');
  s.place('lamp', 30, 8, 'Warn');
  s.wire('not1.Y', 'lamp2.A');
  s.wire('not2.Y', 'lamp2.A');
  applyRemedy(s, 'outputs-tied', 'Take NOT 2 off');
  expect(problems(s).filter((d) => d.code === 'outputs-tied')).toEqual([]);
  expect(s.columns()[1]).toBe('1010');
});

test('single wires are gathered before a bus, the first as its highest bit', () => {
  const s = new Sketch();
  for (const [i, name] of ['C', 'B', 'A'].entries()) s.place('switch', 0, 6 * i, name);
  s.place('lamp', 40, 4, 'Bus', { width: 3 });
  s.make(
    gather(s.sheet, [pin('switch1.Y'), pin('switch2.Y'), pin('switch3.Y')], { part: 'lamp1', port: 'A' }),
  );
  expect(problems(s)).toEqual([]);
  expect(
    s
      .columns()
      .map((c) => c[0b100])
      .join(''),
  ).toBe('100');
  expectTidy(s.sheet);
});

test('what only the person can know has no button', () => {
  const s = new Sketch();
  s.place('nor', 0, 0);
  s.place('nor', 20, 0);
  s.wire('nor1.Y', 'nor2.A');
  s.wire('nor2.Y', 'nor1.A');
  const loop = compile(s.sheet).diagnostics.find((d) => d.code === 'loop')!;
  expect(loop.pins.length).toBeGreaterThan(0);
  expect(remediesFor(s.lesson, 'sheet1', loop)).toEqual([]);
});
