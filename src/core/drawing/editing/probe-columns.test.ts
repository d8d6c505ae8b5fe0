import fc from 'fast-check';
import { apply } from '../../circuit/edit';
import { overlap } from '../../circuit/geometry';
import type { Sheet } from '../../circuit/sheet';
import { compile } from '../../netlist/compile';
import { findKind } from '../../parts/catalogue';
import { lessonOf, randomSheet } from '../../testing/random-circuit';
import { interlock, Sketch } from '../../testing/sketch';
import { bodyOf, footprintOf } from '../geometry/placement';
import { newPart } from './gestures';
import { probeEdit, probeOn } from './join-up';
import { probeCandidates, probeSpot } from './probe-columns';

const probe = (sheet: Sheet, name: string) => newPart(sheet, findKind('probe')!, { x: 0, y: 0 }, {}, name);

test('what goes straight to a lamp is a column already; what lies between can become one', () => {
  const { sheet } = interlock();
  expect(probeCandidates(sheet, compile(sheet))).toEqual([
    { part: 'not1', port: 'Y', name: 'NOT 1', probe: null },
  ]);
});

test('a part with several outputs is told by port, and one without wires is left out', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'T');
  s.place('tff', 12, 4, 'Drum');
  s.place('not', 24, 0);
  s.place('not', 24, 10);
  s.wire('tff1.Q', 'not1.A');
  s.wire("tff1.Q'", 'not2.A');
  expect(probeCandidates(s.sheet, compile(s.sheet)).map((b) => b.name)).toEqual(['Drum Q', "Drum Q'"]);
});

test('the probe stands clear of parts, and makes the column', () => {
  const s = interlock();
  const [not] = probeCandidates(s.sheet, compile(s.sheet));
  const fresh = probe(s.sheet, not!.name);
  const spot = probeSpot(s.sheet, compile(s.sheet), not!, fresh)!;
  const standing = probeOn(fresh, spot.at, spot.flat, spot.away);
  const others = [...s.sheet.parts.values()].map((p) => footprintOf(p));
  expect(others.filter((box) => overlap(box, bodyOf(standing)))).toEqual([]);
  s.make(probeEdit(s.sheet, fresh, spot.wire, spot.at, spot.flat, true, spot.away));
  const after = compile(s.sheet);
  expect(after.outputColumns.map((c) => c.name)).toEqual(['Drive', 'Warn', 'NOT 1']);
  expect(probeCandidates(s.sheet, after)[0]).toMatchObject({ name: 'NOT 1', probe: fresh.id });
  expect(s.columns().at(-1)).toBe('11001100');
});

test('in any circuit a probe reads what its part gives out', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 3, gates: 10 }), (sheet) => {
      const netlist = compile(sheet);
      for (const between of probeCandidates(sheet, netlist).filter((b) => b.probe === null)) {
        const fresh = probe(sheet, between.name);
        const spot = probeSpot(sheet, netlist, between, fresh);
        if (!spot) continue;
        const made = apply(
          lessonOf(sheet),
          probeEdit(sheet, fresh, spot.wire, spot.at, spot.flat, true, spot.away),
        );
        if (!made.ok) throw new Error(made.problem.message);
        const after = compile(made.value.sheets[0]!);
        expect(after.netsOfPin(fresh.id, 'A')).toEqual(after.netsOfPin(between.part, between.port));
      }
    }),
    { numRuns: 60 },
  );
});
