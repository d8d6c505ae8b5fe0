import { DEFAULT_WAVE } from '../../circuit/default-wave';
import type { Sheet } from '../../circuit/sheet';
import {
  MOST_PRINTED,
  MOST_PRINTED_LETTERS,
  NO_TIME_SETUP,
  type Stimulus,
  type Wave,
} from '../../circuit/time-setup';
import type { Known, Variable } from './interpret/place';
import { Simulation } from './interpret/simulation';
import { fail } from './scope';
import type { Item, Module, Statement } from './syntax';
import type { Word } from './word';

/*
 * A test bench: a module without ports whose processes drive a circuit and print what it does. It is carried out as its text says,
 * and what it did becomes a stimulus of the circuit.
 */

/** Letters of the changes of one input. */
const MOST_DATA = 190_000;
/** Bits of an input whose values can be written as a number. */
const MOST_WIDTH = 32;

type Instance = Extract<Item, { is: 'instance' }>;

export interface Bench {
  readonly module: Module;
  readonly instance: Instance;
}

/** The bench among modules, and the circuit that it tests; null where there is none. */
export function benchAmong(roots: readonly Module[]): Bench | null {
  const benches = roots.filter((m) => m.ports.length === 0 && m.items.some(isTesting));
  const [module] = benches;
  if (!module || benches.length > 1 || roots.length > 1) return null;
  const instances = module.items.filter((item): item is Instance => item.is === 'instance');
  if (instances.length > 1)
    fail(
      `the test bench ${module.name} holds ${instances.length} circuits, and one is expected: name the one that is meant`,
      instances[1]!,
    );
  const [instance] = instances;
  return instance ? { module, instance } : null;
}

const isTesting = (item: Item): boolean =>
  item.is === 'initial' ? waits(item.body) : item.is === 'always' && (item.on === null || waits(item.body));

/** Whether statements wait or print, as those of a circuit do not. */
function waits(s: Statement | null): boolean {
  switch (s?.is) {
    case 'delay':
    case 'event':
    case 'wait':
    case 'forever':
      return true;
    case 'call':
      return s.name.startsWith('$');
    case 'block':
      return s.statements.some(waits);
    case 'if':
      return waits(s.yes) || waits(s.no);
    case 'case':
      return waits(s.otherwise) || s.items.some(({ body }) => waits(body));
    case 'for':
    case 'while':
    case 'repeat':
      return waits(s.body);
    case 'assign':
      return s.delay !== null && s.blocking;
    default:
      return false;
  }
}

interface Changes {
  readonly name: string;
  readonly variable: Variable;
  readonly at: [time: number, word: Word][];
}

/** What a bench did to the circuit, and saw of it. */
export interface Played {
  readonly inputs: readonly Changes[];
  readonly outputs: readonly Changes[];
  readonly printed: readonly { readonly time: number; readonly text: string }[];
  /** Time in ps at which it ended. */
  readonly end: number;
  /** Whether it came to `$finish`, or nothing was left to happen. */
  readonly isOver: boolean;
  /** The parameters that the circuit has in it. */
  readonly parameters: ReadonlyMap<string, Known>;
}

/** Carries a bench out. @throws VerilogError where it cannot go on. */
export function played(
  modules: readonly Module[],
  { module, instance }: Bench,
  includes?: ReadonlyMap<string, string>,
): Played {
  const simulation = new Simulation(modules, module, new Map(), includes);
  const inside = simulation.root.children.get(instance.name)!;
  const tested = modules.find((m) => m.name === instance.module)!;
  const watched = (direction: 'input' | 'output'): Changes[] =>
    tested.declarations
      .filter((d) => d.direction === direction)
      .map(({ name }) => {
        const variable = inside.variables.get(name)!;
        const changes: Changes = { name, variable, at: [[0, variable.words[0]!]] };
        variable.watchers.add(() => {
          const last = changes.at.at(-1)!;
          if (last[0] === simulation.now) changes.at.pop();
          changes.at.push([simulation.now, variable.words[0]!]);
        });
        return changes;
      });
  const [inputs, outputs] = [watched('input'), watched('output')];
  while (!simulation.isEnded && !simulation.isSpent && simulation.next < Number.POSITIVE_INFINITY)
    simulation.run(simulation.next);
  if (simulation.printer.rest)
    simulation.printer.printed.push({ time: simulation.now, text: simulation.printer.rest });
  const given = new Set(tested.parameters.filter((p) => !p.local).map((p) => p.name));
  return {
    inputs: inputs.sort(inOrder(tested)),
    outputs: outputs.sort(inOrder(tested)),
    printed: simulation.printer.printed,
    end: simulation.now,
    isOver: !simulation.isSpent,
    parameters: new Map(
      [...inside.constants].filter(([name]) => given.has(name) && instance.parameters.length > 0),
    ),
  };
}

const inOrder =
  ({ ports }: Module) =>
  (a: Changes, b: Changes): number =>
    ports.indexOf(a.name) - ports.indexOf(b.name);

/** The sheet with what the bench did as the stimulus that drives it. */
export function driven(sheet: Sheet, name: string, of: Played): Sheet {
  const partOf = (port: string) =>
    [...sheet.parts.values()].find((p) => p.kind === 'port' && p.label === port)?.id;
  const inputs = of.inputs.flatMap(({ name: port, variable, at }) => {
    const part = partOf(port);
    return part && variable.width <= MOST_WIDTH ? [{ part, wave: waveOf(at) }] : [];
  });
  const printed = of.printed
    .slice(0, MOST_PRINTED)
    .map(({ time, text }) => ({ time, text: text.slice(0, MOST_PRINTED_LETTERS) }));
  const stimulus: Stimulus = {
    name: name.slice(0, 60),
    inputs,
    until: of.end,
    ...(printed.length > 0 && { printed }),
  };
  return { ...sheet, time: { ...NO_TIME_SETUP, stimuli: [stimulus], driven: stimulus.name } };
}

/** Changes as a wave; those of a clock as its period. Bits that are unknown are 0. */
function waveOf(changes: readonly (readonly [number, Word])[]): Wave {
  const levels = changes.map(([at, word]) => ({ at, value: word.ones & ~word.unknown, width: word.width }));
  const kept = levels.filter((level, i) => i === 0 || level.value !== levels[i - 1]!.value);
  const clock = kept[0]!.width === 1 ? periodOf(kept) : null;
  if (clock) return { ...DEFAULT_WAVE, ...clock };
  let data = '';
  for (const { at, value } of kept) {
    const next = `${data && ', '}${at / 1000}ns 0x${value.toString(16)}`;
    if (data.length + next.length > MOST_DATA) break;
    data += next;
  }
  return { ...DEFAULT_WAVE, data };
}

/** The period of a level that rises and falls at equal distances, six times at least. */
function periodOf(
  levels: readonly { readonly at: number; readonly value: bigint }[],
): Pick<Wave, 'pattern' | 'step' | 'high' | 'phase'> | null {
  const edges = levels[0]?.value === 0n ? levels.slice(1) : levels;
  if (edges.length < 6 || edges[0]!.value !== 1n) return null;
  const [phase, high, step] = [edges[0]!.at, edges[1]!.at - edges[0]!.at, edges[2]!.at - edges[0]!.at];
  const isRegular = edges.every(({ at }, i) => at === phase + Math.floor(i / 2) * step + (i % 2) * high);
  return isRegular && phase < step ? { pattern: 'periodic', step, high, phase } : null;
}
