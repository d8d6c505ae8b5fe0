import type { Lesson } from '../src/core/circuit/lesson';
import { DEFAULT_SETTINGS, type Sheet } from '../src/core/circuit/sheet';
import { runOfSheet } from '../src/core/exercise/expected/run/expected-run';
import { tableOfSheet } from '../src/core/exercise/expected/table/expected-table';
import type { FunctionRows } from '../src/core/exercise/kinds/function';
import { excitationTable } from '../src/core/exercise/kinds/table/flip-flop-tables';
import { withSheetInside } from '../src/core/parts/block';
import { sheetIdInside } from '../src/core/parts/catalogue';
import { expectDone } from '../src/core/values/result';

/*
 * The ready sets of tasks in the carousel scenario. `npm run demo` writes them; the model answers beside the tasks are held
 * against them by the tests. Longer than other files because the sets are its content: each stands here whole.
 */
import { called, counter, drawn, interlock, module, rippleCounter, toggler } from './drawn-sheets';
import {
  bookTable,
  build,
  buildRun,
  buildTable,
  cutBefore,
  diagram,
  driving,
  fault,
  faultyPart,
  forCounting,
  formula,
  GATES,
  map,
  number,
  partsOf,
  type ReadySet,
  set,
  table,
  wire,
  words,
} from './posed-tasks';

const warn: FunctionRows = {
  inputs: ['Key', 'Bars', 'Clear', 'Stop'],
  output: 'Warn',
  rows: '0000000011111101',
};

function firstGates(): ReadySet {
  const both = drawn('Drive = Key and Bars');
  const either = drawn('Bell = North or South');
  const free = drawn('Free = not Taken');
  return set('first-gates', 'First gates', 'Three gates of the carousel: predict each, then try it.', [
    table(
      'Both',
      'The carousel may turn when the key is in **and** the bars are down. Predict **Drive**.',
      both,
      true,
    ),
    table(
      'Either',
      'A rider may ring at the north **or** at the south gate. Predict **Bell**.',
      either,
      true,
    ),
    table('Neither', 'The lamp **Free** shows whether a horse may be mounted. Predict it.', free, true),
    words(
      'In words',
      'When is the lamp **Bell** on? Answer in one sentence.',
      'Bell is on whenever at least one of North and South is on.',
      either,
    ),
  ]);
}

function interlockSet(): ReadySet {
  const sheet = interlock();
  const nands = module(`module warn(input Key, input Bars, output Warn);
wire Down, Up;
nand (Down, Key, Bars);
nand (Up, Key, Down);
nand (Warn, Up, Up);
endmodule`);
  return set(
    'interlock',
    'Interlock',
    'From the words to the circuit: table, map, smallest sum, and NANDs alone.',
    [
      table(
        'The table',
        '- **Drive** may be 1 only while the key is in, the bars are down *and* the platform is clear.\n- **Warn** lights while the key is in and a bar is up.',
        sheet,
        false,
      ),
      map('The map', 'With a fourth input **Stop** the warning lamp does this. Group its ones.', warn),
      formula(
        'The smallest sum',
        'Write **Warn** as a sum of products with as few literals as you can.',
        warn,
        'sum of products',
        6,
        "Key Bars' + Key Clear' + Key Stop",
      ),
      buildTable('The circuit', 'Draw **Drive** and **Warn** with AND, OR and NOT.', sheet, {
        parts: ['and', 'or', 'not'],
        points: 2,
      }),
      buildTable(
        'NANDs alone',
        'Draw **Warn** = Key and not Bars with at most three NANDs of two inputs.',
        nands,
        {
          parts: ['nand'],
          limits: { gates: 3, gateInputs: 2 },
          points: 3,
        },
      ),
    ],
  );
}

