import { emptyLesson } from '../src/core/circuit/lesson';
import { Formula } from '../src/core/logic/expression/forms';
import { drawFunctions } from '../src/core/synthesis/draw-functions';
import { writerOf } from './convert';
import { functionsOf } from './functions';
import { splitNames } from './reduce';

interface Options {
  readonly inputs?: string;
  readonly form: 'sop' | 'pos' | 'nand' | 'nor' | 'mixed';
  readonly twoInput?: boolean;
  readonly out: string;
}

/**
 * `manege draw`: the circuit of a formula or a table as a lesson, Verilog or a picture, by the ending of the
 * file.
 * @throws BadInput for input that cannot be read, or a file that cannot be written.
 */
export async function draw(given: string, options: Options): Promise<void> {
  const write = writerOf(options.out);
  const { inputs, outputs } = await functionsOf(given, splitNames(options.inputs));
  const functions = outputs.map(({ name, fn }) => ({
    name,
    expression: new Formula(name, inputs, fn).in(options.form),
  }));
  const sheet = drawFunctions('sheet1', 'Drawn', inputs, functions, { mostInputs: options.twoInput ? 2 : 8 });
  await write({ lesson: { ...emptyLesson('drawn', 'Drawn'), sheets: [sheet] }, sheet }, given);
}
