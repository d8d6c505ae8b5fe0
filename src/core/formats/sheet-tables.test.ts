import fc from 'fast-check';
import { areCanonicalParts, areCanonicalWires } from '../circuit/canonical-contents';
import { emptyLesson } from '../circuit/lesson';
import { randomDesign } from '../testing/random-design';
import { partOf, sheetOfParts } from '../testing/rig';
import { expectDone } from '../values/result';
import { lessonFromKept, lessonToKeptText } from './kept-lesson';
import { readLesson } from './lesson-file';
import { fromTransfer, type TransferredLesson, toTransfer } from './lesson-transfer';
import { fromTables, isLargeSheet, toTables } from './sheet-tables';
import { lessonToFile, writeLesson } from './write-lesson';

const designs = randomDesign({ storage: true, loops: true, blocks: true }, 30);
const throughJson = (value: unknown) => JSON.parse(JSON.stringify(value));

/** As a copy comes to a page: without what JSON does not know, and with its tables of parts and wires. */
const throughJsonOfMaps = (lesson: TransferredLesson): TransferredLesson => ({
  ...lesson,
  sheets: lesson.sheets.map((sheet) => ({ ...sheet, ...throughJson({ tables: sheet.tables }) })),
});

/** A sheet with everything that a part or a wire may have. */
const rich = lessonToFile({
  ...emptyLesson('tables', 'Tables'),
  sheets: [
    {
      ...sheetOfParts(
        [
          { ...partOf('and', 'g', {}, 3, 'Drive'), turn: 1, mirrored: true, symbols: 'rectangular' },
          partOf('and', 'h', { inputs: 3 }),
          partOf('lamp', 'l'),
        ],
        ['g.Y-l.A'],
      ),
      wires: new Map([
        [
          'w1',
          {
            id: 'w1',
            from: { part: 'g', port: 'Y' },
            to: { part: 'l', port: 'A' },
            course: [{ x: 5, y: -6 }],
            drawn: true,
          },
        ],
        [
          'w2',
          {
            id: 'w2',
            from: { wire: 'w1', at: { x: 5, y: -6 } },
            to: { part: 'h', port: 'A' },
            course: [],
            colour: 'teal',
            fault: 'cut',
          },
        ],
      ]),
    },
  ],
}).sheets[0]!;

test('parts and wires come back from lists as they were, and plain', () => {
  fc.assert(
    fc.property(designs, (lesson) => {
      for (const sheet of [rich, ...lessonToFile(lesson).sheets]) {
        const { parts, wires } = expectDone(fromTables(throughJson(toTables(sheet))));
        expect(parts).toEqual(throughJson(sheet.parts));
        expect(wires).toEqual(throughJson(sheet.wires));
        expect(areCanonicalParts(parts) && areCanonicalWires(wires)).toBe(true);
      }
    }),
    { numRuns: 30 },
  );
});

test('lists that were cut short or changed are refused by name, and never do harm', () => {
  const names = [
    'ids',
    'variants',
    'variant',
    'at',
    'labels',
    'ranks',
    'ports',
    'ends',
    'places',
    'corners',
    'course',
    'marks',
  ];
  const values = fc.oneof(
    fc.constantFrom<unknown>(
      null,
      '',
      'g',
      'a b c',
      7,
      [],
      {},
      [-1],
      [1e9],
      [0.5],
      ['push'],
      [['push', 'x']],
      [[0, null]],
      [[99, 'x']],
    ),
    fc.array(fc.integer({ min: -3, max: 3 }), { maxLength: 9 }),
  );
  let refusals = 0;
  fc.assert(
    fc.property(
      fc.constantFrom('parts', 'wires'),
      fc.constantFrom(...names),
      values,
      fc.boolean(),
      (table, name, value, isCut) => {
        const tables = throughJson(toTables(rich));
        if (!(name in tables[table])) return;
        if (isCut) tables[table][name] = tables[table][name].slice(0, -1);
        else tables[table][name] = value;
        const read = fromTables(tables);
        if (read.ok) return;
        refusals++;
        expect(read.problem.message).toMatch(/^its list “[a-z]+” does not fit the others, or is cut short$/);
      },
    ),
    { numRuns: 3000 },
  );
  expect(refusals).toBeGreaterThan(1000);
  expect(Object.keys(Array.prototype.push)).toEqual([]);
  const bomb = throughJson(toTables(rich));
  bomb.parts.variants[0].params.text = 'x'.repeat(20_000);
  bomb.parts.ids = Array.from({ length: 20_000 }, (_, i) => `n${i}`).join(' ');
  bomb.parts.variant = new Array(20_000).fill(0);
  bomb.parts.at = new Array(40_000).fill(0);
  expect(fromTables(bomb)).toMatchObject({ problem: { message: 'its parts unpack to more than 200.0 MB' } });
  for (const tables of [null, 7, [], {}, { parts: {} }]) expect(fromTables(tables).ok).toBe(false);
});

test('a large sheet is written as lists, in a fraction of the size, and read as it was; where they are damaged the sheet is named', () => {
  const parts = Array.from({ length: 5001 }, (_, i) => ({
    ...partOf('not', `n${i}`),
    at: { x: 9 * (i % 70), y: 5 * Math.floor(i / 70) },
  }));
  const sheet = sheetOfParts(
    parts,
    parts.slice(1).map(({ id }, i) => `n${i}.Y-${id}.A`),
  );
  const lesson = {
    ...emptyLesson('large', 'Large'),
    sheets: [sheet, { ...sheetOfParts([partOf('and', 'g')], []), id: 'small' }],
  };
  expect(lessonToFile(lesson).sheets.map(isLargeSheet)).toEqual([true, false]);
  const onItsWay = toTransfer(lesson);
  expect(onItsWay.sheets.map(({ parts, tables }) => [parts.size, tables !== undefined])).toEqual([
    [0, true],
    [1, false],
  ]);
  expect(fromTransfer(throughJsonOfMaps(onItsWay))).toEqual(lesson);
  expect(lessonFromKept(JSON.parse(lessonToKeptText(lesson)))).toEqual(lesson);
  expect(lessonToKeptText(lesson)).toContain('"tables"');
  const text = writeLesson(lesson);
  const several = {
    ...lesson,
    sheets: [1, 2, 3].map((n) => ({
      ...sheet,
      id: `s${n}`,
      parts: new Map([...sheet.parts].slice(0, 4000)),
      wires: new Map(),
    })),
  };
  expect(writeLesson(several).match(/"tables": /g)).toHaveLength(3);
  expect(expectDone(readLesson(writeLesson(several)))).toEqual(several);
  expect(text.length).toBeLessThan(JSON.stringify(lessonToFile(lesson)).length / 3);
  expect(expectDone(readLesson(text))).toEqual(lesson);
  expect(readLesson(text.replace('"corners": [0,', '"corners": ['))).toMatchObject({
    ok: false,
    problem: {
      message: 'at sheets › 1 › tables: its list “corners” does not fit the others, or is cut short',
    },
  });
  expect(readLesson(text.replace('"id":"n0"', '').replace('"ids": "n0 n1 ', '"ids": "n1 n1 '))).toMatchObject(
    {
      ok: false,
      problem: { message: expect.stringContaining('two parts have the id n1') },
    },
  );
});
