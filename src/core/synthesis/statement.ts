import { type Lesson, type Part, type Sheet, sheetOf } from '../circuit/lesson';
import { widthAt } from '../drawing/editing/remedies';
import { type Expression, namesOf } from '../logic/expression/expression';
import { readExpression } from '../logic/expression/read-expression';
import { excerptAt } from '../logic/specification/spec-formulas';
import { declaredInputs, declaredOutputs } from '../netlist/declared';
import { boundaryOf } from '../parts/catalogue';
import { sameName } from '../values/names';
import { done, type Result, refused } from '../values/result';
import { labelled, pinNamed, pinOfName, sourceNamed, withPorts } from './names-on-sheet';
import { type Pieces, piecesIn, pieceWidth } from './pieces';

/**
 * A typed statement, `Sum = A xor B` or `Sum, Carry = half adder(A, B)`: the driven names and their driver.
 */
export type Statement =
  | {
      /** A name, or a part and its pin: `Q1.T`; several that are driven alike. */
      readonly targets: readonly string[];
      readonly expression: Expression;
      /** Bits of each operand. */
      readonly width: number;
      /** What stands for bits of a bus, or for several signals as one, by the text that names it. */
      readonly pieces: Pieces;
    }
  | { readonly targets: readonly string[]; readonly block: Sheet; readonly reads: readonly string[] };

/** Whether a text is meant as a statement. */
export const isStatement = (text: string) => text.includes('=');

/** Names that an expression may use on a sheet: the labels that are there. */
function labelsOn(sheet: Sheet): string[] {
  return [...sheet.parts.values()].map((p) => p.label).filter(Boolean);
}

const CALL = /^\s*([^()=]+?)\s*\(([^()]*)\)\s*$/;
const split = (text: string) =>
  text
    .split(',')
    .map((t) => t.trim())
    .filter(Boolean);

export function readStatement(lesson: Lesson, sheetId: string, text: string): Result<Statement> {
  const sheet = sheetOf(lesson, sheetId)!;
  const at = text.indexOf('=');
  const call = CALL.exec(text.slice(at + 1));
  const block =
    call && lesson.sheets.find((s) => s.id !== sheetId && s.name.toLowerCase() === call[1]!.toLowerCase());
  if (block) return readCall(block, split(text.slice(0, at)), split(call[2]!));
  const left = text.slice(0, at).trim();
  const targets = targetsOf(left);
  const target = targets[0] ?? '';
  // A dot between spaces is AND; one inside a name belongs to a pin.
  const said = text.slice(at + 1).replaceAll(/(?<=\s)\.(?=\s)/g, '·');
  const sign = /[:<>!+\-*/^&|]$/.exec(left)?.[0] ?? (said.startsWith('=') ? '=' : null);
  if (sign) {
    const name = left.replace(/[\s:<>!+\-*/^&|]+$/, '');
    return refused(
      'other-sign',
      `write = alone: ${name || 'Y'} = ${said.replace(/^=/, '').trim() || 'A and B'}`,
    );
  }
  if (!target) return refused('no-name', 'before the = stands a name: Sum = A xor B');
  if (targets.some((t) => t.length > 40))
    return refused('name-too-long', 'the name before the = is longer than 40 letters');
  const pieces = piecesIn(sheet, said);
  if (!pieces.ok) return pieces;
  const read = readExpression(said, [...labelsOn(sheet), ...pieces.value.keys()]);
  if (!read.ok) {
    const { code, message, place } = read.problem;
    return refused(code, `${excerptAt(said, place.offset)}: ${message}`, { offset: at + 1 + place.offset });
  }
  const stray = namesOf(read.value.expression).find(
    (name) => name.includes('.') && !pieces.value.has(name) && !pinOfName(sheet, name),
  );
  if (stray) return refused('no-such-pin', `there is no pin ${stray} on this sheet`);
  for (const one of targets) {
    const [part, port] = pinNamed(sheet, one);
    if (part && !port) return refused('no-such-pin', `${part.label} has no input ${one.split('.')[1]}`);
    const dotted = /^(.+)\.([^.]+)$/.exec(one);
    if (dotted && !part && !labelled(sheet, one))
      return refused(
        'no-such-part',
        `nothing is called ${dotted[1]} on this sheet: place the part first, then ${one} is its input`,
      );
  }
  const { expression } = read.value;
  const width = widthOf(sheet, said, target, expression, pieces.value);
  return width.ok ? done({ targets, expression, width: width.value, pieces: pieces.value }) : width;
}

