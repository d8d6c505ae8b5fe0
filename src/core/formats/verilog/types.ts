import type { Call, Declaration, Expression, Select } from './syntax';
import type { Place } from './tokens';

/** Width and sign of a name. */
export interface Shape {
  readonly width: number;
  readonly signed: boolean;
  /** Whether it has addresses: then `width` is that of a word. */
  readonly isMemory?: boolean;
  /** Whether bits of it can be selected. */
  readonly isVector?: boolean;
}

/** Where names are looked up. */
export interface Names {
  /** The shape of a signal, variable or parameter. @throws VerilogError where there is none. */
  shape(e: { readonly name: string; readonly line: number; readonly column: number }): Shape;
  /** The shape of a function's result. */
  resultOf(e: Call): Shape;
  /** The whole number that a constant expression is. */
  number(e: Expression): number;
}

/** Operators that give one bit, whatever they are given. */
export const ONE_BIT: ReadonlySet<string> = new Set('&& || == != === !== < <= > >='.split(' '));
export const SHIFTS: ReadonlySet<string> = new Set(['<<', '>>', '<<<', '>>>']);
const KEEPING: ReadonlySet<string> = new Set(['~', '+', '-']);

/** Functions of the system that give whole numbers of 32 bits, with a sign. */
const NUMBERS: ReadonlySet<string> = new Set([
  '$clog2',
  '$random',
  '$urandom',
  '$signed',
  '$unsigned',
  '$time',
  '$stime',
]);
export const isSystemFunction = (name: string): boolean => NUMBERS.has(name) || name === '$realtime';

/** The bits that an expression has by itself (IEEE Std 1364-2005, table 5-22). */
export function widthOf(e: Expression, names: Names): number {
  switch (e.is) {
    case 'number':
      return e.digits.startsWith('r') ? 32 : e.digits.length;
    case 'text':
      return Math.max(8, 8 * e.text.length);
    case 'name':
      return names.shape(e).width;
    case 'select':
      return selectWidth(e, names);
    case 'concat':
      return e.items.reduce((sum, item) => sum + widthOf(item, names), 0);
    case 'repeat':
      return names.number(e.count) * widthOf(e.item, names);
    case 'unary':
      return KEEPING.has(e.operator) ? widthOf(e.of, names) : 1;
    case 'binary':
      if (ONE_BIT.has(e.operator)) return 1;
      if (SHIFTS.has(e.operator) || e.operator === '**') return widthOf(e.left, names);
      return Math.max(widthOf(e.left, names), widthOf(e.right, names));
    case 'choose':
      return Math.max(widthOf(e.yes, names), widthOf(e.no, names));
    case 'call':
      if (e.name === '$signed' || e.name === '$unsigned')
        return e.arguments[0] ? widthOf(e.arguments[0], names) : 1;
      if (e.name === '$time' || e.name === '$realtime') return 64;
      return isSystemFunction(e.name) ? 32 : names.resultOf(e).width;
  }
}

function selectWidth({ part, ...e }: Select, names: Names): number {
  if (!part) return names.shape(e).isMemory && e.path.length === 1 ? names.shape(e).width : 1;
  if (part.how === ':') return Math.abs(names.number(part.first) - names.number(part.second)) + 1;
  return names.number(part.second);
}

/** Whether an expression is a number with a sign: where all that decides it is (5.5.1). */
export function signedOf(e: Expression, names: Names): boolean {
  switch (e.is) {
    case 'number':
      return e.signed;
    case 'name':
      return names.shape(e).signed;
    case 'select': {
      const shape = names.shape(e);
      return shape.isMemory === true && e.part === null && e.path.length === 1 && shape.signed;
    }
    case 'unary':
      return KEEPING.has(e.operator) && signedOf(e.of, names);
    case 'binary':
      if (ONE_BIT.has(e.operator)) return false;
      if (SHIFTS.has(e.operator) || e.operator === '**') return signedOf(e.left, names);
      return signedOf(e.left, names) && signedOf(e.right, names);
    case 'choose':
      return signedOf(e.yes, names) && signedOf(e.no, names);
    case 'call':
      if (e.name === '$unsigned' || e.name === '$time' || e.name === '$urandom') return false;
      return isSystemFunction(e.name) || names.resultOf(e).signed;
    default:
      return false;
  }
}

/** The declaration of a name that is used as a wire and declared nowhere (IEEE Std 1364-2005, 4.5): one bit. */
export const implicitWire = (name: string, { line, column }: Place): Declaration => ({
  name,
  range: null,
  direction: null,
  type: 'wire',
  signed: false,
  words: null,
  line,
  column,
});
