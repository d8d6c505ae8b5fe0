import { Command, CommanderError, Option } from 'commander';
import { problemOf } from '../src/core/values/result';
import { BadInput } from './bad-input';
import { FAMILIES, MOST_STEPS, WRITTEN_FILES } from './choices';
import { complain, writeLines } from './write-out';

/** A command's code is loaded when it is called. Exit codes: 0 done or yes, 1 no, 2 bad input or an output that cannot be written, 3 a fault; with one line on stderr. */
async function main(): Promise<number> {
  let code = 0;
  const help: string[] = [];
  const program = new Command('manege')
    .description(
      'Gate-level circuits on the command line: works on lesson files and Verilog without a browser.',
    )
    .exitOverride()
    .configureOutput({
      writeOut: (text) => void help.push(text.trimEnd()),
      writeErr: (text) => complain(text.replace(/^error: /, '').trimEnd()),
    });
  const verb = (name: string, description: string) =>
    program
      .command(name)
      .description(description)
      .argument(
        '<circuit>',
        'a lesson file (*.manege.json), Verilog (*.v) or a netlist (*.blif, *.aag, *.aig, *.pla, *.kiss2)',
      )
      .option('--sheet <name>', 'the sheet, where the lesson has several')
      .option('--module <name>', 'the top module of a Verilog file');
  verb('table', 'print the truth table; with storage, the next state over present state and inputs')
    .addOption(
      new Option('--format <format>', 'the format of the output')
        .choices(['csv', 'md', 'latex', 'json', 'none'])
        .default('csv'),
    )
    .option('--out <file>', 'write to a file instead of the terminal')
    .option('--stats', 'print one JSON line about the work on stderr')
    .action(async (circuit, options) => (await import('./table')).table(circuit, options));
  verb('simulate', 'run a circuit on a stimulus, or a Verilog test bench as it says itself')
    .option('--stimulus <file>', 'CSV: a column “time” in ns, one for each driven input; or a dump (*.vcd)')
    .option(
      '--until <time>',
      'where the run ends: 40 (in ns), 2 ms, 4 h 33 min; without it, where all is at rest after the last row',
    )
    .addOption(
      new Option('--delays <setting>', 'zero delay, 1 ns per part, or the delays of the parts')
        .choices(['zero', 'unit', 'parts'])
        .default('parts'),
    )
    .option(
      '--most-steps <number>',
      `changes of nets and instants after which the run is ended; ${MOST_STEPS} without it`,
    )
    .option('--samples <file>', 'CSV of inputs and outputs just before each next row takes effect')
    .option('--vcd <file>', 'dump of all changes (IEEE 1364)')
    .option('--compare <file>', 'hold the run against a dump; exit code 1 where they differ')
    .option('--stats', 'print one JSON line about the work on stderr')
    .action(async (circuit, options) => {
      if (!(await (await import('./simulate')).simulate(circuit, options))) code = 1;
    });
  verb('inspect', 'report as JSON the parts of a circuit, its speed, and its problems').action(
    async (circuit, options) => (await import('./inspect')).inspect(circuit, options),
  );
  verb(
    'chips',
    'the logic packages of a circuit, their pins, and the wires to lay; exit code 1 where some are lacking',
  )
    .addOption(
      new Option(
        '--family <family>',
        'the logic family, 74 is 74HC; otherwise as it is set on the sheet',
      ).choices(Object.keys(FAMILIES)),
    )
    .option('--stock <file>', 'the packages in the drawer: CSV with the columns type and count')
    .option('--fewest', 'let gates be made of other kinds where it saves a package')
    .addOption(
      new Option('--format <format>', 'the format of the output')
        .choices(['json', 'csv', 'md'])
        .default('json'),
    )
    .option('--stats', 'print one JSON line about the work on stderr')
    .action(async (circuit, options) => {
      if (!(await (await import('./chips')).chips(circuit, options))) code = 1;
    });
  verb('convert', 'write a circuit in another format, by the ending of the file')
    .argument('<out>', WRITTEN_FILES)
    .action(async (circuit, out, options) => (await import('./convert')).convert(circuit, out, options));
  verb('prove', 'prove two circuits equivalent, or show a case in which they differ')
    .argument('<other>', 'the circuit to compare it with')
    .option('--other-sheet <name>', 'the sheet of the other circuit, if its name differs')
    .addOption(
      new Option('--format <format>', 'the format of the answer').choices(['text', 'json']).default('text'),
    )
    .option('--stats', 'print one JSON line about the work on stderr')
    .action(async (circuit, other, options) => {
      if (!(await (await import('./prove')).prove(circuit, other, options))) code = 1;
    });
  const ofFunctions = (name: string, description: string) =>
    program
      .command(name)
      .description(description)
      .argument('<function>', 'a table (*.csv), or formulas: "Y = A\'B + C; Z = A ^ B"')
      .option('--inputs <names>', 'the inputs in order, with commas between them');
  ofFunctions('reduce', 'the smallest expression for each output')
    .addOption(
      new Option('--form <form>', 'sum of products or product of sums')
        .choices(['sop', 'pos'])
        .default('sop'),
    )
    .addOption(
      new Option('--notation <notation>', 'the format of the output')
        .choices(['prime', 'code', 'verilog', 'words'])
        .default('prime'),
    )
    .addOption(
      new Option('--format <format>', 'the format of the answer').choices(['text', 'json']).default('text'),
    )
    .option('--stats', 'print one JSON line about the work on stderr')
    .action(async (given, options) => (await import('./reduce')).reduce(given, options));
  ofFunctions('draw', 'the circuit of a table or of formulas')
    .addOption(
      new Option('--form <form>', 'what it is built of')
        .choices(['sop', 'pos', 'nand', 'nor', 'mixed'])
        .default('sop'),
    )
    .option('--two-input', 'no gate with more than two inputs')
    .requiredOption('--out <file>', WRITTEN_FILES)
    .action(async (given, options) => (await import('./draw')).draw(given, options));
  program
    .command('mark')
    .description('hold hand-ins against their exercise; exit code 1 where one of them is not solved')
    .argument('<exercise>', 'an exercise file (*.exercise.json)')
    .argument('<hand-ins...>', 'hand-in files (*.handin.json)')
    .option('--csv <file>', 'write the marks as CSV as well')
    .option('--class <file>', 'a class list (CSV with a column name): tells who has not handed in')
    .option('--marking <file>', 'points and remarks that were given on the marking page (*.marking.json)')
    .option('--back <directory>', 'write what goes back to each student, a file each')
    .option('--likeness <file>', 'write the pairs that are alike as CSV, with what speaks for and against')
    .option('--key <file>', 'the key that opens sealed answers; its passphrase is in MANEGE_PASSPHRASE')
    .action(async (exercise, handIns, options) => {
      code = await (await import('./mark')).mark(exercise, handIns, options);
    });
  try {
    await program.parseAsync();
  } catch (error) {
    if (!(error instanceof CommanderError)) throw error;
    if (error.exitCode !== 0) return 2;
    await writeLines(help);
  }
  return code;
}

/** Runs the command, and says in one line what went wrong. @returns the exit code. */
async function told(): Promise<number> {
  try {
    return await main();
  } catch (error) {
    if (error instanceof BadInput) {
      complain(error.message);
      return 2;
    }
    const { message } = problemOf(error);
    complain(`this is a fault of Manege, and not of the input: ${message}`);
    return 3;
  }
}

void told().then((code) => {
  process.exitCode = code;
});
