import fc from 'fast-check';
import { areCanonicalParts, areCanonicalWires } from './canonical-contents';
import { PartFile, WireFile } from './lesson-schema';

const part = {
  id: 'g1',
  kind: 'and',
  at: { x: 3, y: -4 },
  turn: 1,
  label: 'Gate',
  mirrored: true,
  symbols: 'rectangular',
  rank: 2,
  params: { inputs: 2, name: 'desk', isOpen: true, widths: [1, 2] },
};
const wire = {
  id: 'w1',
  from: { part: 'g1', port: 'Y' },
  to: { wire: 'w2', at: { x: 1, y: 2 } },
  course: [{ x: 9, y: 0 }],
  drawn: true,
  colour: 'rose',
  fault: 'tied w2',
};

/** Values of which some fit somewhere, and most do not. */
const values = [
  ...[
    undefined,
    null,
    '',
    ' ',
    'g1',
    'and',
    '1st',
    ' Y',
    'Y ',
    'cut',
    'tied w1',
    'rose',
    'distinctive',
    'x'.repeat(61),
  ],
  ...[
    0,
    1,
    3,
    4,
    -1,
    0.5,
    1e6,
    1e6 + 1,
    1e5,
    1e5 + 1,
    2 ** 60,
    Number.NaN,
    Number.POSITIVE_INFINITY,
    true,
    false,
  ],
  ...[
    [],
    {},
    [1],
    [0.5],
    { x: 1, y: 2 },
    { x: 1 },
    { x: 1, y: 2, z: 3 },
    { part: 'g1', port: 'Y' },
    { part: 'g1' },
  ],
  ...[
    { wire: 'w1', at: { x: 0, y: 0 } },
    { wire: 'w1', at: 0 },
    { part: 'g1', at: { x: 0, y: 0 } },
    [{ x: 1, y: 2 }],
  ],
  ...[
    { wire: 'w1', port: 'Y' },
    Array.from({ length: 201 }, () => ({ x: 0, y: 0 })),
    { A: 1 },
    { a: { b: 1 } },
  ],
];

const copyOf = (value: unknown): unknown =>
  Array.isArray(value) ? [...value] : typeof value === 'object' && value !== null ? { ...value } : value;

/** An object with some of its fields, or fields of those, taken away, put in or changed. */
function changed(object: object): fc.Arbitrary<Record<string, unknown>> {
  const paths = [
    ...Object.keys(object),
    'other',
    'at x',
    'from part',
    'from at',
    'to port',
    'to wire',
    'params 1st',
    'params inputs',
  ];
  const change = fc.record({
    path: fc.constantFrom(...paths),
    value: fc.constantFrom(...values),
    isTaken: fc.boolean(),
  });
  return fc.array(change, { maxLength: 3 }).map((changes) => {
    const copy = JSON.parse(JSON.stringify(object)) as Record<string, unknown>;
    for (const { path, value, isTaken } of changes) {
      const [name, inner] = path.split(' ') as [string, string | undefined];
      const host = (inner === undefined ? copy : copy[name]) as Record<string, unknown> | undefined;
      if (typeof host !== 'object' || host === null) continue;
      if (isTaken) delete host[inner ?? name];
      else host[inner ?? name] = copyOf(value);
    }
    return copy;
  });
}

test.each([
  ['part', part, areCanonicalParts, PartFile],
  ['wire', wire, areCanonicalWires, WireFile],
] as const)('the schema returns a %s in canonical form unchanged', (_, sample, arePlain, schema) => {
  expect(arePlain([sample])).toBe(true);
  let plain = 0;
  fc.assert(
    fc.property(changed(sample), (value) => {
      if (!arePlain([value])) return;
      plain++;
      expect(schema.parse(value)).toEqual(value);
      expect(Object.keys(schema.parse(value)).sort()).toEqual(Object.keys(value).sort());
    }),
    { numRuns: 4000 },
  );
  expect(plain).toBeGreaterThan(100);
});

test('a part with a field left out is not canonical: the schema fills in the default', () => {
  const { turn: _, ...bare } = part;
  expect(areCanonicalParts([part, bare])).toBe(false);
  expect(PartFile.parse(bare).turn).toBe(0);
});
