import { NO_CHIPS_SETUP } from '../src/core/circuit/chips-setup';
import { readStock } from '../src/core/formats/stock-csv';
import { arranged } from '../src/core/packages/arrange';
import { planCsv, planJson, planMarkdown } from '../src/core/packages/lists';
import { planOf } from '../src/core/packages/plan';
import { adjusted, supplyOf } from '../src/core/packages/sheet-plan';
import { stageTests } from '../src/core/packages/stage-tests';
import { wiringOf } from '../src/core/packages/wiring';
import { BadInput } from './bad-input';
import { FAMILIES } from './choices';
import { type CircuitOptions, openCircuit, textOf } from './open-circuit';
import { writeLines, writeStats } from './write-out';

interface Options extends CircuitOptions {
  /** An option that is not given keeps what is set on the sheet. */
  readonly family?: string;
  readonly stock?: string;
  readonly format: 'json' | 'csv' | 'md';
  readonly fewest?: boolean;
  readonly stats?: boolean;
}

/**
 * `manege chips`: the logic packages of a circuit, their units and pins, and the wires between them.
 * @returns whether the circuit can be built of what there is.
 * @throws BadInput where the circuit or the stock cannot be read.
 */
export async function chips(file: string, options: Options): Promise<boolean> {
  const { lesson, sheet } = await openCircuit(file, options);
  const stock = options.stock === undefined ? undefined : await stockOf(options.stock);
  const begun = performance.now();
  const setup = sheet.chips ?? NO_CHIPS_SETUP;
  const wanted = {
    ...setup,
    ...(options.family === undefined ? {} : { family: FAMILIES[options.family]! }),
    ...(stock ? { stock } : {}),
  };
  const freedom = options.fewest ? 'whatever saves' : 'as drawn';
  const best = arranged(planOf(sheet, lesson.sheets, supplyOf(wanted), freedom));
  const { length, atLeast } = best;
  const plan = adjusted(best.plan, wanted);
  const wiring = wiringOf(plan);
  const tests = stageTests(plan, wiring);
  const elapsedMs = performance.now() - begun;
  const text =
    options.format === 'json'
      ? JSON.stringify(planJson(plan, wiring, tests), null, 2)
      : options.format === 'csv'
        ? planCsv(plan, wiring).trimEnd()
        : planMarkdown(sheet.name, plan, wiring, tests).trimEnd();
  await writeLines(text.split(/\r?\n/));
  if (options.stats)
    writeStats({
      elapsedMs: +elapsedMs.toFixed(3),
      packages: plan.packages.length,
      atLeast: plan.atLeast,
      wires: wiring.wires.length,
      columns: length,
      columnsAtLeast: atLeast,
    });
  return plan.lacking.size === 0 && plan.unplaced.length === 0;
}

async function stockOf(file: string) {
  const read = readStock(await textOf(file));
  if (!read.ok) throw new BadInput(`${file}: ${read.problem.message}`);
  return read.value;
}
