import type { Box } from '../circuit/geometry';
import { type BoxLayout, type BoxPin, boxBody, boxPorts, boxSymbol } from './box';
import { definePart } from './define-part';
import { gates } from './gates';
import { findPackage, LOGIC_PACKAGES, type LogicPackage, packageCalled } from './packages';
import { type PackagePin, type PackageUnit, UnitBuilder } from './packages/package-type';
import type { ParamSchemas } from './param-schemas';
import type { Appearance, Builder, PartKind, Port, Ref } from './part-kind';
import { bubble, LINE, outline, roundedBox, type Shape } from './shape';
import { choiceSetting } from './shared-settings';

/*
 * A logic package as a part of a drawing: whole, with its pins where they are on the package, or one unit of it. Its supply is
 * not drawn: the wiring board has it.
 */

interface PackageParams {
  /** `74HC08`, `4011`. */
  readonly type: string;
  /** The letter of one unit, or nothing for the whole package. */
  readonly unit: UnitLetter;
}

const UNIT_LETTERS = ['', 'a', 'b', 'c', 'd', 'e', 'f'] as const;
type UnitLetter = (typeof UNIT_LETTERS)[number];
const USUAL = '74HC00';

const packageOf = ({ type }: PackageParams): LogicPackage => findPackage(type) ?? findPackage(USUAL)!;

const unitOf = (params: PackageParams): PackageUnit | undefined =>
  packageOf(params).type.units.find(({ letter }) => letter === params.unit);

const directionOf = ({ use }: PackagePin): Port['direction'] =>
  use === 'in' ? 'in' : use === 'out' ? 'out' : 'both';