/** The names before the =; a pin at the end is meant of all before it that have none: `Q0, Q1, Q2.C`. */
function targetsOf(text: string): readonly string[] {
  const names = split(text);
  const pin = /\.[^.]+$/.exec(names.at(-1) ?? '')?.[0];
  return pin && names.length > 1 ? names.map((name) => (name.includes('.') ? name : name + pin)) : names;
}

/**
 * The bits of the operands of an expression, all of them alike; names that are new take as many as the others have.
 * Refuses a sum that is meant with numbers: a + is an OR.
 */
function widthOf(
  sheet: Sheet,
  said: string,
  target: string,
  expression: Expression,
  pieces: Pieces,
): Result<number> {
  const names = namesOf(expression);
  const isSum = said.includes('+');
  const known = names.flatMap((name) => {
    const piece = pieces.get(name);
    if (piece) return [{ name, width: pieceWidth(piece) }];
    const source = sourceNamed(sheet, name);
    return source ? [{ name, width: widthAt(sheet, source) }] : [];
  });
  const wide = known.find((k) => k.width > 1);
  if (isSum && wide)
    return refused(
      'or-of-numbers',
      `${wide.name} has ${wide.width} bits, and + is “or” here. To add, place an adder: type adder ${wide.width}. For “or”, write or`,
    );
  if (isSum && names.includes(target))
    return refused(
      'feeds-itself',
      `+ is “or” here, and ${target} would feed itself. To add up, place an adder and a register: type adder 8, then register 8`,
    );
  if (!wide) return done(1);
  const other = known.find((k) => k.width !== wide.width);
  if (other)
    return refused(
      'unequal-widths',
      `${wide.name} has ${wide.width} bits and ${other.name} ${other.width === 1 ? 'one' : other.width}: a gate takes inputs of equal widths`,
    );
  if (hasConstant(expression))
    return refused(
      'bit-beside-bus',
      `0 and 1 are single bits here, and ${wide.name} has ${wide.width}: place a constant of ${wide.width} bits and give it a name`,
    );
  return done(wide.width);
}

const hasConstant = (e: Expression): boolean =>
  e.op === 'constant' || (e.op === 'not' ? hasConstant(e.of) : e.op !== 'name' && e.of.some(hasConstant));

/** A block used like a function: its inputs in brackets, its outputs before the =, both in their order. */
function readCall(block: Sheet, targets: readonly string[], reads: readonly string[]): Result<Statement> {
  const after = withPorts(block);
  const [inputs, outputs] = [declaredInputs(after), declaredOutputs(after)].map((list) =>
    list.filter((p) => boundaryOf(p) && p.label),
  );
  const wrong = (said: number, wanted: readonly Part[], what: string): string | null =>
    said === wanted.length
      ? null
      : `“${block.name}” has ${wanted.length} ${what}: ${wanted.map((p) => p.label).join(', ') || 'none'}`;
  const problem =
    wrong(reads.length, inputs!, wanted(inputs!, 'input')) ??
    wrong(targets.length, outputs!, wanted(outputs!, 'output'));
  return problem ? refused('other-ports', problem) : done({ targets, block, reads });
}

/** How the block is called whose call is being typed, with its pins in their order; null where none is. */
export function callHint(lesson: Lesson, sheetId: string, text: string): string | null {
  const [, name] = /=\s*([^()=]+?)\s*\(/.exec(text) ?? [];
  const block = name && lesson.sheets.find((s) => s.id !== sheetId && sameName(s.name, name));
  if (!block) return null;
  const after = withPorts(block);
  const [inputs, outputs] = [declaredInputs(after), declaredOutputs(after)].map((list) =>
    list.filter((p) => boundaryOf(p) && p.label).map((p) => p.label),
  );
  return `${outputs!.join(', ')} = ${block.name}(${inputs!.join(', ')})`;
}

const wanted = (list: readonly unknown[], word: string) => (list.length === 1 ? word : `${word}s`);
