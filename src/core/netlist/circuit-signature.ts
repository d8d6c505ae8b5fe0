import type { Part, Sheet } from '../circuit/sheet';
import { findKind, kindOf, sheetInside } from '../parts/catalogue';
import { numberHash, textNumber } from '../values/text-hash';
import { wiringOf } from './sheet-wiring';

/** Rounds of refinement: what is farther apart than this is told apart by what lies between. */
const ROUNDS = 8;

/** Signatures of sheets inside blocks, by id: each is found once, however often it is used. */
type Known = Map<string, string>;

/** Contents of blocks whose circuit does not count, by the ids of their sheets: given by a task, or the answer to another one. */
export type Opaque = ReadonlyMap<string, string>;

/** A circuit as a graph: what place, names of parts and order do not change. */
export interface CircuitGraph {
  /** Without notes, probes and labels of nets. */
  readonly parts: readonly Part[];
  /** For each part a number that stands for it with all that lies around it. */
  readonly colours: readonly number[];
  /** The same with only its nearest neighbours. */
  readonly near: readonly number[];
  /** The pins at each net. */
  readonly nets: readonly (readonly CircuitPin[])[];
  /** A text that circuits have in common which differ only in places, names and order; see `circuitSignature`. */
  readonly signature: string;
}

export interface CircuitPin {
  /** The number of its part. */
  readonly part: number;
  /** Its name; `in` for the inputs of a gate, which can be exchanged. */
  readonly port: string;
  readonly isDriver: boolean;
}

/** What a part is, by itself: its kind and parameters; inputs and outputs also by their names. */
function partText(
  part: Part,
  sheets: readonly Sheet[],
  path: readonly string[],
  known: Known,
  opaque: Opaque,
): string {
  const kind = findKind(part.kind);
  const inside = sheetInside(part, sheets);
  if (inside) {
    const named = opaque.get(inside.id);
    if (named !== undefined) return `block of ${named}`;
    if (path.includes(inside.id)) return 'block itself';
    const within =
      known.get(inside.id) ?? graphOf(inside, sheets, [...path, inside.id], known, opaque).signature;
    known.set(inside.id, within);
    return `block ${within}`;
  }
  const params = Object.entries(part.params).sort(([a], [b]) => (a < b ? -1 : 1));
  const isNamed = kind?.role !== undefined || kind?.boundary !== undefined || kind?.joinsByLabel === true;
  // The name of a net label matters for what it joins, and the wiring knows that.
  const name = isNamed && !kind?.joinsByLabel ? part.label.trim().toLowerCase() : '';
  return JSON.stringify([part.kind, params, name]);
}

const NONE: Opaque = new Map();

/**
 * A text that circuits have in common which differ only in places, in names of parts, in the courses of their wires, and in the
 * order of the inputs of a gate. Found by refining a colour of each part by those of its neighbours (Weisfeiler and Leman, 1968);
 * circuits that this cannot tell apart hardly ever come up.
 * @param sheets where the sheets of its blocks are.
 */
export const circuitSignature = (sheet: Sheet, sheets: readonly Sheet[]): string =>
  circuitGraph(sheet, sheets).signature;

/** A circuit as a graph. @param opaque blocks that count by a name, and not by what is inside. */
export const circuitGraph = (sheet: Sheet, sheets: readonly Sheet[], opaque: Opaque = NONE): CircuitGraph =>
  graphOf(sheet, sheets, [sheet.id], new Map(), opaque);

/** After so many rounds a colour tells of the nearest neighbours. */
const NEAR = 1;

function graphOf(
  sheet: Sheet,
  sheets: readonly Sheet[],
  path: readonly string[],
  known: Known,
  opaque: Opaque,
): CircuitGraph {
  const { parts: all, templates, groupOfPin } = wiringOf(sheet);
  const counted = all.flatMap((part, i) => {
    const kind = kindOf(part);
    return kind.isNote || kind.isProbe || kind.joinsByLabel ? [] : [{ part, i, kind }];
  });
  const nets = new Map<number, CircuitPin[]>();
  const pins = counted.map(({ i, kind }, part) =>
    templates[i]!.ports.map(({ direction, name }, at) => {
      const [net] = groupOfPin(i, at);
      const port = kind.isGate && direction === 'in' ? 'in' : name;
      const there = nets.get(net) ?? [];
      there.push({ part, port, isDriver: direction !== 'in' });
      nets.set(net, there);
      return { net, port: portNumber(port) };
    }),
  );
  const own = counted.map(({ part }) => textNumber(partText(part, sheets, path, known, opaque)));
  let colours = own;
  let near = own;
  let told = 0;
  for (let round = 0; round < ROUNDS; round++) {
    const around = new Map<number, number>();
    for (const [net, there] of nets)
      around.set(
        net,
        numberHash(sorted(there.map(({ part, port }) => numberHash([portNumber(port), colours[part]!])))),
      );
    colours = pins.map((list, p) =>
      numberHash([own[p]!, ...sorted(list.map(({ net, port }) => numberHash([port, around.get(net)!])))]),
    );
    if (round < NEAR) near = colours;
    // When no more parts are told apart than before, none ever will be.
    const apart = new Set(colours).size;
    if (apart === told) break;
    told = apart;
  }
  return {
    parts: counted.map(({ part }) => part),
    colours,
    near,
    nets: [...nets.values()],
    signature: `${counted.length} ${numberHash(sorted([...colours])).toString(36)}`,
  };
}

const sorted = (numbers: number[]): number[] => numbers.sort((a, b) => a - b);

const portNumbers = new Map<string, number>();

function portNumber(port: string): number {
  const known = portNumbers.get(port) ?? textNumber(port);
  portNumbers.set(port, known);
  return known;
}
