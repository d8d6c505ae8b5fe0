import type { Params } from '../circuit/lesson';
import { text, title, z } from '../values/schema';
import { type BoxPin, type BoxPlan, boxBody, boxPorts, boxSymbol } from './box';
import { MOST_WIRES, type PinSide } from './common';
import type { PartKind } from './part-kind';

/** One pin of a block as its parameters name it: `Sum`, or `Count[3:0]` for a bus. */
export interface BlockPin {
  readonly name: string;
  readonly width: number;
  /** Where it stands on the symbol where that is not the usual place. */
  readonly side?: PinSide;
}

const PIN = /^(.+?)(?:\[(\d{1,3}):0\])?(?:@(left|right|top|bottom))?$/;

/** Reads `A, B[3:0], Clk@bottom`; what is no name is left out, and so is a name that is there already. */
export function readPins(said: string): BlockPin[] {
  const pins: BlockPin[] = [];
  for (const word of said.split(',')) {
    const found = PIN.exec(word.trim());
    if (!found) continue;
    const width = Number(found[2] ?? 0) + 1;
    if (width <= MOST_WIRES && !pins.some((p) => p.name === found[1]))
      pins.push({ name: found[1]!, width, ...(found[3] ? { side: found[3] as PinSide } : {}) });
  }
  return pins;
}

export function writePins(pins: readonly BlockPin[]): string {
  return pins
    .map(
      ({ name, width, side }) =>
        `${name}${width === 1 ? '' : `[${width - 1}:0]`}${side && side !== 'usual' ? `@${side}` : ''}`,
    )
    .join(', ');
}

/**
 * A use of another sheet. Its pins are kept in the parameters, so that a sheet can be drawn by itself; where they
 * no longer are those of the sheet inside, the compiler says so.
 */
export const blockKind: PartKind = {
  kind: 'block',
  family: 'Blocks',
  name: 'Block',
  typed: ['block'],
  says: 'Another sheet of this lesson, used as one part.',
  labelled: '',
  named: true,
  labelSide: 'top',
  params: z.object({
    /** Id of the sheet. */
    sheet: z._default(text(64), ''),
    /** What stands on it. */
    title: z._default(title(60), 'Block'),
    inputs: z._default(text(4000), ''),
    outputs: z._default(text(4000), ''),
  }),
  ports: (params) => boxPorts(plan(params)),
  body: (params) => boxBody(plan(params)),
  symbol: (params) => boxSymbol(plan(params)),
  build: () => {},
  spoken: (params) =>
    `block ${params.title} with ${counted(readPins(params.inputs as string).length, 'input')} and ${counted(readPins(params.outputs as string).length, 'output')}`,
};

/** The kind as it is offered for one sheet: called as the sheet is, with its pins. */
export function blockKindOf(name: string, params: Params): PartKind {
  const { sheet, title: shown, inputs, outputs } = params as Record<string, string>;
  const pins = (said: string) =>
    readPins(said).map((p) => (p.width > 1 ? `${p.name} (${p.width} bits)` : p.name));
  return {
    ...blockKind,
    name,
    typed: [name.toLowerCase(), `block ${name.toLowerCase()}`],
    says: `A block with ${[...pins(inputs!), '→', ...pins(outputs!)].join(' ')}.`,
    params: z.object({
      sheet: z._default(text(64), sheet!),
      title: z._default(title(60), shown!),
      inputs: z._default(text(4000), inputs!),
      outputs: z._default(text(4000), outputs!),
    }),
  };
}

function plan(params: Params): BoxPlan {
  const inputs = readPins(params.inputs as string);
  const outputs = readPins(params.outputs as string).filter((o) => !inputs.some((i) => i.name === o.name));
  const all = [
    ...inputs.map((p) => ({ ...p, direction: 'in' as const, usual: 'left' as const })),
    ...outputs.map((p) => ({ ...p, direction: 'out' as const, usual: 'right' as const })),
  ];
  const at = (side: 'left' | 'right' | 'top' | 'bottom'): BoxPin[] =>
    all
      .filter((p) => (p.side ?? p.usual) === side)
      .map(({ name, width, direction }) => ({ name, width, direction }));
  return {
    title: params.title as string,
    left: at('left'),
    right: at('right'),
    top: at('top'),
    bottom: at('bottom'),
  };
}

const counted = (n: number, word: string) => `${n} ${word}${n === 1 ? '' : 's'}`;
