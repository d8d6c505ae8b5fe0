import type { FlatSheet, GivenCircuit } from '../circuit/exercise';
import { blockCycle, holdsItself } from '../netlist/blocks';
import { sheetFromFile } from '../parts/sheet-from-file';
import { done, type Result, refusal, refused, within } from '../values/result';
import { flatSheet, sheetOfFlat } from './begin';

/** Looks up the parts of a circuit from an exercise file in the catalogue, and completes their parameters. */
export function circuitContent({ settings, sheets }: GivenCircuit): Result<GivenCircuit> {
  const read: FlatSheet[] = [];
  for (const file of sheets) {
    if (read.some((s) => s.id === file.id)) return refused('twice', `two sheets have the id ${file.id}`);
    const sheet = sheetFromFile(file as never);
    if (!sheet.ok) return refusal(within(`on sheet “${file.name}”`, sheet.problem));
    read.push(flatSheet(sheet.value));
  }
  const whole = read.map(sheetOfFlat);
  for (const sheet of whole) {
    const cycle = blockCycle(whole, sheet);
    if (cycle) return refused('block-cycle', holdsItself('sheet', cycle));
  }
  return done({ settings, sheets: read });
}
