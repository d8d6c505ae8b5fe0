import { readdirSync, readFileSync } from 'node:fs';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import type { Lesson } from '@/core/circuit/lesson';
import { markAll } from '@/core/exercise/marking';
import { readStimulus } from '@/core/formats/csv';
import { exerciseFromFragment, exerciseToFragment, readExercise } from '@/core/formats/exercise-file';
import { readHandIn } from '@/core/formats/hand-in-file';
import { readLesson } from '@/core/formats/lesson-file';
import { toTables } from '@/core/formats/sheet-tables';
import { writeSvg } from '@/core/formats/svg';
import { readVcd } from '@/core/formats/vcd';
import { readVerilog } from '@/core/formats/verilog/read';
import { writeVerilog } from '@/core/formats/verilog/write';
import { lessonToFile } from '@/core/formats/write-lesson';
import { readFormulas } from '@/core/logic/expression/typed-formulas';
import { specFromText } from '@/core/logic/specification/spec-text';
import { compile } from '@/core/netlist/compile';
import { readStatement } from '@/core/synthesis/statement';
import { dice } from '@/core/testing/dice';
import { randomModule } from '@/core/testing/random-verilog';
import { sheetAround } from '@/core/testing/rig';
import { isModestMarkdown } from '@/core/values/markdown';
import { runsOf } from '@/core/values/markup';
import { readWord } from '@/core/values/radix';
import { done, expectDone, type Result } from '@/core/values/result';
import { readDuration } from '@/core/values/time';

/*
 * Feeds all readers: npm run fuzz [-- COUNT [SEED]], a million inputs without a count. Inputs are made by the grammar and
 * bent in one place, made valid and bent in one place of their structure, or mutated as texts. Each must end in a result or
 * in a sentence, within MOST_MS and MOST_MB; the ten worst are printed with the seeds that make them again.
 */

const MOST_MS = 1500;
const MOST_MB = 300;

type Roll = () => number;
const pick = <T>(roll: Roll, all: readonly T[]): T => all[Math.floor(roll() * all.length)]!;

/** Texts that stand for nothing good. */
const STRANGE: readonly unknown[] = [
  null,
  true,
  -1,
  0.5,
  1e308,
  Number.MAX_SAFE_INTEGER,
  -0,
  '',
  '\u0000',
  '\ud800',
  '__proto__',
  'constructor',
  '\u202e',
  'x'.repeat(5000),
  [],
  {},
  [[[[[[]]]]]],
  { __proto__: null },
];

/** Changes one place of a structure: another value, one less, one more, one from elsewhere. */
function bent(roll: Roll, root: unknown): unknown {
  const copy = structuredClone(root);
  const places: [object, string][] = [];
  const walk = (value: unknown) => {
    if (typeof value !== 'object' || value === null) return;
    for (const key of Object.keys(value)) {
      places.push([value, key]);
      walk((value as Record<string, unknown>)[key]);
    }
  };
  walk(copy);
  if (places.length === 0) return copy;
  const [holder, key] = pick(roll, places) as [Record<string, unknown>, string];
  const kind = roll();
  if (kind < 0.4) holder[key] = pick(roll, STRANGE);
  else if (kind < 0.55) {
    if (Array.isArray(holder)) holder.splice(Number(key), 1);
    else delete holder[key];
  } else if (kind < 0.7) {
    if (Array.isArray(holder))
      for (let i = 0; i < roll() * 300; i++) holder.push(structuredClone(holder[Number(key)]));
    else holder[`${key}x`] = holder[key];
  } else if (kind < 0.85) {
    const [other, at] = pick(roll, places) as [Record<string, unknown>, string];
    // A value that holds its new place would be a circle.
    holder[key] = JSON.parse(JSON.stringify(other[at] ?? null));
  } else if (typeof holder[key] === 'number') holder[key] = Math.round((roll() - 0.5) * 10 ** (roll() * 12));
  else if (typeof holder[key] === 'string') holder[key] = mutated(roll, holder[key]);
  return copy;
}

