import fc from 'fast-check';
import { CATALOGUE } from '../parts/catalogue';
import { partOf, sheetOfParts } from '../testing/rig';
import { interlock } from '../testing/sketch';
import { boxOf, type Figure, fitted, type PathMark, recoloured } from './figure';
import { figureSvg } from './figure-svg';
import { figureTikz } from './figure-tikz';
import { BLACK_INKS, COLOUR_INKS } from './inks';
import { circleData } from './outlines';
import { hexOf, PaintRecorder } from './paint-recorder';
import { stepsOfPath } from './path-data';
import { sheetFigure } from './sheet-figure';

const path = (d: string, more: Partial<PathMark> = {}): PathMark => ({
  is: 'path',
  steps: stepsOfPath(d),
  fill: null,
  stroke: { colour: '#000000', width: 2, dash: [], cap: 'butt' },
  opacity: 1,
  clip: null,
  ...more,
});
const recorder = () => new PaintRecorder((text) => 6 * text.length);

/** Points along a path, its curves at so many places each. */
function pointsOf(d: string, each = 16): { x: number; y: number }[] {
  const points: { x: number; y: number }[] = [];
  for (const step of stepsOfPath(d)) {
    if (step.to === 'close') continue;
    const from = points.at(-1)!;
    if (step.to !== 'curve') points.push(step.at);
    else
      for (let i = 1; i <= each; i++) {
        const t = i / each;
        const mix = (a: number, b: number, c: number, e: number) =>
          (1 - t) ** 3 * a + 3 * (1 - t) ** 2 * t * b + 3 * (1 - t) * t ** 2 * c + t ** 3 * e;
        const [p, q] = step.by;
        points.push({ x: mix(from.x, p.x, q.x, step.at.x), y: mix(from.y, p.y, q.y, step.at.y) });
      }
  }
  return points;
}

describe('path data', () => {
  test('letters may be repeated, left out, relative or joined to their numbers', () => {
    const wanted = stepsOfPath('M1 2L3 2L3 5Z');
    for (const d of [
      'M1,2 3,2 3,5z',
      'm1 2 2 0 0 3z',
      'M1 2H3V5Z',
      'M1 2h2v3z',
      'M1 2L3 2 3 5Z',
      'M1 2l2-0 0+3Z',
    ])
      expect(stepsOfPath(d)).toEqual(wanted);
    expect(stepsOfPath('M.5-.5L1e1 2')).toEqual(stepsOfPath('M 0.5 -0.5 L 10 2'));
  });

  test('arcs keep to their ellipse, and end where they are said to', () => {
    fc.assert(
      fc.property(
        fc.record({
          rx: fc.integer({ min: 1, max: 40 }),
          ry: fc.integer({ min: 1, max: 40 }),
          from: fc.double({ min: 0, max: 6.2, noNaN: true }),
          by: fc.double({ min: 0.05, max: 6.2, noNaN: true }),
          way: fc.boolean(),
        }),
        ({ rx, ry, from, by, way }) => {
          const on = (angle: number) => `${rx * Math.cos(angle)} ${ry * Math.sin(angle)}`;
          const sweep = way ? 1 : -1;
          const d = `M${on(from)}A${rx} ${ry} 0 ${by > Math.PI ? 1 : 0} ${way ? 1 : 0} ${on(from + sweep * by)}`;
          const points = pointsOf(d);
          for (const { x, y } of points) expect((x / rx) ** 2 + (y / ry) ** 2).toBeCloseTo(1, 2);
          // It goes the way round that is said: half way it is opposite the chord's middle.
          const half = points[Math.floor(points.length / 2)]!;
          const wanted = from + (sweep * by) / 2;
          expect(Math.hypot(half.x / rx - Math.cos(wanted), half.y / ry - Math.sin(wanted))).toBeLessThan(
            by / 8 + 0.01,
          );
        },
      ),
    );
  });

  test('a radius that is too short is made long enough; none is a line', () => {
    const ends = (d: string) => pointsOf(d).at(-1);
    expect(ends('M0 0A1 1 0 0 1 10 0')).toEqual({ x: 10, y: 0 });
    expect(ends('M0 0A0 5 0 0 1 10 0')).toEqual({ x: 10, y: 0 });
    expect(stepsOfPath('M4 4A5 5 0 0 1 4 4')).toHaveLength(1);
  });

  test('smooth curves mirror the control point before them, and only that', () => {
    const smooth = stepsOfPath('M0 0C0 10 10 10 10 0S20 -10 20 0');
    expect(smooth).toEqual(stepsOfPath('M0 0C0 10 10 10 10 0C10 -10 20 -10 20 0'));
    expect(stepsOfPath('M0 0L10 0S20 10 20 0')).toEqual(stepsOfPath('M0 0L10 0C10 0 20 10 20 0'));
    expect(stepsOfPath('M0 0Q5 10 10 0T20 0')).toEqual(stepsOfPath('M0 0Q5 10 10 0Q15 -10 20 0'));
  });
});

