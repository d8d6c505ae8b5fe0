import type { Part } from '../circuit/sheet';
import { PACKAGES } from '../parts/packages';
import type { LogicFamily } from '../parts/packages/package-type';
import type { CellBuilder, Signal } from './cell-builder';

type PinOf = (port: string, bit?: number) => Signal;
type Pins = Record<string, Signal>;
type Planned = (build: CellBuilder, path: string, params: Part['params'], pin: PinOf) => boolean;

const outputsOf = new Map(
  PACKAGES.map(({ number, units }) => [
    number,
    [...units[0]!.pins].flatMap(([name, { use }]) => (use === 'out' ? [name] : [])),
  ]),
);

function place(build: CellBuilder, path: string, number: string, pins: Pins): void {
  build.unit(path, number, pins, outputsOf.get(number)!);
}

const count = (length: number) => Array.from({ length }, (_, i) => i);
const width = (params: Part['params']) => Number(params.width ?? 1);

/** Four bits at a time, the carry from one package to the next. */
const adder: Planned = (build, path, params, pin) => {
  let carry = pin('CI');
  for (let first = 0; first < width(params); first += 4) {
    const bits = Math.min(4, width(params) - first);
    const isLast = first + 4 >= width(params);
    const next = isLast ? pin('CO') : build.net();
    const pins: Pins = { C0: carry };
    for (const i of count(4)) {
      pins[`A${i + 1}`] = i < bits ? pin('A', first + i) : '-';
      pins[`B${i + 1}`] = i < bits ? pin('B', first + i) : '-';
      if (i < bits) pins[`S${i + 1}`] = pin('S', first + i);
    }
    // The carry of fewer than four bits stands at the sum output above them.
    if (bits === 4) pins.C4 = next;
    else pins[`S${bits + 1}`] = next;
    place(build, path, '283', pins);
    carry = next;
  }
  return true;
};

const multiplexer: Planned = (build, path, params, pin) => {
  const [select, bits] = [Number(params.select), width(params)];
  if (select > 3) return false;
  const perPackage = select === 1 ? 4 : select === 2 ? 2 : 1;
  for (let first = 0; first < bits; first += perPackage) {
    const pins: Pins = {};
    for (const i of count(perPackage)) {
      const isUsed = first + i < bits;
      const data = (n: number): Signal => (isUsed ? pin(`D${n}`, first + i) : '-');
      if (select === 1) Object.assign(pins, { [`${i + 1}A`]: data(0), [`${i + 1}B`]: data(1) });
      if (select === 2) for (const n of count(4)) pins[`${i + 1}C${n}`] = data(n);
      if (select === 2) pins[`${i + 1}G'`] = '-';
      if (select === 3) for (const n of count(8)) pins[`D${n}`] = data(n);
      if (isUsed) pins[select === 3 ? 'Y' : `${i + 1}Y`] = pin('Y', first + i);
    }
    if (select !== 2) pins["G'"] = '-';
    for (const i of count(select)) pins[select === 1 ? 'S' : 'ABC'[i]!] = pin('S', i);
    place(build, path, select === 1 ? '157' : select === 2 ? '153' : '151', pins);
  }
  return true;
};

/** The outputs of the packages act at 0: an inverter behind each. */
const decoder: Planned = (build, path, params, pin) => {
  const select = Number(params.select);
  if (select !== 2 && select !== 3) return false;
  const enable: Signal = params.enable === 'yes' ? pin('EN') : '+';
  const pins: Pins =
    select === 2 ? { "G'": build.inverse(path, enable) } : { G1: enable, "G2A'": '-', "G2B'": '-' };
  for (const i of count(select)) pins['ABC'[i]!] = pin('A', i);
  for (const n of count(2 ** select)) {
    const low = build.net();
    pins[`Y${n}'`] = low;
    build.gate(path, 'not', [low], pin(`Y${n}`), false);
  }
  place(build, path, select === 2 ? '139' : '138', pins);
  return true;
};

const clearOf = (build: CellBuilder, path: string, params: Part['params'], pin: PinOf): Signal =>
  params.clear === 'none' ? '+' : params.clear === 'low' ? pin('CLR') : build.inverse(path, pin('CLR'));

const clockOf = (build: CellBuilder, path: string, params: Part['params'], pin: PinOf): Signal =>
  params.edge === 'falling' ? build.inverse(path, pin('C')) : pin('C');

/** As many flip-flops in one package as the word needs. */
const register: Planned = (build, path, params, pin) => {
  if (params.enable === 'yes') return false;
  const bits = width(params);
  for (let first = 0; first < bits; ) {
    const left = bits - first;
    const [number, size] =
      left <= 4 ? (['175', 4] as const) : left <= 6 ? (['174', 6] as const) : (['273', 8] as const);
    const pins: Pins = { "CLR'": clearOf(build, path, params, pin), CLK: clockOf(build, path, params, pin) };
    for (const i of count(size)) {
      const isUsed = first + i < bits;
      pins[`${i + 1}D`] = isUsed ? pin('D', first + i) : '-';
      if (isUsed) pins[`${i + 1}Q`] = pin('Q', first + i);
    }
    place(build, path, number, pins);
    first += size;
  }
  return true;
};

/** Four bits that count up through all their states. */
const counter: Planned = (build, path, params, pin) => {
  const isFull = params.modulo === 0 || params.modulo === 16;
  if (width(params) !== 4 || !isFull || params.direction !== 'up') return false;
  const enable: Signal = params.enable === 'yes' ? pin('EN') : '+';
  const hasLoad = params.load === 'yes';
  const pins: Pins = {
    "CLR'": clearOf(build, path, params, pin),
    CLK: clockOf(build, path, params, pin),
    "LOAD'": hasLoad ? build.inverse(path, pin('LD')) : '+',
    ENP: '+',
    ENT: enable,
    RCO: pin('CO'),
  };
  for (const i of count(4)) {
    pins['ABCD'[i]!] = hasLoad ? pin('D', i) : '-';
    pins[`Q${'ABCD'[i]}`] = pin('Q', i);
  }
  place(build, path, '161', pins);
  return true;
};

const PLANNED: Readonly<Record<string, Planned>> = {
  adder,
  mux: multiplexer,
  decoder,
  register,
  counter,
};

/** A larger part as the packages that do the same; false where there is none, and gates take its place. */
export function functionPackagesOf(
  build: CellBuilder,
  path: string,
  part: Part,
  pin: PinOf,
  family: LogicFamily,
): boolean {
  if (family === '4000B') return false;
  return PLANNED[part.kind]?.(build, path, part.params, pin) ?? false;
}
