import { Command, CommanderError, Option } from 'commander';
import { BadInput } from './bad-input';
import { table } from './table';

/** Exit codes: 0 done or yes, 1 no, 2 bad input, with one line on stderr. */
async function main(): Promise<number> {
  const program = new Command('manege')
    .description('Gate-level circuits on the command line: works on lesson files without a browser.')
    .exitOverride()
    .configureOutput({ writeErr: (text) => process.stderr.write(text.replace(/^error: /, 'manege: ')) });
  program
    .command('table')
    .description('print the truth table of a sheet, inputs and outputs in declared order')
    .argument('<circuit>', 'a lesson file (*.manege.json)')
    .option('--sheet <name>', 'the sheet, where the lesson has several')
    .addOption(
      new Option('--format <format>', 'how to write it')
        .choices(['csv', 'md', 'json', 'none'])
        .default('csv'),
    )
    .option('--out <file>', 'write to a file instead of the terminal')
    .option('--stats', 'print one JSON line about the work on stderr')
    .action(async (circuit, options) => table(circuit, options));
  try {
    await program.parseAsync();
    return 0;
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