describe('the recorder', () => {
  test('records where things end up, whatever was moved, turned and scaled', () => {
    const g = recorder();
    g.save();
    g.translate(10, 20);
    g.scale(2, 2);
    g.lineWidth = 1.5;
    g.setLineDash([3, 1]);
    g.beginPath();
    g.moveTo(0, 0);
    g.lineTo(5, 0);
    g.stroke();
    g.restore();
    g.fillRect(1, 1, 2, 2);
    const [line, area] = g.marks as [PathMark, PathMark];
    expect(line.steps).toEqual([
      { to: 'move', at: { x: 10, y: 20 } },
      { to: 'line', at: { x: 20, y: 20 } },
    ]);
    expect(line.stroke).toEqual({ colour: '#000000', width: 3, dash: [6, 2], cap: 'butt' });
    expect(area.stroke).toBeNull();
    expect(boxOf(area)).toEqual({ x0: 1, y0: 1, x1: 3, y1: 3 });
  });

  test('letters have their font, side, size and angle', () => {
    const g = recorder();
    g.font = '700 10px "Atkinson Hyperlegible Mono", monospace';
    g.textAlign = 'center';
    g.fillStyle = 'rgb(42, 35, 49)';
    g.scale(3, 3);
    g.rotate(Math.PI / 2);
    g.fillText('Q1', 0, 0);
    g.fillText('  ', 0, 0);
    expect(g.marks).toHaveLength(1);
    expect(g.marks[0]).toMatchObject({
      size: 30,
      weight: 700,
      face: 'mono',
      align: 'center',
      angle: 90,
      width: 36,
      colour: '#2a2331',
    });
  });

  test('what is clipped away takes no room', () => {
    const g = recorder();
    g.save();
    g.beginPath();
    g.rect(0, 0, 50, 50);
    g.clip();
    g.fillRect(40, 40, 100, 100);
    g.fillRect(200, 200, 10, 10);
    g.restore();
    expect(fitted('x', g.marks, null, 0)).toMatchObject({ width: 10, height: 10 });
  });

  test('colours as browsers name them', () => {
    expect(hexOf('#FFF')).toBe('#ffffff');
    expect(hexOf('rgb(122, 59, 105)')).toBe('#7a3b69');
    expect(hexOf('rgba(0 0 0 / 0.5)')).toBe('#000000');
    expect(hexOf('color(srgb 1 0.5 0 / 0.6)')).toBe('#ff8000');
    // A figure never has a colour that its writers cannot name.
    expect(hexOf('oklab(0.5 0.1 0.1)')).toBe('#000000');
  });
});

const name = fc.string({ unit: 'binary', maxLength: 12 });