/** The sheets of the ticket adder, their blocks leading to the tasks in which they are built. */
function ticketSheets(lesson: Lesson): { half: Sheet; full: Sheet; four: Sheet } {
  const named = (name: string) => lesson.sheets.find((s) => s.name === name)!;
  const ids = new Map([
    [named('Half adder').id, 'task1'],
    [named('Full adder').id, 'task2'],
  ]);
  const led = (sheet: Sheet): Sheet => ({
    ...sheet,
    parts: new Map(
      [...sheet.parts].map(([id, part]) => {
        const to = ids.get(sheetIdInside(part) ?? '');
        return [id, to ? withSheetInside(part, to) : part];
      }),
    ),
  });
  return { half: named('Half adder'), full: led(named('Full adder')), four: led(named('Four bits')) };
}

function tickets(lesson: Lesson): ReadySet {
  const own = (name: string) => {
    const sheet = lesson.sheets.find((s) => s.name === name)!;
    return expectDone(tableOfSheet(sheet, lesson.sheets));
  };
  const { half, full, four } = ticketSheets(lesson);
  const halfBuilt = { ...half, id: 'task1', name: 'Half adder' };
  const fullBuilt = { ...full, id: 'task2', name: 'Full adder' };
  const sixteen = called(
    [halfBuilt, fullBuilt],
    ['Tickets, Carry = full adder(Children[15:0], Adults[15:0], Carry = 0)'],
  );
  const around = [sixteen, halfBuilt, fullBuilt];
  const own16 = runOfSheet(
    sixteen,
    { sheets: around, settings: DEFAULT_SETTINGS },
    driving(sixteen, 'random', 10_000),
    new Set(),
    24,
  );
  const run16 = expectDone(own16).expected;
  const sum16 = { ...run16, outputs: run16.outputs.filter(({ name }) => name === 'Tickets') };
  const more = called([halfBuilt], ['Next, c = half adder(Riders[3:0], c = 1)']);
  const free = called(
    [halfBuilt, fullBuilt],
    ['n = not Riders[3:0]', 'Free, c = full adder(Places[3:0], n[3:0], c = 1)'],
  );
  const unit = called(
    [halfBuilt, fullBuilt],
    [
      'm = {Does[0], Does[0], Does[0]}',
      'k = {Does[1], Does[1], Does[1]}',
      'b = B[2:0] xor m[2:0]',
      's, c = full adder(A[2:0], b[2:0], c = Does[0])',
      'a = A and B',
      'o = A or B',
      'l = (a and not m) or (o and m)',
      'Y = (s and not k) or (l and k)',
    ],
    { Does: 2 },
  );
  /** The table of a sheet that is built of half and full adders. */
  const tableOf = (sheet: Sheet) => expectDone(tableOfSheet(sheet, [sheet, halfBuilt, fullBuilt]));
  const rung = (title: string, text: string, sheet: Sheet, blocks: readonly string[], points: number) =>
    build(title, text, sheet, tableOf(sheet), {
      parts: [...GATES, 'constant', 'slice', 'join', 'label'],
      blocks,
      points,
    });
  return set(
    'tickets',
    'Tickets',
    'Children’s and adults’ tickets are added, step by step: what you build in one task is a block in the next.',
    [
      build('Half adder', 'Add two bits **A** and **B**: **Sum** and **Carry**.', half, own('Half adder'), {
        standsInWith: [],
      }),
      build(
        'Full adder',
        'Add **A**, **B** and a carry **In** out of two of your half adders and one OR.',
        full,
        own('Full adder'),
        { parts: ['or', 'label'], blocks: ['task1'], points: 2, standsInWith: [halfBuilt] },
      ),
      build('Four bits', 'Chain full adders into a sum of four bits.', four, own('Four bits'), {
        parts: [
          ...new Set([
            ...partsOf(
              four,
              lesson.sheets.map((s) => (s.name === 'Four bits' ? four : s)),
            ).filter((kind) => !GATES.includes(kind) && kind !== 'block'),
            'slice',
            'join',
            'constant',
          ]),
        ],
        blocks: ['task1', 'task2'],
        points: 3,
      }),
      build(
        'Sixteen bits',
        'Add **Children** and **Adults** of sixteen bits, out of your full adders.',
        sixteen,
        sum16,
        {
          parts: ['slice', 'join', 'constant', 'label'],
          blocks: ['task1', 'task2', 'task3'],
          points: 3,
        },
      ),
      rung('One more', 'The number **Riders** and one more, of four bits.', more, ['task1'], 2),
      rung(
        'Free places',
        '**Places** less **Riders**, of four bits: to subtract is to add each bit turned over, and one.',
        free,
        ['task2'],
        2,
      ),
      rung(
        'Arithmetic unit',
        '**Does** says what is done: 0 adds, 1 subtracts, 2 is AND, 3 is OR.',
        unit,
        ['task2'],
        4,
      ),
    ],
  );
}

