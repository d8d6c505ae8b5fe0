import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { emptyLesson } from '@/core/circuit/lesson';
import { MOST_CORNERS, MOST_PARTS, MOST_SHEETS, MOST_WIRES } from '@/core/circuit/limits';
import { MOST_COLUMNS, MOST_FIELDS, MOST_ROWS, readCsv } from '@/core/formats/csv';
import { readLesson } from '@/core/formats/lesson-file';
import { MOST_BYTES, tooLarge } from '@/core/formats/size-limit';
import { MOST_BITS, MOST_CHANGES, MOST_SIGNALS, readVcd } from '@/core/formats/vcd';
import { MOST_NESTED } from '@/core/formats/verilog/elaborate';
import { readVerilog } from '@/core/formats/verilog/read';
import { MOST_DEPTH } from '@/core/formats/verilog/token-reader';
import { MOST_TOKENS } from '@/core/formats/verilog/tokens';
import { writeLesson } from '@/core/formats/write-lesson';
import { MOST_DEEP } from '@/core/logic/expression/read-expression';
import { readFormulas } from '@/core/logic/expression/typed-formulas';
import { partOf, sheetOfParts } from '@/core/testing/rig';
import { isModestMarkdown, MOST_MARKS, MOST_NESTED as MOST_QUOTES } from '@/core/values/markdown';
import { done, type Result, refused } from '@/core/values/result';

/*
 * Every limit of what comes from outside: the input that just reaches it is read, the one beyond is refused with one
 * sentence, each in a process of its own within two seconds and 300 MB. Writes docs/limits.md with --write.
 */

interface Limit {
  readonly of: string;
  readonly is: number;
  readonly why: string;
  /** An input of that size. */
  readonly make: (size: number) => string;
  readonly read: (text: string) => Result<unknown>;
}

/** A busy machine may take longer than is promised: LIMITS_MS says how long. */
const MOST_MS = Number(process.env.LIMITS_MS ?? 2000);
const MOST_MB = 300;

const times = (count: number, one: (i: number) => string, between = '') =>
  Array.from({ length: count }, (_, i) => one(i)).join(between);
const verilog = (text: string) => readVerilog(text, 'Limit');
const body = (items: string, ports = 'input a, output y') => `module m(${ports});\n${items}\nendmodule\n`;
interface OneSheet {
  parts: object[];
  wires: object[];
}
/** A lesson file with one sheet of one part, changed. */
const lessonOf = (change: (file: { sheets: OneSheet[] }) => void) => {
  const sheet = sheetOfParts([partOf('and', 'g')], [], 's0');
  const file = JSON.parse(writeLesson({ ...emptyLesson('limits', 'Limits'), sheets: [sheet] }));
  change(file);
  return JSON.stringify(file);
};
const dump = (variables: string, changes: string) =>
  `$timescale 1 ns $end\n$scope module m $end\n${variables}\n$upscope $end\n$enddefinitions $end\n${changes}`;

