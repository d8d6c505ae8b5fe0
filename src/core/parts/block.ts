import type { Part } from '../circuit/sheet';
import { counted } from '../values/wording';
import type { BoxLayout, BoxPin } from './box';
import { defineBox } from './define-part';
import { MOST_WIRES, type PinSide } from './limits';
import type { ParamSchemas } from './param-schemas';
import type { PartKind } from './part-kind';

/** One pin of a block as its parameters name it: `Sum`, or `Count[3:0]` for a bus. */
export interface BlockPin {
  readonly name: string;
  readonly width: number;
  /** Its side of the symbol, if it is not the usual one. */
  readonly side?: PinSide;
}

const PIN = /^(.+?)(?:\[(\d{1,3}):0\])?(?:@(left|right|top|bottom))?$/;

/** Reads `A, B[3:0], Clk@bottom`; texts that are no names, and repeated names, are left out. */
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

/** The parameters of a block. Its pins are those of the sheet inside, as `writePins` writes them. */
export type BlockParams = {
  /** Id of the sheet inside. */
  readonly sheet: string;
  readonly title: string;
  readonly inputs: string;
  readonly outputs: string;
};

const schemaWith = (usual: BlockParams) => (of: ParamSchemas) =>
  of.object({
    sheet: of.text(64, usual.sheet),
    title: of.title(60, usual.title),
    inputs: of.text(4000, usual.inputs),
    outputs: of.text(4000, usual.outputs),
  });

/**
 * A use of another sheet. Its pins are kept in the parameters, so a sheet can be drawn by itself; the
 * compiler reports pins that no longer match the sheet inside.
 */
export const blockKind = defineBox(schemaWith({ sheet: '', title: 'Block', inputs: '', outputs: '' }), {
  kind: 'block',
  family: 'Blocks',
  name: 'Block',
  typed: ['block'],
  says: 'Another sheet of this lesson, used as one part.',
  labelled: '',
  labelSide: 'top',
  alwaysAllowed: true,
  follows: 'pins of a sheet',
  insideSheet: ({ sheet }) => sheet,
  box: boxOf,
  build: () => {},
  spoken: ({ title, inputs, outputs }) =>
    `block ${title} with ${counted(readPins(inputs).length, 'input')} and ${counted(readPins(outputs).length, 'output')}`,
});

/** The parameters of a block on a sheet. */
export const blockParamsOf = (block: Part): BlockParams => block.params as BlockParams;

/** The block leading to another sheet, its pins as they are. */
export function withSheetInside(block: Part, sheet: string): Part {
  return { ...block, params: { ...block.params, sheet } };
}

/**
 * The kind as it is offered for one sheet: called as the sheet is, with its pins.
 * @param isTaken whether a part of the catalogue is typed as the sheet is called: then only `block` before the
 *   name places the block.
 */
export function blockKindOf(name: string, params: BlockParams, isTaken = false): PartKind {
  const pins = (written: string) =>
    readPins(written).map((p) => (p.width > 1 ? `${p.name} (${p.width} bits)` : p.name));
  return {
    ...blockKind,
    name,
    typed: isTaken ? [`block ${name.toLowerCase()}`] : [name.toLowerCase(), `block ${name.toLowerCase()}`],
    says: `A block with ${[...pins(params.inputs), '→', ...pins(params.outputs)].join(' ')}.`,
    params: schemaWith(params),
  };
}

function boxOf(params: BlockParams): BoxLayout {
  const inputs = readPins(params.inputs);
  const outputs = readPins(params.outputs).filter((o) => !inputs.some((i) => i.name === o.name));
  const all = [
    ...inputs.map((p) => ({ ...p, direction: 'in' as const, usual: 'left' as const })),
    ...outputs.map((p) => ({ ...p, direction: 'out' as const, usual: 'right' as const })),
  ];
  const at = (side: 'left' | 'right' | 'top' | 'bottom'): BoxPin[] =>
    all
      .filter((p) => (p.side ?? p.usual) === side)
      .map(({ name, width, direction }) => ({ name, width, direction }));
  return { title: params.title, left: at('left'), right: at('right'), top: at('top'), bottom: at('bottom') };
}