describe('TikZ', () => {
  /** Whether braces, brackets and scopes close in order. */
  function expectClosed(tikz: string): void {
    let open = 0;
    for (const [found] of tikz.replaceAll(/^%.*$/gm, '').matchAll(/\\.|[{}]/gs)) {
      if (found === '{') open++;
      else if (found === '}') expect(--open).toBeGreaterThanOrEqual(0);
    }
    expect(open).toBe(0);
    const count = (what: string) => tikz.split(what).length;
    expect(count('\\begin{scope}')).toBe(count('\\end{scope}'));
    expect(tikz).not.toMatch(/NaN|undefined|Infinity/);
  }

  test('the interlock: its names, colours that are defined before they are used, no package but tikz', () => {
    const tikz = figureTikz(sheetFigure(interlock().sheet));
    expectClosed(tikz);
    for (const text of ['Key', 'Bars', 'Clear', 'Drive', 'Warn']) expect(tikz).toContain(`{${text}};`);
    const defined = [...tikz.matchAll(/\\definecolor\{(\w+)\}/g)].map((m) => m[1]);
    const used = new Set([...tikz.matchAll(/(?:fill|draw|text)=(\w+)/g)].map((m) => m[1]));
    expect([...used].filter((colour) => !defined.includes(colour))).toEqual([]);
  });

  test.each(CATALOGUE.map((k) => k.kind))('%s by either standard, however it is turned', (kind) => {
    for (const turn of [0, 1, 2, 3] as const)
      for (const symbols of ['distinctive', 'rectangular'] as const) {
        const sheet = sheetOfParts([{ ...partOf(kind, 'x'), turn }], []);
        expectClosed(figureTikz(sheetFigure(sheet, { settings: { symbols, crossings: 'plain' } })));
      }
  });

  test('names from outside are text, whatever they hold', () => {
    fc.assert(
      fc.property(name, (label) => {
        const sheet = { ...sheetOfParts([{ ...partOf('switch', 's'), label }], []), name: label };
        const tikz = figureTikz(sheetFigure(sheet));
        expectClosed(tikz);
        // A comment is one line, and no letter of a name begins another.
        expect(tikz.split('\n')[1]).toMatch(/^\\begin\{tikzpicture\}/);
      }),
    );
    const sheet = sheetOfParts([{ ...partOf('switch', 's'), label: '\\input{x}%$&#^' }], []);
    expect(figureTikz(sheetFigure(sheet))).toContain(
      '{\\textbackslash{}input\\{x\\}\\%\\$\\&\\#\\textasciicircum{}};',
    );
  });

  test('subscripts and bars, dashes and clips', () => {
    const figure: Figure = fitted(
      'x',
      [
        path('M0 0H9', { stroke: { colour: '#112233', width: 1, dash: [4], cap: 'round' } }),
        path('M0 5H90', { clip: { x0: 0, y0: 0, x1: 20, y1: 20 } }),
      ],
      null,
    );
    const tikz = figureTikz(figure);
    expectClosed(tikz);
    expect(tikz).toContain('line cap=round,dash pattern=on 3bp off 3bp');
    expect(tikz).toContain('\\clip (8.5,');
    const sheet = sheetOfParts([{ ...partOf('switch', 's'), label: '~{Q_0}' }], []);
    expect(figureTikz(sheetFigure(sheet))).toContain(
      '{$\\overline{\\mbox{Q}}$\\textsubscript{$\\overline{\\mbox{0}}$}};',
    );
  });
});

test('black on white has no colour in it, and leaves the shapes as they are', () => {
  const sheet = sheetOfParts(
    CATALOGUE.map((k, i) => partOf(k.kind, `x${i}`)),
    [],
  );
  const [coloured, black] = [COLOUR_INKS, BLACK_INKS].map((inks) => sheetFigure(sheet, { inks }));
  const shape = (figure: Figure) => recoloured(figure, () => '#000000');
  expect(shape(black!)).toEqual(shape(coloured!));
  const colours = [...figureSvg(black!).matchAll(/#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})/g)];
  expect(colours.length).toBeGreaterThan(20);
  for (const [, red, green, blue] of colours) expect([green, blue]).toEqual([red, red]);
});

test('a circle closes where it began', () => {
  const points = pointsOf(circleData(5, 5, 3));
  for (const { x, y } of points) expect(Math.hypot(x - 5, y - 5)).toBeCloseTo(3, 2);
  expect(points.at(-1)).toEqual(points[0]);
});