const LIMITS: readonly Limit[] = [
  {
    of: 'bytes of a file',
    is: MOST_BYTES,
    why: 'a file is read as one text, twice its size in memory; the largest lesson has a twentieth of it',
    make: (size) => 'x'.repeat(size),
    read: (text) => {
      const large = tooLarge(text.length);
      return large ? refused(large.code, large.message) : done(text);
    },
  },
  {
    of: 'sheets of a lesson',
    is: MOST_SHEETS,
    why: 'tabs and lists of sheets are read by people',
    make: (size) =>
      lessonOf((file) => {
        file.sheets = Array.from({ length: size }, (_, i) => ({
          ...file.sheets[0]!,
          id: `s${i}`,
          name: `S ${i}`,
        }));
      }),
    read: readLesson,
  },
  {
    of: 'parts of a sheet',
    is: MOST_PARTS,
    why: 'an edit copies the table of parts of its sheet: some milliseconds at this size',
    make: (size) =>
      lessonOf((file) => {
        const { parts } = file.sheets[0]!;
        file.sheets[0]!.parts = Array.from({ length: size }, (_, i) => ({
          ...parts[0],
          id: `g${i}`,
          at: { x: (i % 200) * 9, y: Math.floor(i / 200) * 9 },
        }));
      }),
    read: readLesson,
  },
  {
    of: 'corners of a wire',
    is: MOST_CORNERS,
    why: 'a wire that nobody can follow; routes that are found have a tenth of it',
    make: (size) =>
      lessonOf((file) => {
        const sheet = file.sheets[0]!;
        sheet.parts.push({ id: 'l', kind: 'lamp', at: { x: 40, y: 0 } });
        const course = Array.from({ length: size }, (_, i) => ({ x: 10 + (i >> 1), y: ((i + 1) >> 1) % 2 }));
        sheet.wires = [{ id: 'w', from: { part: 'g', port: 'Y' }, to: { part: 'l', port: 'A' }, course }];
      }),
    read: readLesson,
  },
  {
    of: 'words and signs of a Verilog file',
    is: MOST_TOKENS,
    why: 'the largest sheet, a statement for each of its parts, has not many more',
    make: (size) => `module m(input a);\n${times(Math.floor((size - 9) / 3), () => 'wire b;')}\nendmodule`,
    read: verilog,
  },
  {
    of: 'operators of a chain, brackets, or cases in one another in Verilog',
    is: MOST_DEPTH,
    why: 'what works on expressions goes down by recursion, in workers with small stacks as well',
    make: (size) => body(`assign y = ${times(size + 1, () => 'a', ' + ')};`),
    read: verilog,
  },
  {
    of: 'levels of modules in one another',
    is: MOST_NESTED,
    why: 'as many as blocks are unfolded',
    make: (size) =>
      times(size, (i) =>
        i + 1 < size
          ? `module m${i}(input a, output y); m${i + 1} u(a, y); endmodule\n`
          : `module m${i}(input a, output y); assign y = a; endmodule\n`,
      ),
    read: verilog,
  },
  {
    of: 'modules of a Verilog file, counting each set of parameters',
    is: MOST_SHEETS,
    why: 'each becomes a sheet of the lesson',
    make: (size) =>
      `${times(size - 1, (i) => `module m${i}(input a, output y); assign y = ~a; endmodule\n`)}module top(input a, output [${size}:0] y);\n${times(size - 1, (i) => `wire w${i}; m${i} u${i}(a, w${i});\n`)}endmodule\n`.replace(
        /output \[\d+:0\] y/,
        'output y',
      ),
    read: verilog,
  },
  {
    of: 'parts that a Verilog module makes',
    is: MOST_PARTS,
    why: 'a sheet must be possible to keep',
    make: (size) => body(times(size - 2, () => 'not (y, a);', '\n')),
    read: verilog,
  },
  {
    of: 'primes or negations of a formula in one another',
    is: MOST_DEEP,
    why: 'formulas are worked on by recursion; more is no formula for a reader',
    make: (size) => `Y = a${"'".repeat(size)}`,
    read: (text) => readFormulas(text),
  },
  {
    of: 'signals of a dump',
    is: MOST_SIGNALS,
    why: 'each has a name and a list of its own',
    make: (size) =>
      dump(
        times(size, (i) => `$var wire 1 c${i} n${i} $end`, '\n'),
        '#0\n',
      ),
    read: readVcd,
  },
  {
    of: 'changes of a dump',
    is: MOST_CHANGES,
    why: 'each takes some 40 bytes',
    make: (size) =>
      dump('$var wire 1 ! a $end', `#0\n${times(size, (i) => `${i % 2}!`, '\n#1\n')}`.replaceAll('#1\n', '')),
    read: readVcd,
  },
  {
    of: 'bits in the changes of words of a dump',
    is: MOST_BITS,
    why: 'each takes 8 bytes',
    make: (size) =>
      dump(
        '$var wire 2000 ! a $end',
        times(Math.ceil(size / 2000), (i) => `#${i}\nb${i % 2} !`, '\n'),
      ),
    read: readVcd,
  },
  {
    of: 'rows of a CSV file',
    is: MOST_ROWS,
    why: 'the longest stimulus and the largest table that are worked with have a quarter of it',
    make: (size) => `time,a\n${times(size, (i) => `${i},1`, '\n')}`,
    read: readCsv,
  },
  {
    of: 'columns of a CSV file',
    is: MOST_COLUMNS,
    why: 'the bits of all inputs of the widest circuit',
    make: (size) => `${times(size, (i) => `c${i}`, ',')}\n`,
    read: readCsv,
  },
  {
    of: 'fields of a CSV file',
    is: MOST_FIELDS,
    why: 'each takes some 50 bytes',
    make: (size) =>
      `${times(50, (i) => `c${i}`, ',')}\n${times(Math.ceil(size / 50), () => times(50, () => '1', ','), '\n')}`,
    read: readCsv,
  },
  {
    of: 'marks in a paragraph of a task text',
    is: MOST_MARKS,
    why: 'the time that Markdown takes grows with their square; beyond, the text is shown as typed',
    make: (size) => '*'.repeat(size),
    read: modest,
  },
  {
    of: 'quotes and lists in one another in a task text',
    is: MOST_QUOTES,
    why: 'Markdown goes down by recursion; beyond, the text is shown as typed',
    make: (size) => '>'.repeat(size),
    read: modest,
  },
];

