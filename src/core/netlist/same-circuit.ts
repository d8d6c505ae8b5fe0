import { isByHand, type Netlist, type Source, sourceKey, storeName } from './netlist';

type Numbers = Uint8Array | Int32Array | Float64Array;

const ARRAYS = ['op', 'out', 'inStart', 'ins', 'rise', 'fall', 'delayed'] as const;

/**
 * Whether two netlists of a sheet are the same circuit with the same numbering: gates, nets, delays, storage and sources.
 * Names, looks and places may differ, and a source that a person sets may be another part for it. Netlists are
 * compared before a stimulus drives them. Costs time proportional to gates.
 */
export function isSameCircuit(a: Netlist, b: Netlist): boolean {
  return (
    a.nets === b.nets &&
    ARRAYS.every((name) => sameNumbers(a[name], b[name])) &&
    sameNumbers(a.storage, b.storage) &&
    a.stores.every((store, i) => {
      const other = b.stores[i]!;
      return (
        store.powerUp === other.powerUp &&
        store.setup === other.setup &&
        store.hold === other.hold &&
        storeName(a, i) === storeName(b, i)
      );
    }) &&
    a.sources.length === b.sources.length &&
    a.sources.every((source, i) => isSameSource(source, b.sources[i]!)) &&
    a.inputColumns.length === b.inputColumns.length &&
    isSameList(terminalPlaces(a), terminalPlaces(b))
  );
}

/** Inputs and outputs with their nets, in an order that does not depend on theirs. */
const terminalPlaces = (netlist: Netlist): string[] =>
  [...netlist.inputColumns, ...netlist.outputColumns].map((c) => `${sourceKey(c)} ${c.nets[0]}`).sort();

function isSameSource(a: Source, b: Source): boolean {
  if (a.part !== b.part || a.bit !== b.bit || a.net !== b.net) return false;
  if (isByHand(a)) return isByHand(b);
  switch (a.kind) {
    case 'clock':
      return (
        b.kind === 'clock' &&
        a.wave.low === b.wave.low &&
        a.wave.high === b.wave.high &&
        a.wave.first === b.wave.first &&
        a.wave.begun === b.wave.begun
      );
    case 'constant':
      return b.kind === 'constant' && a.value === b.value;
    case 'stimulus':
      // The templates of parts with equal parameters share their levels.
      return b.kind === 'stimulus' && a.levels === b.levels;
    default:
      return false;
  }
}

const isSameList = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((one, i) => one === b[i]);

function sameNumbers(a: Numbers, b: Numbers): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

/**
 * A hash of the cone of the outputs: the gates, storage and sources on which outputs depend, and the keys of inputs and
 * outputs. Independent of net numbers, names and column order; gates that reach no output and the waves of
 * stimulus parts are left out. Two 32-bit FNV-1a hashes (Fowler, Noll and Vo), so different cones are told apart
 * with near certainty, not always.
 */
export function outputsSignature(netlist: Netlist): string {
  const { op, inStart, ins, rise, fall } = netlist;
  let [one, other] = [0x811c9dc5, 0x01234567];
  const add = (value: number) => {
    one = Math.imul(one ^ value, 0x01000193);
    other = Math.imul(other ^ (value + 0x9e37), 0x01000193);
  };
  const text = (of: string) => {
    for (let i = 0; i < of.length; i++) add(of.charCodeAt(i));
    add(-1);
  };
  const gateOf = new Int32Array(netlist.nets).fill(-1);
  for (let g = 0; g < op.length; g++) gateOf[netlist.out[g]!] = g;
  const sourceOf = new Map(netlist.sources.map((s) => [s.net, s]));
  const storeOf = new Map([...netlist.storage].map((g, i) => [g, i]));
  /** The number of each net in the order in which they are met; 0 for those not met yet. */
  const met = new Int32Array(netlist.nets);
  let count = 0;
  const ahead: number[] = [];
  const meet = (net: number) => {
    if (met[net] === 0) {
      met[net] = ++count;
      ahead.push(net);
    }
    add(met[net]!);
  };
  const columns = (list: Netlist['inputColumns']) =>
    list.map((c) => [sourceKey(c), c.nets[0]] as const).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0));
  for (const [key, net] of [...columns(netlist.inputColumns), ...columns(netlist.outputColumns)]) {
    text(key);
    meet(net);
  }
  for (let at = 0; at < ahead.length; at++) {
    const net = ahead[at]!;
    const source = sourceOf.get(net);
    if (source) text(sourceText(source));
    const g = gateOf[net]!;
    if (g === -1) continue;
    add(op[g]!);
    add(rise[g]!);
    add(fall[g]!);
    const store = storeOf.get(g);
    if (store !== undefined) {
      const { powerUp, setup, hold } = netlist.stores[store]!;
      text(`${storeName(netlist, store)} ${powerUp} ${setup} ${hold}`);
    }
    for (let k = inStart[g]!; k < inStart[g + 1]!; k++) meet(ins[k]!);
  }
  return `${(one >>> 0).toString(36)}${(other >>> 0).toString(36)}`;
}

function sourceText(source: Source): string {
  const at = sourceKey(source);
  if (isByHand(source)) return at;
  if (source.kind === 'constant') return `${at} ${source.value}`;
  return source.kind === 'clock' ? `${at} ${JSON.stringify(source.wave)}` : `${at} stimulus`;
}
