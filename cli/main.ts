import { Command, CommanderError, Option } from 'commander';
import { BadInput } from './bad-input';
import { convert } from './convert';
import { inspect } from './inspect';
import { simulate } from './simulate';
import { table } from './table';

/** Exit codes: 0 done or yes, 1 no, 2 bad input, with one line on stderr. */
async function main(): Promise<number> {
  let code = 0;
  const program = new Command('manege')
    .description(
      'Gate-level circuits on the command line: works on lesson files and Verilog without a browser.',
    )
    .exitOverride()
    .configureOutput({ writeErr: (text) => process.stderr.write(text.replace(/^error: /, 'manege: ')) });
  const verb = (name: string, description: string) =>
    program
      .command(name)
      .description(description)
      .argument('<circuit>', 'a lesson file (*.manege.json) or Verilog (*.v)')
      .option('--sheet <name>', 'the sheet, where the lesson has several')
      .option('--module <name>', 'the module of a Verilog file that the others are used by');
  verb('table', 'print the truth table; with storage, the next state over present state and inputs')
    .addOption(
      new Option('--format <format>', 'how to write it')
        .choices(['csv', 'md', 'json', 'none'])
        .default('csv'),
    )
    .option('--out <file>', 'write to a file instead of the terminal')
    .option('--stats', 'print one JSON line about the work on stderr')
    .action(async (circuit, options) => table(circuit, options));
  verb('simulate', 'run a circuit on a stimulus')
    .option('--stimulus <file>', 'CSV: a column “time” in ns, one for each driven input; or a dump (*.vcd)')
    .option('--until <ns>', 'where the run ends; without it, where all is at rest after the last row')
    .addOption(
      new Option('--delays <setting>', 'zero, 1 ns a part, or what the parts have')
        .choices(['zero', 'unit', 'parts'])
        .default('parts'),
    )
    .option('--samples <file>', 'CSV of inputs and outputs just before each next row takes effect')
    .option('--vcd <file>', 'dump of all changes (IEEE 1364)')
    .option('--compare <file>', 'hold the run against a dump; exit code 1 where they differ')
    .option('--stats', 'print one JSON line about the work on stderr')
    .action(async (circuit, options) => {
      if (!(await simulate(circuit, options))) code = 1;
    });
  verb('inspect', 'say as JSON what a circuit is made of, how fast it is, and what is wrong with it').action(
    async (circuit, options) => inspect(circuit, options),
  );
  verb('convert', 'write a circuit in another format, by the ending of the file')
    .argument('<out>', '*.manege.json, *.v, *.svg, or *.csv for its truth table')
    .action(async (circuit, out, options) => convert(circuit, out, options));
  try {
    await program.parseAsync();
    return code;
  } catch (error) {
    if (error instanceof BadInput) {
      process.stderr.write(`manege: ${error.message}\n`);
      return 2;
    }
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    throw error;
  }
}

process.exitCode = await main();