function findTheFault(): ReadySet {
  const sheet = interlock();
  const selector = drawn('Platform = (North and not Turn) or (South and Turn)');
  const half = drawn('Sum = A xor B', 'Carry = A and B');
  return set(
    'find-the-fault',
    'Find the fault',
    'One part or wire of each circuit is faulty. Find it with as few rows and probes as you can.',
    [
      fault(
        'Dark lamp',
        'The drive does not start. Which part or wire is faulty, and which row shows it?',
        sheet,
        faultyPart(sheet, 'and', { is: 'stuck', at: 0 }),
      ),
      fault(
        'Wrong queue',
        'Riders are let in from the wrong side.',
        selector,
        faultyPart(selector, 'not', { is: 'inverted', port: 'A' }),
      ),
      fault(
        'Too many tickets',
        'The sum of two tickets is wrong.',
        half,
        faultyPart(half, 'xor', { is: 'other', kind: 'or' }),
      ),
      fault(
        'A loose contact',
        'At times nobody can say whether the warning lamp is on.',
        sheet,
        cutBefore(sheet, 'and', 'B'),
      ),
      fault(
        'Repair it',
        'Repair the interlock: replace the faulty part.',
        sheet,
        faultyPart(sheet, 'not', { is: 'open', port: 'A' }),
        'repair',
      ),
    ],
  );
}

function lampChase(chase: Sheet): ReadySet {
  const turn = toggler();
  const sixteen = counter(16);
  const ripple = rippleCounter();
  const ten = counter(10);
  return set(
    'lamp-chase',
    'Lamp chase',
    'Lamps that run round the roof: flip-flops, counters, and how fast the clock may be.',
    [
      table(
        'A flip-flop that turns over',
        'Complete the state table: the present state and **turn**, then the state after the edge.',
        turn,
        true,
      ),
      bookTable(
        'Excitation of a JK flip-flop',
        'A JK flip-flop is to go from **Q** to **Q+** at the next edge. What do **J** and **K** have to be? Where either will do, write x.',
        excitationTable('jkff'),
      ),
      diagram(
        'The chase',
        'A light runs round the roof. Draw the lanes of **L0**, **L1** and **L2**.',
        chase,
        ['L0', 'L1', 'L2'],
      ),
      buildRun(
        'Count to sixteen',
        'Build a counter of four bits that counts at each rising edge: **Count**.',
        sixteen,
        null,
        20,
        {
          parts: forCounting(sixteen),
          points: 3,
        },
      ),
      buildRun(
        'One behind the other',
        'Build a four-bit ripple counter from four flip-flops and no gates. Each flip-flop is clocked by the one before it.',
        ripple,
        null,
        20,
        {
          parts: ['tff', 'dff', 'jkff', 'constant', 'join', 'clock'],
          points: 2,
        },
      ),
      buildRun(
        'Cut at ten',
        'Build a counter that goes from 0 to 9 and then starts again at 0.',
        ten,
        null,
        24,
        {
          parts: forCounting(ten, 'comparator'),
          points: 3,
        },
      ),
      number('The shortest period', 'How short may the clock period of this chase be?', '19 ns', {
        quantity: 'time',
        tolerance: 0.2,
        given: chase,
      }),
      number(
        'After five stages',
        'Five flip-flops that turn over at each edge follow one another, behind a clock of 64 kHz. Which frequency leaves the last?',
        '2 kHz',
        { quantity: 'frequency' },
      ),
    ],
  );
}

