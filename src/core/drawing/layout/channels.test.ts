import fc from 'fast-check';
import { channelOf } from './channels';
import type { LayoutNode, Link } from './layout-nodes';

const node = (y: number): LayoutNode => ({ part: null, above: 0, below: 0, at: 0, y });

/** Links between heights on the left and on the right; each height on the right belongs to one of them. */
function linksOf(pairs: readonly (readonly [from: number, to: number])[]): Link[] {
  const [left, right] = [new Map<number, LayoutNode>(), new Map<number, LayoutNode>()];
  const at = (map: Map<number, LayoutNode>, y: number) => {
    const known = map.get(y) ?? node(y);
    map.set(y, known);
    return known;
  };
  return pairs.map(([from, to]) => ({
    from: at(left, from),
    fromAt: 0,
    to: at(right, to),
    toAt: 0,
    weight: 1,
  }));
}

test('a signal that keeps its height needs no track; branches of one signal share theirs', () => {
  const links = linksOf([
    [0, 0],
    [2, 4],
    [2, 6],
  ]);
  const { tracks, count, refused } = channelOf(links);
  expect([tracks.has(links[0]!), tracks.get(links[1]!), tracks.get(links[2]!)]).toEqual([false, 0, 0]);
  expect([count, refused.size]).toEqual([1, 0]);
});

test('who comes in where another goes out turns first; who does not meet shares a track', () => {
  const links = linksOf([
    [0, 4],
    [4, 8],
    [20, 24],
  ]);
  const { tracks, count } = channelOf(links);
  // The one that goes out at height 4 comes after the one that comes in there.
  expect(links.map((link) => tracks.get(link))).toEqual([1, 0, 0]);
  expect(count).toBe(2);
});

test('two that change their heights with each other cannot both be laid', () => {
  const links = linksOf([
    [0, 4],
    [4, 0],
  ]);
  expect(channelOf(links).refused.size).toBe(1);
});

test('signals that are laid never run along each other', () => {
  const pairs = fc
    .tuple(
      fc.uniqueArray(fc.nat(20), { minLength: 1, maxLength: 8 }),
      fc.uniqueArray(fc.nat(20), { minLength: 1, maxLength: 12 }),
      fc.array(fc.nat(), { minLength: 12, maxLength: 12 }),
    )
    .map(([from, to, choice]) => to.map((y, i) => [from[choice[i]! % from.length]!, y] as const));
  fc.assert(
    fc.property(pairs, (given) => {
      const links = linksOf(given);
      const { tracks, refused } = channelOf(links);
      const laid = links.filter((link) => !refused.has(link));
      for (const a of laid)
        for (const b of laid) {
          if (a.from === b.from) continue;
          const [x, other] = [tracks.get(a), tracks.get(b)];
          // At one height an incoming signal must have turned before an outgoing one starts.
          if (a.from.y === b.to.y) expect(x !== undefined && other !== undefined && x < other).toBe(true);
          // Along a track.
          const span = (from: LayoutNode) => [
            from.y,
            ...laid.filter((l) => l.from === from).map((l) => l.to.y),
          ];
          const [p, q] = [span(a.from), span(b.from)];
          const meet = Math.min(...p) <= Math.max(...q) && Math.min(...q) <= Math.max(...p);
          if (meet && x !== undefined && other !== undefined) expect(x).not.toBe(other);
        }
    }),
    { numRuns: 500 },
  );
});
