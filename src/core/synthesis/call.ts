import { type Lesson, sheetOf } from '../circuit/lesson';
import type { Part, Sheet } from '../circuit/sheet';
import { widthAt } from '../drawing/editing/remedies';
import { declaredInputs, declaredOutputs } from '../netlist/declared';
import { boundaryOf } from '../parts/catalogue';
import { MOST_BITS } from '../parts/limits';
import { sameName } from '../values/names';
import { done, type Result, refused } from '../values/result';
import { counted } from '../values/wording';
import { sourceNamed, withPorts } from './names-on-sheet';
import { type Pieces, piecesIn, pieceWidth } from './pieces';

/**
 * A block used like a function, `S, C = full(A, B, I)`: its inputs in brackets, its outputs before the =, both in their order.
 * What is wider than its pin is spread over a row of blocks, each with its bits; `C = M` in the brackets leads the output `C` of
 * each block on to the next, and `M` to the first.
 */
export interface Call {
  readonly targets: readonly string[];
  readonly block: Sheet;
  /** What is led to each input, by the text that names it: a name, a piece, `0` or `1`. */
  readonly reads: readonly string[];
  readonly pieces: Pieces;
  /** Bits of each input of the block. */
  readonly widths: readonly number[];
  /** How many blocks stand in the row. */
  readonly count: number;
  /** The output, by its number, that is led on to an input of the next block. */
  readonly chain: { readonly output: number; readonly input: number } | null;
}

const CALL = /^\s*([^()=]+?)\s*\(([^()]*)\)\s*$/;

/** Splits at commas, but for those within braces. */
export const split = (text: string): string[] =>
  text
    .split(/,(?![^{}]*\})/)
    .map((t) => t.trim())
    .filter(Boolean);

const pinsInside = (block: Sheet): readonly [inputs: Part[], outputs: Part[]] => {
  const after = withPorts(block);
  const [inputs, outputs] = [declaredInputs(after), declaredOutputs(after)].map((list) =>
    list.filter((p) => boundaryOf(p) && p.label),
  );
  return [inputs!, outputs!];
};

/** The call that a statement's right side is; null where it is none. */
export function readCall(lesson: Lesson, sheetId: string, left: string, right: string): Result<Call> | null {
  const [, name = '', inside = ''] = CALL.exec(right) ?? [];
  const block = name && lesson.sheets.find((s) => s.id !== sheetId && sameName(s.name, name));
  if (!block) return null;
  const sheet = sheetOf(lesson, sheetId)!;
  const targets = split(left);
  const [inputs, outputs] = pinsInside(block);
  const led = split(inside).map((text) => /^([^=]+?)\s*=\s*([^=]+)$/.exec(text));
  const reads = split(inside).map((text, i) => led[i]?.[2] ?? text);
  const wrong = (said: number, pins: readonly Part[], what: string): string | null =>
    said === pins.length
      ? null
      : `“${block.name}” has ${counted(pins.length, what)}: ${pins.map((p) => p.label).join(', ') || 'none'}`;
  const problem = wrong(reads.length, inputs, 'input') ?? wrong(targets.length, outputs, 'output');
  if (problem) return refused('other-ports', problem);
  const pieces = piecesIn(sheet, reads.join(', '));
  if (!pieces.ok) return pieces;
  const chained = led.findIndex((found) => found !== null);
  if (chained !== -1 && led.filter(Boolean).length > 1)
    return refused('several-chains', 'one output can be led on from block to block, and here are several');
  const output = chained === -1 ? -1 : targets.indexOf(led[chained]![1]!);
  if (chained !== -1 && output === -1)
    return refused(
      'no-such-output',
      `${led[chained]![1]} is led on from block to block, so it must be one of the outputs before the =`,
    );
  const widths = inputs.map((pin) => boundaryOf(pin)!.width);
  const counts = reads.map((read, i) => {
    const piece = pieces.value.get(read);
    const source = sourceNamed(sheet, read);
    const width = piece ? pieceWidth(piece) : source ? widthAt(sheet, source) : widths[i]!;
    return { read, width, pin: inputs[i]!.label, own: widths[i]!, times: width / widths[i]! };
  });
  const wide = counts.filter((c, i) => i !== chained && c.times > 1);
  const count = wide[0]?.times ?? 1;
  const odd =
    counts.find((c, i) => !Number.isInteger(c.times) || (i === chained && c.times !== 1)) ??
    wide.find((c) => c.times !== count);
  if (odd)
    return refused(
      'unequal-widths',
      `${odd.read} has ${counted(odd.width, 'bit')} and ${odd.pin} of “${block.name}” ${odd.own}${
        wide.length > 0 && odd !== wide[0] ? `, beside ${wide[0]!.read} with ${wide[0]!.width}` : ''
      }`,
    );
  if (outputs.some((pin, i) => i !== output && boundaryOf(pin)!.width * count > MOST_BITS))
    return refused('too-wide', `a bus has ${MOST_BITS} bits at the most`);
  const chain = chained === -1 ? null : { output, input: chained };
  return done({ targets, block, reads, pieces: pieces.value, widths, count, chain });
}

/** How the block is called whose call is being typed, with its pins in their order; null where none is. */
export function callHint(lesson: Lesson, sheetId: string, text: string): string | null {
  const [, name] = /=\s*([^()=]+?)\s*\(/.exec(text) ?? [];
  const block = name && lesson.sheets.find((s) => s.id !== sheetId && sameName(s.name, name));
  if (!block) return null;
  const [inputs, outputs] = pinsInside(block).map((list) => list.map((p) => p.label));
  return `${outputs!.join(', ')} = ${block.name}(${inputs!.join(', ')})`;
}
