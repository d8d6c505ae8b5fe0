import type { Part } from '../circuit/sheet';
import { byParams } from './by-params';
import { findKind, kindOf } from './catalogue';
import { faultOf } from './fault';
import type { Builder, PartKind, Port, PowerUp, Role } from './part-kind';
import { type Delay, Primitive } from './primitive';

/**
 * One primitive of a part. References of 0 and above are the part's pin bits, -1 and below its inner nets.
 */
export interface TemplateGate {
  readonly op: Primitive;
  readonly inputs: readonly number[];
  readonly output: number;
  /** The delay from the part's inputs to this output; undefined for inner primitives without delay. */
  readonly delay?: Delay;
  readonly store?: Store;
}

/** The state and timing requirements of a storage primitive. Times in ps. */
export interface Store {
  readonly name: string;
  readonly powerUp?: PowerUp;
  readonly setup: number;
  readonly hold: number;
}

/** The recorded behaviour of all parts of one kind and parameters. */
export interface Template {
  readonly kind: PartKind;
  readonly role?: Role;
  readonly ports: readonly Port[];
  readonly portIndex: ReadonlyMap<string, number>;
  /** Number of the first pin bit of each port; one more at the end. */
  readonly pinStart: readonly number[];
  readonly inner: number;
  readonly gates: readonly TemplateGate[];
  /** Pairs of pin bits that are one and the same net. */
  readonly joins: readonly (readonly [number, number])[];
  /** Pin bits that are pulled to 0 or 1 where nobody drives them. */
  readonly pulls: readonly (readonly [number, 0 | 1])[];
}

const templates = new Map<string, Template>();
const MOST_KEPT = 2000;

/** The template of a part; made once for each kind and parameters. */
export const templateOf: (part: Part) => Template = byParams((part) => {
  const key = `${part.kind}\n${JSON.stringify(part.params)}`;
  const known = templates.get(key);
  if (known) return known;
  const template = record(part);
  if (templates.size >= MOST_KEPT) templates.clear();
  templates.set(key, template);
  return template;
});

type OwnTiming = 'delayRise' | 'delayFall' | 'setup' | 'hold';

function record(part: Part): Template {
  const kind = kindOf(part);
  const ports = kind.ports(part.params);
  const portIndex = new Map(ports.map((p, i) => [p.name, i]));
  const pinStart = [0];
  for (const p of ports) pinStart.push(pinStart.at(-1)! + p.width);
  const gates: TemplateGate[] = [];
  const joins: [number, number][] = [];
  const pulls: [number, 0 | 1][] = [];
  let inner = 0;
  const { delayRise, delayFall, setup, hold } = part.params as Partial<Record<OwnTiming, number>>;
  const delayed = (own: Delay | undefined): Delay | undefined =>
    own && { rise: delayRise ?? own.rise, fall: delayFall ?? delayRise ?? own.fall };
  const fault = faultOf(part);
  const gate = (op: Primitive, inputs: readonly number[]) => {
    gates.push({ op, inputs, output: -++inner });
    return -inner;
  };
  /** The port that the inside is really joined to. */
  const joinedTo = (port: string) => {
    if (fault?.is !== 'exchanged') return port;
    const [a, b] = fault.ports;
    return port === a && portIndex.has(b) ? b : port === b && portIndex.has(a) ? a : port;
  };
  /** A pin as the inside sees it. */
  const seen = (port: string, pin: number) => {
    if ((fault?.is !== 'inverted' && fault?.is !== 'open') || fault.port !== port) return pin;
    return fault.is === 'open' ? gate(Primitive.CONST_X, []) : gate(Primitive.NOT, [pin]);
  };
  const builder: Builder = {
    pin: (port, bit = 0) => seen(port, pinStart[portIndex.get(joinedTo(port))!]! + bit),
    pins: (port) => {
      const at = portIndex.get(joinedTo(port))!;
      return Array.from({ length: ports[at]!.width }, (_, bit) => seen(port, pinStart[at]! + bit));
    },
    gate,
    drive: (output, op, inputs, delay) => {
      if (fault?.is === 'stuck')
        gates.push({ op: fault.at ? Primitive.CONST_1 : Primitive.CONST_0, inputs: [], output });
      else gates.push({ op, inputs, output, delay: delayed(delay) });
    },
    later: () => -++inner,
    store: (op, inputs, output, store) =>
      gates.push({
        op,
        inputs,
        output,
        store: { ...store, setup: setup ?? store.setup, hold: hold ?? store.hold },
      }),
    join: (a, b) => joins.push([a, b]),
    pull: (pin, to) => pulls.push([pin, to]),
  };
  const works = fault?.is === 'other' ? findKind(fault.kind) : undefined;
  (works ?? kind).build(part.params, builder);
  return { kind, role: kind.role?.(part.params), ports, portIndex, pinStart, inner, gates, joins, pulls };
}
