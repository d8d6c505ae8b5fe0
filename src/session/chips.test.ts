import fc from 'fast-check';
import { emptyLesson, sheetOf } from '@/core/circuit/lesson';
import { prove } from '@/core/logic/equivalence/prove-sequences';
import { compile } from '@/core/netlist/compile';
import { sheetPlan } from '@/core/packages/sheet-plan';
import { randomSheet } from '@/core/testing/random-circuit';
import { expectDone } from '@/core/values/result';
import { takeOffer } from './changes/chips';
import { Session } from './session';

test('an offer that is taken gives a drawing that does the same, of so many packages', () => {
  let taken = 0;
  fc.assert(
    fc.property(randomSheet({ inputs: 4, gates: 7 }), (sheet) => {
      const session = new Session({ ...emptyLesson('offer-test', 'Offer'), sheets: [sheet] });
      const { offer } = sheetPlan(sheet, []);
      if (!offer || offer.problem) return;
      expectDone(takeOffer(session, offer));
      const after = sheetOf(session.state.lesson, sheet.id)!;
      expect(expectDone(prove(compile(sheet), compile(after))).verdict).toBe('equivalent');
      expect(sheetPlan(after, []).plan.packages.length).toBeLessThanOrEqual(offer.packages);
      taken++;
      expectDone(session.undo());
      expect(sheetOf(session.state.lesson, sheet.id)!.parts).toEqual(sheet.parts);
    }),
    { numRuns: 20 },
  );
  expect(taken).toBeGreaterThan(5);
});