/** A text with a few pieces cut, doubled, swapped or put in. */
function mutated(
  roll: Roll,
  text: string,
  words: readonly string[] = ['\u0000', '"', '\\', '{', ']', '-1', '1e99'],
): string {
  let now = text;
  for (let i = 0; i <= roll() * 4; i++) {
    const at = Math.floor(roll() * (now.length + 1));
    const length = Math.floor(roll() * 40);
    const piece = now.slice(at, at + length);
    const to = Math.floor(roll() * (now.length + 1));
    const kind = roll();
    if (kind < 0.25) now = now.slice(0, at) + now.slice(at + length);
    else if (kind < 0.5) now = now.slice(0, at) + pick(roll, words) + now.slice(at);
    else if (kind < 0.7) now = now.slice(0, to) + piece.repeat(1 + Math.floor(roll() * 5)) + now.slice(to);
    else if (kind < 0.75)
      now = now.slice(0, at) + pick(roll, words).repeat(Math.floor(roll() * 3000)) + now.slice(at);
    else now = now.slice(0, at) + now.slice(to, to + length) + now.slice(at + length);
  }
  return now;
}

const texts = (folder: string, ending: string) =>
  readdirSync(folder)
    .filter((name) => name.endsWith(ending))
    .map((name) => readFileSync(`${folder}/${name}`, 'utf8'));
const LESSONS = texts('demo', '.manege.json').filter((text) => text.length < 60_000);
const [EXERCISE] = texts('demo/exercise', '.exercise.json');
const HAND_INS = texts('demo/exercise', '.handin.json');
const parsed = (all: readonly string[]) => all.map((text) => JSON.parse(text) as unknown);
const [lessonFiles, handInFiles, exerciseFile] = [
  parsed(LESSONS),
  parsed(HAND_INS),
  JSON.parse(EXERCISE!) as unknown,
];
/** The same lessons with their sheets as lists, as large ones are written. */
const listedFiles = LESSONS.map((text): unknown => {
  const { sheets, ...head } = lessonToFile(expectDone(readLesson(text)));
  const listed = sheets.map(({ parts, wires, ...sheet }) => ({
    ...sheet,
    tables: toTables({ parts, wires }),
  }));
  return JSON.parse(JSON.stringify({ ...head, sheets: listed }));
});
const exercise = expectDone(readExercise(EXERCISE!));
const FRAGMENT = exerciseToFragment(exercise);
const lesson = expectDone(readLesson(LESSONS[0]!));
const counter = compile(sheetAround('counter', { width: 3 }));
const VERILOG_WORDS =
  'module endmodule always assign case endcase if else begin end posedge [ ] {9{ #( 4\'b (* /* " ` 99999999 \\ <= __proto__ -1 = ( ) ; : ? ~& <<'.split(
    ' ',
  );
const FORMULAS = [
  "Drive = Key Bars Clear'",
  'S = A ^ B; C = A & B',
  'Y = \\overline{A + B} C',
  'Y = not (A and B) or C xor D',
  'assign y = a ? b : c;',
];
const DUMP =
  '$timescale 1 ns $end\n$scope module m $end\n$var wire 1 ! a $end\n$var wire 8 " b [7:0] $end\n$upscope $end\n$enddefinitions $end\n#0\n0!\nb1010 "\n#5\n1!\nbx "\n#9\n0!\n';
const STIMULUS = 'time,C\n0,0\n10,1\n"20",0\n30.5,1\n40,x\n';
const SPEC = 'A,B,=,S,C\n0,0,,0,0\n0,1,,1,0\n1,0,,1,0\n1,1,,0,1\n';
const TASK = '# Task\n\n> - one *two* **three** `code`\n\n| A | B |\n|---|---|\n| 0 | 1 |\n';

/** Compiles and draws a lesson that was read, as the application does next. */
function used(read: Result<Lesson>): Result<unknown> {
  if (!read.ok) return read;
  for (const sheet of read.value.sheets.slice(0, 3)) {
    compile(sheet, read.value.sheets);
    writeSvg(sheet, read.value.settings);
  }
  writeVerilog(read.value, read.value.sheets[0]!);
  return read;
}

