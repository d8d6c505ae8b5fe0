import { type Lesson, sheetOf } from '../circuit/lesson';
import type { PinEnd, Sheet } from '../circuit/sheet';
import { widthAt } from '../drawing/editing/remedies';
import { pinsOf } from '../drawing/geometry/placement';
import { type Expression, namesOf } from '../logic/expression/expression';
import { readExpression } from '../logic/expression/read-expression';
import { readRowList } from '../logic/expression/row-list';
import { withArguments } from '../logic/expression/typed-formulas';
import { excerptAt } from '../logic/specification/spec-formulas';
import { declaredInputs } from '../netlist/declared';
import { kindOf } from '../parts/catalogue';
import { done, mapped, type Result, refused } from '../values/result';
import { type Call, readCall, split } from './call';
import { drives, labelled, pinNamed, pinOfName, sourceNamed } from './names-on-sheet';
import { type Pieces, piecesIn, pieceWidth } from './pieces';
import { isSwitch, onOneNet } from './redefine';

/**
 * A typed statement, `Sum = A xor B` or `Sum, Carry = half adder(A, B)`: the driven names and their driver.
 */
export type Statement =
  | {
      /** A name, or a part and its pin: `Q1.T`; several that are driven alike. */
      readonly targets: readonly string[];
      readonly expression: Expression;
      /** The arguments of `F(A, B, C) = …` in their order; empty without arguments. */
      readonly order: readonly string[];
      /** Bits of each operand. */
      readonly width: number;
      /** What stands for bits of a bus, or for several signals as one, by the text that names it. */
      readonly pieces: Pieces;
    }
  | Call;

/** Whether a text is meant as a statement. */
export const isStatement = (text: string) => text.includes('=');

/** Names that an expression may use on a sheet: the labels that are there. */
function labelsOn(sheet: Sheet): string[] {
  return [...sheet.parts.values()].map((p) => p.label).filter(Boolean);
}

/** The inputs of a sheet in the order of its table; none where one of them is a bus or has no name. */
function orderOn(sheet: Sheet): readonly string[] {
  const inputs = declaredInputs(sheet);
  const isPlain = inputs.every((part) => part.label && widthAt(sheet, sourceNamed(sheet, part.label)!) === 1);
  return isPlain ? inputs.map((part) => part.label) : [];
}

export function readStatement(lesson: Lesson, sheetId: string, typed: string): Result<Statement> {
  const sheet = sheetOf(lesson, sheetId)!;
  // As in programs: `assign Y = A & B;`.
  const text = typed
    .replace(/^\s*assign(?=\s+[^\s=])/, (word) => ' '.repeat(word.length))
    .replace(/;\s*$/, '');
  const at = text.indexOf('=');
  const call = readCall(lesson, sheetId, text.slice(0, at), text.slice(at + 1));
  if (call?.ok)
    for (const one of call.value.targets) {
      const held = notToBeDefined(sheet, one, call.value.reads);
      if (held) return held;
    }
  if (call) return call;
  const whole = text.slice(0, at).trim();
  const { name: left, order } = labelled(sheet, whole) ? { name: whole, order: [] } : withArguments(whole);
  const targets = targetsOf(left);
  const target = targets[0] ?? '';
  const said = withProducts(sheet, text.slice(at + 1));
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
  const rows = readRowList(said, order.length > 0 ? order : orderOn(sheet));
  const known = [...labelsOn(sheet), ...order, ...pieces.value.keys()];
  const read = rows ? mapped(rows, (expression) => ({ expression })) : readExpression(said, known);
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
    const held = notToBeDefined(sheet, one, namesOf(read.value.expression));
    if (held) return held;
    const dotted = /^(.+)\.([^.]+)$/.exec(one);
    if (dotted && !part && !labelled(sheet, one))
      return refused(
        'no-such-part',
        `nothing is called ${dotted[1]} on this sheet: place the part first, then ${one} is its input`,
      );
  }
  const { expression } = read.value;
  const width = widthOf(sheet, said, target, expression, pieces.value);
  return width.ok ? done({ targets, expression, order, width: width.value, pieces: pieces.value }) : width;
}

/** The refusal of a target that cannot be defined; null if it can. @param reads the names that the statement reads. */
function notToBeDefined(sheet: Sheet, name: string, reads: readonly string[]): Result<never> | null {
  const part = [...sheet.parts.values()].find((p) => p.label === name && drives(p));
  if (!part) return null;
  const input = pinsOf(part).find((p) => p.port.direction === 'in')?.port.name;
  const what = `${name} is a part here (${kindOf(part).name})`;
  if (input) return refused('is-a-part', `${what}: write ${name}.${input} = … for its input`);
  if (!isSwitch(part)) return refused('is-a-part', `${what}: give the output another name`);
  const own = sourceNamed(sheet, name) as PinEnd;
  const isRead = (read: string) => {
    const source = sourceNamed(sheet, read);
    return read === name || (source !== undefined && onOneNet(sheet, source, own));
  };
  return reads.some(isRead)
    ? refused('feeds-itself', `${name} is a switch here, and would feed itself: give the output another name`)
    : null;
}

/** Letters with dots between them: `A.B'.C`. Of `Q`, as of longer names, a pin is meant. */
const DOTTED = /(?<![\p{L}\p{N}_.])([A-PR-Z])['’]?(?:\.[~!]?[A-Z]['’]?)+(?![\p{L}\p{N}_])/gu;

/** A text with `·` for dots that mean AND: those between spaces, and those between letters that are no part and its pin. */
const withProducts = (sheet: Sheet, text: string): string =>
  text.replaceAll(/(?<=\s)\.(?=\s)/g, '·').replaceAll(DOTTED, (found, first: string) => {
    const part = labelled(sheet, first);
    return part && pinsOf(part).length > 1 ? found : found.replaceAll('.', '·');
  });

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
  const isTotal =
    expression.op === 'or' && expression.of.every((e) => e.op === 'name' || e.op === 'constant');
  if (isSum && isTotal && names.includes(target))
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