function readTheDiagram(chase: Sheet): ReadySet {
  const gate = drawn('Drive = Key and Bars');
  const timed = (sheet: Sheet, data: Readonly<Record<string, string>>): Sheet => {
    const stimulus = driving(sheet, 'bits', 10_000, data);
    return { ...sheet, time: { stimuli: [stimulus], driven: stimulus.name, lanes: [] } as never };
  };
  const set1 = timed(gate, { Key: '0011110011100110', Bars: '0101101101011010' });
  const differ = timed(drawn('Alarm = Left xor Right'), {
    Left: '0110011100101101',
    Right: '0011010110110010',
  });
  return set(
    'read-the-diagram',
    'Read the diagram',
    'Lanes are missing: complete them, then run the circuit and compare.',
    [
      diagram('Both', 'Draw **Drive** under the two lanes that are given.', set1, ['Drive']),
      diagram('They differ', 'Draw **Alarm**: it is on while the two bars differ.', differ, ['Alarm']),
      diagram('A ring of lamps', 'Draw the lanes of **L4** and **L5**. The light begins at L0.', chase, [
        'L4',
        'L5',
      ]),
    ],
  );
}

function numbers(): ReadySet {
  return set('numbers', 'Numbers', 'How the ticket machine writes its numbers.', [
    number('Binary', 'Write 13 tickets in five bits.', '01101', { bits: 5 }),
    number('Back again', 'How many tickets are 10110?', '22'),
    number('Hexadecimal', 'The counter shows 2F in hexadecimal. How many riders are that?', '47'),
    number(
      'Two’s complement',
      'Five tickets were given back. Write -5 in eight bits, in two’s complement.',
      '11111011',
      { bits: 8 },
    ),
    number('Below zero', 'What number is 11110110, in two’s complement of eight bits?', '-10'),
    number('How many rows', 'How many rows has the truth table of this circuit?', '8', {
      given: interlock(),
    }),
  ]);
}

function onTheBoard(): ReadySet {
  return set('on-the-board', 'On the board', 'From the drawing to packages, pins and wires.', [
    wire(
      'A first gate',
      'The horse is **Free** while nobody has *taken* it. Wire the inverter: the supply first, then its input and its lamp.',
      drawn('Free = not Taken'),
      { guide: 'shows', points: 1 },
    ),
    wire(
      'The alarm',
      '**Alarm** sounds while the ride is *armed* and the gate or a strap is open. Wire the drawing stage by stage, and test each.',
      drawn('Alarm = Armed (Gate + Strap)'),
    ),
    wire(
      'From the drawer',
      'The bell rings while the north or the south gate is pressed, but not both. There is one package of NANDs in the drawer.',
      module(`module bell(input North, input South, output Bell);
wire Both, OnlyNorth, OnlySouth;
nand (Both, North, South);
nand (OnlyNorth, North, Both);
nand (OnlySouth, South, Both);
nand (Bell, OnlyNorth, OnlySouth);
endmodule`),
      { does: 'build', guide: 'none', stock: [{ type: '7400', count: 1 }], most: 1, points: 3 },
    ),
  ]);
}

/**
 * All ready sets, in the order of a course.
 * @param adder the lesson of the ticket adder, whose sheets the ladder asks for.
 * @param chase the lesson of the lamp chase.
 */
export const readySets = (adder: Lesson, chase: Lesson): readonly ReadySet[] => [
  firstGates(),
  interlockSet(),
  tickets(adder),
  findTheFault(),
  lampChase(chase.sheets[0]!),
  readTheDiagram(chase.sheets[0]!),
  numbers(),
  onTheBoard(),
];