interface Reader {
  readonly name: string;
  readonly make: (roll: Roll) => string;
  readonly read: (text: string) => Result<unknown>;
}

const READERS: readonly Reader[] = [
  {
    name: 'Verilog by its grammar',
    make: (roll) => {
      const { text } = randomModule(roll);
      return roll() < 0.3 ? text : mutated(roll, text, VERILOG_WORDS);
    },
    read: (text) => used(readVerilog(text, 'Fuzz')),
  },
  {
    name: 'lessons bent in one place',
    make: (roll) => JSON.stringify(bent(roll, pick(roll, lessonFiles))),
    read: (text) => used(readLesson(text)),
  },
  {
    name: 'lessons as lists, bent in one place',
    make: (roll) => JSON.stringify(bent(roll, pick(roll, listedFiles))),
    read: (text) => used(readLesson(text)),
  },
  {
    name: 'lessons as texts',
    make: (roll) => mutated(roll, pick(roll, LESSONS)),
    read: (text) => used(readLesson(text)),
  },
  {
    name: 'exercises bent in one place',
    make: (roll) => JSON.stringify(bent(roll, exerciseFile)),
    read: readExercise,
  },
  {
    name: 'hand-ins bent in one place, and checked',
    make: (roll) => JSON.stringify(bent(roll, pick(roll, handInFiles))),
    read: (text) => {
      const read = readHandIn(text);
      if (read.ok) markAll(exercise, read.value.lesson);
      return read;
    },
  },
  {
    name: 'links',
    make: (roll) => mutated(roll, FRAGMENT, ['%', 'A', '_', '-', '=']),
    read: exerciseFromFragment,
  },
  {
    name: 'formulas',
    make: (roll) =>
      mutated(roll, pick(roll, FORMULAS), ['(', ')', "'", '+', '\\overline{', 'nand', '=', '\n', '!']),
    read: (text) => readFormulas(text),
  },
  {
    name: 'statements',
    make: (roll) => mutated(roll, pick(roll, FORMULAS), ['(', '[7:0]', ',', '=', "'"]),
    read: (text) => readStatement(lesson, lesson.sheets[0]!.id, text),
  },
  {
    name: 'dumps',
    make: (roll) => mutated(roll, DUMP, ['$end', '$var', '#', 'b1', '#-1', '$scope', '4096']),
    read: readVcd,
  },
  {
    name: 'stimuli',
    make: (roll) => mutated(roll, STIMULUS, [',', '"', '\n', '1e99', "4'b1", 'time']),
    read: (text) => readStimulus(text, counter),
  },
  {
    name: 'tables',
    make: (roll) => mutated(roll, SPEC, [',', '\t', '=', 'x', '-', '\n']),
    read: specFromText,
  },
  {
    name: 'marks, words and times',
    make: (roll) =>
      mutated(roll, pick(roll, [TASK, '~{Q_0}_{in}', '0x1F', '4 h 33 min 2.5 us']), [
        '>',
        '*_',
        '_{',
        '~',
        '[',
        '`',
      ]),
    read: (text) => done([isModestMarkdown(text), runsOf(text), readWord(text, 8), readDuration(text)]),
  },
];

interface Worst {
  readonly reader: string;
  readonly seed: number;
  readonly ms: number;
  readonly mb: number;
  readonly characters: number;
}

interface Share {
  readonly from: number;
  readonly to: number;
  /** The seed that is at work, and when it began, for whoever watches. */
  readonly watch: SharedArrayBuffer;
}

/** Seeds choose the reader as well, so that one number makes an input again. */
function feed(seed: number): { reader: Reader; text: string; roll: Roll } {
  const roll = dice(seed);
  const reader = READERS[seed % READERS.length]!;
  return { reader, text: reader.make(roll), roll };
}

