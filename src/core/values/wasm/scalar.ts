import type { Code } from './module';

/*
 * WebAssembly over whole numbers of 32 bits, written as nested expressions: `set(a, add(a, 4))`. A local is a number; an
 * `Expression` leaves one value on the stack, a `Step` none (WebAssembly Core Specification 2.0, chapter 5).
 */

/** Writes instructions that leave one i32. */
export type Expression = (code: Code) => void;
/** Writes instructions that leave nothing. */
export type Step = (code: Code) => void;
/** A local variable. */
export class Local {
  constructor(readonly index: number) {}
}
/** What stands for a value: an expression, a local, or a constant of at most 31 bits. */
export type Operand = Expression | Local | number;

/** Writes what stands for a value. */
export const write = (code: Code, operand: Operand): void => {
  if (typeof operand === 'number') code.i32(operand);
  else if (operand instanceof Local) code.localGet(operand.index);
  else operand(code);
};

const binary =
  (op: number) =>
  (a: Operand, b: Operand): Expression =>
  (code) => {
    write(code, a);
    write(code, b);
    code.byte(op);
  };

export const eq = binary(0x46);
export const ne = binary(0x47);
export const ltU = binary(0x49);
export const gtU = binary(0x4b);
export const geU = binary(0x4f);
export const add = binary(0x6a);
export const sub = binary(0x6b);
export const and = binary(0x71);
export const or = binary(0x72);
export const xor = binary(0x73);
export const shl = binary(0x74);
export const shrU = binary(0x76);

/** 1 for 0, else 0. */
export const not =
  (a: Operand): Expression =>
  (code) => {
    write(code, a);
    code.byte(0x45);
  };

/** How many of the lowest bits are 0; 32 for 0. */
export const ctz =
  (a: Operand): Expression =>
  (code) => {
    write(code, a);
    code.i32Ctz();
  };

/** The one where the condition is not 0, else the other; both are evaluated. */
export const choose =
  (condition: Operand, one: Operand, other: Operand): Expression =>
  (code) => {
    write(code, one);
    write(code, other);
    write(code, condition);
    code.byte(0x1b);
  };

/** Memory at an address: 32 bits, or a byte without sign. */
export const load32 =
  (address: Operand, offset = 0): Expression =>
  (code) => {
    write(code, address);
    code.byte(0x28, 0x02).number(offset);
  };
export const load8 =
  (address: Operand, offset = 0): Expression =>
  (code) => {
    write(code, address);
    code.byte(0x2d, 0x00).number(offset);
  };
export const store32 =
  (address: Operand, value: Operand, offset = 0): Step =>
  (code) => {
    write(code, address);
    write(code, value);
    code.byte(0x36, 0x02).number(offset);
  };
export const store8 =
  (address: Operand, value: Operand, offset = 0): Step =>
  (code) => {
    write(code, address);
    write(code, value);
    code.byte(0x3a, 0x00).number(offset);
  };
/** Makes the memory longer by so many pages. @returns its pages before, or -1 where that is refused. */
export const growMemory =
  (pages: Operand): Expression =>
  (code) => {
    write(code, pages);
    code.byte(0x40, 0x00);
  };
/** Pages of memory, of 65,536 bytes each. */
export const memoryPages: Expression = (code) => {
  code.byte(0x3f, 0x00);
};

export const set =
  (local: Local, value: Operand): Step =>
  (code) => {
    write(code, value);
    code.localSet(local.index);
  };

/** Steps one after the other. */
export const steps =
  (...all: readonly Step[]): Step =>
  (code) => {
    for (const step of all) step(code);
  };

/** Does the one where the condition is not 0, else the other. */
export const when =
  (condition: Operand, then: Step, otherwise?: Step): Step =>
  (code) => {
    write(code, condition);
    code.byte(0x04, 0x40);
    then(code);
    if (otherwise) {
      code.byte(0x05);
      otherwise(code);
    }
    code.byte(0x0b);
  };

/** Does it as long as the condition, looked at before, is not 0. */
export const whilst =
  (condition: Operand, body: Step): Step =>
  (code) => {
    code.byte(0x02, 0x40, 0x03, 0x40);
    write(code, condition);
    code.byte(0x45, 0x0d, 0x01);
    body(code);
    code.byte(0x0c, 0x00, 0x0b, 0x0b);
  };

/** Does it once, and again as long as the condition, looked at behind it, is not 0. */
export const repeat =
  (body: Step, condition: Operand): Step =>
  (code) => {
    code.byte(0x03, 0x40);
    body(code);
    write(code, condition);
    code.byte(0x0d, 0x00, 0x0b);
  };

/** Ends in a trap. */
export const trap: Step = (code) => {
  code.byte(0x00);
};

/** New locals behind the parameters of a function, and how many there are. */
export class Locals {
  private count: number;
  constructor(private readonly parameters: number) {
    this.count = parameters;
  }

  next(): Local {
    return new Local(this.count++);
  }

  get added(): number {
    return this.count - this.parameters;
  }
}
