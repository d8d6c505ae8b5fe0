import fc from 'fast-check';
import { inverse, Sat } from './sat';

const VARIABLES = 8;
const clauses = fc.array(fc.array(fc.nat(2 * VARIABLES - 1), { minLength: 1, maxLength: 3 }), {
  minLength: 1,
  maxLength: 45,
});

const solver = (all: readonly (readonly number[])[], variables = VARIABLES) => {
  const sat = new Sat();
  for (let v = 0; v < variables; v++) sat.variable();
  for (const clause of all) sat.clause(clause);
  return sat;
};
const heldBy = (literal: number, values: number) => ((values >> (literal >> 1)) & 1) !== (literal & 1);

test('values are found exactly where there are some, tried out', () => {
  fc.assert(
    fc.property(clauses, fc.uniqueArray(fc.nat(2 * VARIABLES - 1), { maxLength: 3 }), (all, assumed) => {
      const sat = solver(all);
      const isThere = Array.from({ length: 2 ** VARIABLES }, (_, values) => values).some(
        (values) =>
          assumed.every((l) => heldBy(l, values)) && all.every((c) => c.some((l) => heldBy(l, values))),
      );
      expect(sat.solve(assumed, 1e6)).toBe(isThere);
      if (!isThere) return;
      expect(assumed.every((l) => sat.holds(l))).toBe(true);
      expect(all.every((c) => c.some((l) => sat.holds(l)))).toBe(true);
    }),
    { numRuns: 500 },
  );
});

test('one after the other, with clauses added between, each search is right', () => {
  fc.assert(
    fc.property(clauses, clauses, fc.nat(2 * VARIABLES - 1), (first, second, literal) => {
      const sat = solver(first);
      sat.solve([literal], 1e6);
      sat.solve([inverse(literal)], 1e6);
      for (const clause of second) sat.clause(clause);
      expect(sat.solve([], 1e6)).toBe(solver([...first, ...second]).solve([], 1e6));
    }),
    { numRuns: 300 },
  );
});

/** So many pigeons in one hole fewer, each hole for one. */
function pigeons(count: number): { variables: number; clauses: number[][] } {
  const at = (pigeon: number, hole: number) => 2 * (pigeon * (count - 1) + hole);
  const clauses: number[][] = [];
  for (let p = 0; p < count; p++) clauses.push(Array.from({ length: count - 1 }, (_, hole) => at(p, hole)));
  for (let hole = 0; hole < count - 1; hole++)
    for (let p = 0; p < count; p++)
      for (let q = 0; q < p; q++) clauses.push([inverse(at(p, hole)), inverse(at(q, hole))]);
  return { variables: count * (count - 1), clauses };
}

test('what takes many conflicts is found out in the end, or given up when they are used up', () => {
  const { variables, clauses: all } = pigeons(8);
  expect(solver(all, variables).solve([], 2000)).toBeNull();
  const sat = solver(all, variables);
  expect(sat.solve([], 1e9)).toBe(false);
  expect(sat.effort).toBeGreaterThan(2000);
  // An unsatisfiable formula stays unsatisfiable under any assumption.
  expect(sat.solve([0], 1)).toBe(false);
});