/** The time of a second reading where the first was slow: other work on the machine may have held it up. */
function again(reader: Reader, text: string, first: number): number {
  if (first <= MOST_MS) return first;
  const begun = performance.now();
  try {
    void reader.read(text).ok;
  } catch {
    // The first reading has told it.
  }
  return performance.now() - begun;
}

function work({ from, to, watch }: Share): void {
  const at = new Float64Array(watch);
  const worst: Worst[] = [];
  const faults: string[] = [];
  let refused = 0;
  for (let seed = from; seed < to; seed++) {
    at[0] = seed;
    at[1] = Date.now();
    const { reader, text } = feed(seed);
    const before = process.memoryUsage().heapUsed;
    const begun = performance.now();
    try {
      const read = reader.read(text);
      if (!read.ok) {
        refused++;
        if (!/\S/.test(read.problem.message) || read.problem.message.length > 700)
          faults.push(`${reader.name}, seed ${seed}: a message of ${read.problem.message.length} characters`);
      }
    } catch (error) {
      faults.push(`${reader.name}, seed ${seed}: ${String((error as Error).stack ?? error).slice(0, 400)}`);
    }
    const ms = Math.min(performance.now() - begun, again(reader, text, performance.now() - begun));
    const mb = (process.memoryUsage().heapUsed - before) / 1e6;
    if (ms > MOST_MS || mb > MOST_MB)
      faults.push(`${reader.name}, seed ${seed}: ${ms.toFixed(0)} ms, ${mb.toFixed(0)} MB`);
    worst.push({ reader: reader.name, seed, ms, mb, characters: text.length });
    if (worst.length > 2000) {
      worst.sort((a, b) => b.ms - a.ms);
      worst.length = 10;
    }
  }
  if (({} as { bad?: unknown }).bad !== undefined || Object.keys(Object.prototype).length > 0)
    faults.push('a prototype was touched');
  worst.sort((a, b) => b.ms - a.ms);
  parentPort!.postMessage({ worst: worst.slice(0, 10), faults: faults.slice(0, 20), refused });
}

async function main(): Promise<void> {
  const count = Number(process.argv[2] ?? 1_000_000);
  const first = Number(process.argv[3] ?? 1);
  const workers = 2;
  const worst: Worst[] = [];
  const faults: string[] = [];
  let refused = 0;
  await Promise.all(
    Array.from({ length: workers }, async (_, i) => {
      const watch = new SharedArrayBuffer(16);
      const share: Share = {
        from: first + Math.floor((count * i) / workers),
        to: first + Math.floor((count * (i + 1)) / workers),
        watch,
      };
      const worker = new Worker(process.argv[1]!, {
        workerData: share,
        resourceLimits: { maxOldGenerationSizeMb: 2 * MOST_MB },
      });
      await new Promise<void>((end) => {
        const at = new Float64Array(watch);
        const looking = setInterval(() => {
          if (at[1] === 0 || Date.now() - at[1]! < 20_000) return;
          faults.push(`seed ${at[0]} has not ended for 20 s`);
          void worker.terminate();
        }, 1000);
        worker.on('message', (told: { worst: Worst[]; faults: string[]; refused: number }) => {
          worst.push(...told.worst);
          faults.push(...told.faults);
          refused += told.refused;
        });
        worker.on('error', (error) => faults.push(`seed ${at[0]}: ${error.message}`));
        worker.on('exit', () => {
          clearInterval(looking);
          end();
        });
      });
    }),
  );
  worst.sort((a, b) => b.ms - a.ms);
  console.info(
    `${count} inputs from seed ${first} for ${READERS.length} readers, ${refused} refused with a sentence; the ten slowest:`,
  );
  for (const { reader, seed, ms, mb, characters } of worst.slice(0, 10))
    console.info(
      `  ${ms.toFixed(0).padStart(5)} ms ${mb.toFixed(0).padStart(5)} MB  seed ${seed}, ${reader}, ${characters} characters`,
    );
  for (const fault of faults) console.error(`fuzz: ${fault}`);
  process.exitCode = faults.length > 0 ? 1 : 0;
}

if (isMainThread) await main();
else work(workerData as Share);
