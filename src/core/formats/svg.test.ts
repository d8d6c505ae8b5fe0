import fc from 'fast-check';
import { CATALOGUE } from '../parts/catalogue';
import { partOf, sheetOfParts } from '../testing/rig';
import { interlock } from '../testing/sketch';
import { writeSvg } from './svg';

/** Whether all elements are closed in order, and the names of the elements. */
function elements(svg: string): string[] {
  const open: string[] = [];
  const seen: string[] = [];
  for (const [, closing, name, rest] of svg.matchAll(/<(\/?)([a-z]+)((?:[^<>"]|"[^"<]*")*)>/g)) {
    if (closing) expect(open.pop()).toBe(name);
    else {
      seen.push(name!);
      if (!rest!.endsWith('/')) open.push(name!);
    }
  }
  expect(open).toEqual([]);
  // Text between elements has no loose angle brackets.
  expect(svg.replaceAll(/<\/?[a-z]+(?:[^<>"]|"[^"<]*")*>/g, '')).not.toMatch(/[<>]/);
  return seen;
}

test('the interlock as a picture: its names, its wires, its dots', () => {
  const svg = writeSvg(interlock().sheet);
  const seen = elements(svg);
  for (const name of ['Key', 'Bars', 'Clear', 'Drive', 'Warn']) expect(svg).toContain(`>${name}</text>`);
  expect(seen.filter((e) => e === 'path').length).toBeGreaterThan(12);
  // A dot: filled with ink, without a line of its own.
  expect(svg).toMatch(/<path d="M[^"]*C[^"]*Z" fill="#2a2331"\/>/);
  expect(svg).not.toContain('NaN');
});

test.each(CATALOGUE.map((k) => k.kind))('%s is drawn by either standard, however it is turned', (kind) => {
  for (const turn of [0, 1, 2, 3] as const)
    for (const standard of ['distinctive', 'rectangular'] as const) {
      const sheet = sheetOfParts([{ ...partOf(kind, 'x'), turn }], []);
      const svg = writeSvg(sheet, { symbols: standard, crossings: 'plain' });
      expect(elements(svg).length).toBeGreaterThan(3);
      expect(svg).not.toMatch(/NaN|undefined/);
    }
});

test('names from outside are text, whatever they hold', () => {
  const sheet = { ...sheetOfParts([partOf('lamp', 'l', {}, 0, '<b>&"')], []), name: '</title><script>' };
  const svg = writeSvg(sheet);
  elements(svg);
  expect(svg).toContain('&lt;b&gt;&amp;&quot;');
  expect(svg).not.toContain('<script>');
});

test('whatever a name holds, the picture is well-formed XML', () => {
  fc.assert(
    fc.property(
      fc.string({ unit: 'binary', maxLength: 12 }),
      fc.array(fc.nat(0xffff), { maxLength: 6 }),
      (text, codes) => {
        const label = text + String.fromCharCode(...codes);
        const sheet = { ...sheetOfParts([{ ...partOf('switch', 's'), label }], []), name: label };
        const svg = writeSvg(sheet);
        elements(svg);
        // Nothing outside the characters of XML 1.0, and no `&` that begins no entity.
        expect(svg).not.toMatch(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/u);
        expect(svg).not.toMatch(/&(?!(?:amp|lt|gt|quot);)/);
      },
    ),
  );
});

test('a bus is a stronger line; an empty sheet is an empty picture', () => {
  const sheet = sheetOfParts(
    [partOf('switch', 'a', { width: 4 }), partOf('lamp', 'b', { width: 4 })],
    ['a.Y-b.A'],
  );
  expect(writeSvg(sheet)).toMatch(/stroke-width="3.6"/);
  expect(writeSvg(interlock().sheet)).not.toMatch(/stroke-width="3.6"/);
  expect(elements(writeSvg(sheetOfParts([], [])))).toEqual(['svg', 'title', 'rect']);
});