function modest(text: string): Result<unknown> {
  return isModestMarkdown(text) ? done(text) : refused('as-typed', 'it is shown as it was typed');
}

interface Seen {
  readonly isRead: boolean;
  readonly said: string;
  readonly ms: number;
  readonly mb: number;
}

/** Reads one input in this process, and tells how it went. */
function readHere(limit: Limit, isBeyond: boolean): Seen {
  // Beyond the limit by one; where the input is made of rows or words, by one row or word.
  const text = limit.make(limit.is + (isBeyond ? stepOf(limit) : 0));
  const begun = performance.now();
  const read = limit.read(text);
  const ms = performance.now() - begun;
  return {
    isRead: read.ok,
    said: read.ok ? '' : read.problem.message,
    ms: Math.round(ms),
    mb: Math.round(process.resourceUsage().maxRSS / 1024),
  };
}

const stepOf = ({ is }: Limit) =>
  is === MOST_BITS ? 2000 : is === MOST_FIELDS ? 50 : is === MOST_TOKENS ? 12 : 1;

function readApart(index: number, isBeyond: boolean): Seen {
  const run = spawnSync(
    process.execPath,
    [`--max-old-space-size=${2 * MOST_MB}`, process.argv[1]!, '--one', String(index), String(isBeyond)],
    { encoding: 'utf8', timeout: 60_000 },
  );
  if (run.status !== 0)
    return { isRead: false, said: `ENDED: ${run.stderr.slice(0, 300) || run.signal}`, ms: 60_000, mb: 0 };
  return JSON.parse(run.stdout) as Seen;
}

const number = (value: number) => value.toLocaleString('en');

/** A page without the width of its tables, which is set when the docs are tidied. */
const plain = (text: string) => text.replaceAll(/ +/g, ' ').replaceAll(/-{2,}/g, '-');

function document(): string {
  const rows = LIMITS.map(({ of, is, why }) => `| ${of} | ${number(is)} | ${why} |`);
  return `# Limits

What comes from outside is read within two seconds and 300 MB, or refused with one sentence that names the limit. \`npm run
limits\` goes to each limit and one beyond, each in a process of its own; this page is written by it.

| Most | is | because |
| --- | ---: | --- |
${rows.join('\n')}

Also: wires of a sheet ${number(MOST_WIRES)}; parts of a circuit with all blocks unfolded 500,000 (what is beyond is left out, and
said); JSON nested 40 levels deep; a word of Verilog 256 bits; a message 600 characters, shortened in its middle; a run on the
command line 100,000,000 steps (\`--most-steps\`); a pipe that is silent for 10 s; a checked run 250,000 steps.
`;
}

function main(): void {
  const [flag, index, isBeyond] = process.argv.slice(2);
  if (flag === '--one') {
    process.stdout.write(JSON.stringify(readHere(LIMITS[Number(index)]!, isBeyond === 'true')));
    return;
  }
  const page = 'docs/limits.md';
  if (flag === '--write') writeFileSync(page, document());
  else if (plain(readFileSync(page, 'utf8')) !== plain(document()))
    fail(`${page} is not what the limits say: npm run limits -- --write`);
  for (const [i, limit] of LIMITS.entries()) {
    const [at, beyond] = [readApart(i, false), readApart(i, true)];
    console.info(
      `${limit.of}: ${number(limit.is)} read in ${at.ms} ms, ${at.mb} MB; one more refused in ${beyond.ms} ms, ${beyond.mb} MB: ${beyond.said}`,
    );
    if (!at.isRead) fail(`${limit.of}: what just reaches the limit is refused: ${at.said}`);
    if (beyond.isRead || beyond.said.startsWith('ENDED')) fail(`${limit.of}: what is beyond is not refused`);
    for (const { ms, mb } of [at, beyond])
      if (ms > MOST_MS || mb > MOST_MB) fail(`${limit.of}: ${ms} ms and ${mb} MB are too much`);
  }
}

function fail(text: string): void {
  console.error(`limits: ${text}`);
  process.exitCode = 1;
}

main();
