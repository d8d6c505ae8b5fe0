import type { Part, Sheet } from '../circuit/sheet';
import { findKind, kindOf, sheetInside } from '../parts/catalogue';
import { textHash } from '../values/text-hash';
import { wiringOf } from './sheet-wiring';

/** Rounds of refinement: what is farther apart than this is told apart by what lies between. */
const ROUNDS = 8;

/** Signatures of sheets inside blocks, by id: each is found once, however often it is used. */
type Known = Map<string, string>;

/** What a part is, by itself: its kind and parameters; inputs and outputs also by their names. */
function partText(part: Part, sheets: readonly Sheet[], path: readonly string[], known: Known): string {
  const kind = findKind(part.kind);
  const inside = sheetInside(part, sheets);
  if (inside) {
    if (path.includes(inside.id)) return 'block itself';
    const within = known.get(inside.id) ?? signatureOf(inside, sheets, [...path, inside.id], known);
    known.set(inside.id, within);
    return `block ${within}`;
  }
  const params = Object.entries(part.params).sort(([a], [b]) => (a < b ? -1 : 1));
  const isNamed = kind?.role !== undefined || kind?.boundary !== undefined || kind?.joinsByLabel === true;
  // The name of a net label matters for what it joins, and the wiring knows that.
  const name = isNamed && !kind?.joinsByLabel ? part.label.trim().toLowerCase() : '';
  return JSON.stringify([part.kind, params, name]);
}

/**
 * A text that circuits have in common which differ only in places, in names of parts, in the courses of their wires, and in the
 * order of the inputs of a gate. Found by refining a colour of each part by those of its neighbours (Weisfeiler and Leman, 1968);
 * circuits that this cannot tell apart hardly ever come up.
 * @param sheets where the sheets of its blocks are.
 */
export const circuitSignature = (sheet: Sheet, sheets: readonly Sheet[]): string =>
  signatureOf(sheet, sheets, [sheet.id], new Map());

function signatureOf(sheet: Sheet, sheets: readonly Sheet[], path: readonly string[], known: Known): string {
  const { parts, templates, groupOfPin } = wiringOf(sheet);
  const counted = parts.flatMap((part, i) => {
    const kind = kindOf(part);
    return kind.isNote || kind.isProbe || kind.joinsByLabel ? [] : [{ part, i, kind }];
  });
  const pins = counted.map(({ i, kind }) =>
    templates[i]!.ports.map((port, at) => ({
      net: groupOfPin(i, at)[0],
      // Inputs of a gate can be exchanged.
      port: kind.isGate && port.direction === 'in' ? 'in' : port.name,
    })),
  );
  const texts = counted.map(({ part }) => partText(part, sheets, path, known));
  let colours = texts.map(textHash);
  for (let round = 0; round < Math.min(ROUNDS, counted.length + 1); round++) {
    const atNet = new Map<number, string[]>();
    for (const [p, list] of pins.entries())
      for (const { net, port } of list) {
        const there = atNet.get(net) ?? [];
        there.push(`${port} ${colours[p]}`);
        atNet.set(net, there);
      }
    const nets = new Map([...atNet].map(([net, there]) => [net, textHash(there.sort().join())]));
    colours = pins.map((list, p) =>
      textHash(
        `${texts[p]} ${list
          .map(({ net, port }) => `${port} ${nets.get(net)}`)
          .sort()
          .join()}`,
      ),
    );
  }
  return `${counted.length} ${textHash(colours.sort().join())}`;
}