const isActiveLow = (name: string) => name.endsWith("'");
/** A pin's name inside a symbol that shows by a bubble what acts at 0. */
const withoutPrime = (name: string) => name.replace(/'$/, '');

/** The kind and parameters of the gate that a unit is, or null. */
function gateOf(params: PackageParams): { kind: PartKind; params: Record<string, unknown> } | null {
  const { gate } = packageOf(params).type;
  if (!gate || !unitOf(params)) return null;
  const kind = gates.find((k) => k.kind === gate.kind)!;
  return { kind, params: gate.inputs === 1 ? { width: 1 } : { inputs: gate.inputs, width: 1, inverted: [] } };
}

/** A unit that is no gate, as a box. */
function unitBox(params: PackageParams, unit: PackageUnit): BoxLayout {
  const pins = [...unit.pins].map(
    ([name, pin]): BoxPin => ({
      name,
      direction: directionOf(pin),
      text: withoutPrime(name),
      inverted: isActiveLow(name),
      clock: name === 'CLK',
    }),
  );
  return {
    title: packageOf(params).type.number,
    left: pins.filter(({ direction }) => direction !== 'out'),
    right: pins.filter(({ direction }) => direction === 'out'),
  };
}

/** Grid steps between two pins. */
const PITCH = 2;

interface Placed {
  readonly pin: PackagePin;
  readonly side: 'left' | 'right';
  readonly y: number;
}

/** The pins of a whole package as they stand on it: down the left side from the notch, and up the right one. */
function placedPins({ type }: LogicPackage): Placed[] {
  const each = type.pins.length / 2;
  return type.pins.map((pin, i) => {
    const side = i < each ? 'left' : 'right';
    const row = side === 'left' ? i : type.pins.length - 1 - i;
    return { pin, side, y: PITCH * row - (each - 1) };
  });
}

const isConnected = ({ pin: { use } }: Placed) => use === 'in' || use === 'out' || use === 'both';

/** Half the width of a whole package, in grid steps: the longest name at either side, and its own between them. */
function halfWidth(one: LogicPackage): number {
  const longest = Math.max(...one.type.pins.map(({ name }) => name.length));
  return Math.ceil(longest * 0.55 + one.name.length * 0.31 + 0.8);
}

function wholeBody(one: LogicPackage): Box {
  const w = halfWidth(one);
  const h = one.type.pins.length / 2;
  return { x0: -w, y0: -h, x1: w, y1: h };
}

function wholePorts(one: LogicPackage): Port[] {
  const w = halfWidth(one) + 1;
  return placedPins(one)
    .filter(isConnected)
    .map(({ pin, side, y }) => ({
      name: pin.name,
      direction: directionOf(pin),
      width: 1,
      x: side === 'left' ? -w : w,
      y,
      side,
      lead: isActiveLow(pin.name) ? 0.4 : 1,
    }));
}

function wholeSymbol(one: LogicPackage): Shape[] {
  const { x0, y0, x1, y1 } = wholeBody(one);
  const shapes: Shape[] = [
    outline(roundedBox(x0, y0, x1, y1, 0.4)),
    { shape: 'path', d: `M-0.8 ${y0}A0.8 0.8 0 0 0 0.8 ${y0}`, stroke: 'ink', weight: LINE },
    { shape: 'text', x: 0, y: 0, text: one.name, size: 1.05, align: 'center', bold: true },
  ];
  for (const placed of placedPins(one)) {
    const { pin, side, y } = placed;
    const into = side === 'left' ? 1 : -1;
    const edge = side === 'left' ? x0 : x1;
    const name = pin.use === 'none' ? '' : withoutPrime(pin.name);
    const paint = isConnected(placed) ? {} : { paint: 'quiet' as const };
    if (isActiveLow(pin.name)) shapes.push(bubble(edge - 0.3 * into, y));
    shapes.push({ shape: 'text', x: edge + 0.4 * into, y, text: name, size: 0.85, align: side, ...paint });
  }
  return shapes;
}

const lookOf = (params: PackageParams) => {
  const unit = unitOf(params);
  const gate = gateOf(params);
  if (gate)
    return {
      ports: () => gate.kind.ports(gate.params as never),
      body: () => gate.kind.body(gate.params as never),
      symbol: (look: Appearance) => gate.kind.symbol(gate.params as never, look),
    };
  if (unit) {
    const box = unitBox(params, unit);
    return { ports: () => boxPorts(box), body: () => boxBody(box), symbol: () => boxSymbol(box) };
  }
  const one = packageOf(params);
  return { ports: () => wholePorts(one), body: () => wholeBody(one), symbol: () => wholeSymbol(one) };
};

function build(params: PackageParams, b: Builder): void {
  const { type, family } = packageOf(params);
  const only = unitOf(params);
  const record = (pinOf: (name: string) => Ref, tag: string) =>
    type.behaviour(new UnitBuilder(b, pinOf, type.isOpenCollector, family, type.ns[family]!, tag));
  if (only) {
    record((name) => b.pin(name), '');
    return;
  }
  for (const [i, unit] of type.units.entries())
    record((name) => b.pin(unit.pins.get(name)!.name), type.units.length > 1 ? `${i}` : '');
}

/** `7408.b` as the package and the unit; null where the package or the unit is not there. */
function typedPackage(text: string): PackageParams | null {
  const [, name, letter = ''] = /^([^.]+?)(?:\s*\.\s*([a-h]))?$/i.exec(text.trim()) ?? [];
  const one = name === undefined ? undefined : packageCalled(name);
  const unit = UNIT_LETTERS.find((known) => known === letter.toLowerCase());
  if (!one || unit === undefined || (unit && !one.type.units.some((u) => u.letter === unit))) return null;
  return { type: one.name, unit: one.type.units.length > 1 ? unit : '' };
}

/** Numbers as they are typed, in small letters: with the family and, in the 74 series, without. */
const NUMBERS = LOGIC_PACKAGES.flatMap(({ name }) => [name.toLowerCase(), name.replace(/[A-Z]+/, '')]);

const NAMES = LOGIC_PACKAGES.map(({ name }) => name) as [string, ...string[]];

export const packageKind = definePart(
  (of: ParamSchemas) =>
    of.together(
      of.object({ type: of.oneOf(NAMES, USUAL), unit: of.oneOf(UNIT_LETTERS, ''), ...of.ownDelay }),
      (params) => params.unit === '' || unitOf(params) !== undefined,
      'the package has no unit of that letter',
    ),
  {
    kind: 'package',
    family: 'Functions',
    name: 'Logic package',
    typed: ['package', 'chip', 'logic package'],
    says: 'A package by its number, 7400 or 4011, whole or one unit of it: 7408.b.',
    labelled: '',
    labelSide: 'top',
    settings: [
      choiceSetting(
        'type',
        'Package',
        NAMES.map((name) => [name, name]),
      ),
      choiceSetting(
        'unit',
        'Unit',
        UNIT_LETTERS.map((letter) => [letter, letter || 'the whole package']),
      ),
    ],
    typedWord: typedPackage,
    typedAs: (name) => {
      if (typedPackage(name)) return 'whole';
      const isBegun = /^[74]/.test(name) && NUMBERS.some((number) => number.startsWith(name.toLowerCase()));
      return isBegun ? 'begun' : null;
    },
    ports: (params) => lookOf(params).ports(),
    body: (params) => lookOf(params).body(),
    symbol: (params, look) => lookOf(params).symbol(look),
    build,
    plannedAs: (params) => {
      const { name, type } = packageOf(params);
      const unit = unitOf(params);
      const pins = unit
        ? [...unit.pins].map(([inner, { use }]) => ({ name: inner, use }))
        : placedPins(packageOf(params))
            .filter(isConnected)
            .map(({ pin }) => pin);
      return { type: name, unit: type.units.length > 1 ? params.unit : '', pins };
    },
    moduleName: ({ type, unit }) => `ic_${type}${unit && `_${unit}`}`,
    spoken: (params) => {
      const { name, type } = packageOf(params);
      const unit = params.unit ? `unit ${params.unit} of ${name}` : name;
      return `${unit}: ${type.says.replace(/^[A-Z](?=[a-z])/, (letter) => letter.toLowerCase()).replace(/\.$/, '')}`;
    },
  },
);
