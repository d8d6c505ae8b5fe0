import { bitLabel, type NamedBus } from '../../../bench/bus-terminals';
import { type Board, EMPTY_BOARD } from '../../../circuit/board';
import { NO_CHIPS_SETUP } from '../../../circuit/chips-setup';
import type { Expected, GivenCircuit } from '../../../circuit/exercise';
import type { Part, Sheet } from '../../../circuit/sheet';
import { terminalRef } from '../../../packages/wiring';
import { findKind } from '../../../parts/catalogue';
import { defaultParams } from '../../../parts/params';
import { excerptFor, flatSheet } from '../../begin';
import { expectedKindOf } from '../../expected';
import type { ExpectedSignal, SetUpSource } from '../../expected/expected-kind';
import { inputPart } from '../../expected/input-part';
import type { BenchAsked } from '.';

/** What stands on the board when the student begins: nothing, what is on the teacher's without its wires, or all of that. */
export const BEGINNINGS = ['nothing', 'packages', 'whole'] as const;
export type Beginning = (typeof BEGINNINGS)[number];

type Drawer = Pick<BenchAsked, 'stock'>;

/** The drawing with a board, as it is given to be wired. */
export function drawingToWire(
  { sheet, sheets, settings }: SetUpSource,
  begins: Beginning,
  { stock }: Drawer,
): GivenCircuit {
  const { stock: _, ...own } = sheet.chips ?? NO_CHIPS_SETUP;
  const chips = stock ? { ...own, stock } : own;
  const { board, ...bare } = sheet;
  const begun = begins === 'packages' && board ? { ...board, wires: [], faults: [] } : board;
  const given: Sheet = { ...bare, chips, ...(begins === 'nothing' || !begun ? {} : { board: begun }) };
  return excerptFor(
    given,
    sheets.map((one) => (one === sheet ? given : one)),
    settings,
  );
}

/** Grid steps between the inputs and the outputs. */
const APART = 30;
const BETWEEN = 2;

/** A sheet of the inputs and outputs alone, with a switch or a lamp for each of their bits on its board. */
export function functionToBuild(
  { settings, sheet: { id, name, chips: own } }: SetUpSource,
  expected: Expected,
  { stock }: Drawer,
): GivenCircuit {
  const { inputs, outputs } = expectedKindOf(expected).signals(expected);
  const { family } = own ?? NO_CHIPS_SETUP;
  const chips = { ...NO_CHIPS_SETUP, family, ...(stock ? { stock } : {}) };
  const parts = new Map<string, Part>();
  const column =
    (kindOf: (signal: ExpectedSignal) => readonly [string, Part['params']], x: number) =>
    (signals: readonly ExpectedSignal[]) => {
      let y = 0;
      for (const [rank, signal] of signals.entries()) {
        const [kind, own] = kindOf(signal);
        const entry = findKind(kind)!;
        const params = { ...defaultParams(entry), ...own };
        const partId = `${kind}${parts.size + 1}`;
        parts.set(partId, { id: partId, kind, at: { x, y }, turn: 0, label: signal.name, rank, params });
        const { y0, y1 } = entry.body(params);
        y += Math.max(5, Math.ceil(y1 - y0) + BETWEEN);
      }
    };
  column(inputPart, 0)(inputs);
  column(({ width }) => ['lamp', { width }], APART)(outputs);
  const sheet: Sheet = { id, name, parts, wires: new Map(), chips, board: boardOfSignals(inputs, outputs) };
  return { settings, sheets: [flatSheet(sheet)] };
}

/** A board with the switches and lamps of some signals, the highest bit of each first. */
function boardOfSignals(inputs: readonly ExpectedSignal[], outputs: readonly NamedBus[]): Board {
  const bits = (signal: NamedBus) =>
    Array.from({ length: signal.width }, (_, i) => bitLabel(signal, signal.width - 1 - i));
  const devices = [
    ...inputs.flatMap((signal) => bits(signal).map((label) => ({ kind: inputPart(signal)[0], label }))),
    ...outputs.flatMap((signal) => bits(signal).map((label) => ({ kind: 'lamp' as const, label }))),
  ];
  return { ...EMPTY_BOARD, devices: devices.map((device, i) => ({ ref: terminalRef(i), ...device })) };
}
