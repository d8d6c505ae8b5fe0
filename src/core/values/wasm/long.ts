import type { Code } from './module';
import { type Expression, type Operand, type Step, write } from './scalar';

/*
 * WebAssembly over whole numbers of 64 bits, written as the expressions of scalar.ts are. TypeScript keeps the two apart: a
 * `LongLocal` is a local of 64 bits, a `Long` leaves 64 bits on the stack.
 */

/** Writes instructions that leave one i64. */
export class Long {
  constructor(readonly write: (code: Code) => void) {}
}
/** A local variable of 64 bits; behind all those of 32 (`WasmFunction.i64Locals`). */
export class LongLocal extends Long {
  constructor(readonly index: number) {
    super((code) => code.localGet(index));
  }
}

const binary = (op: number) => (a: Long, b: Long) =>
  new Long((code) => {
    a.write(code);
    b.write(code);
    code.byte(op);
  });

export const addLong = binary(0x7c);
export const subLong = binary(0x7d);
export const andLong = binary(0x83);
export const orLong = binary(0x84);
export const xorLong = binary(0x85);

const shift = (op: number) => (a: Long, by: Operand) =>
  new Long((code) => {
    a.write(code);
    write(code, by);
    code.byte(0xad, op);
  });

/** Shifts by 0 to 63 bits. */
export const shlLong = shift(0x86);
/** Keeps the sign. */
export const shrLong = shift(0x87);

const narrow =
  (op: number) =>
  (a: Long): Expression =>
  (code) => {
    a.write(code);
    code.byte(op, 0xa7);
  };

/** Ones. */
export const onesLong = narrow(0x7b);
/** How many of the lowest bits are 0; 64 for 0. */
export const ctzLong = narrow(0x7a);
/** The lower 32 bits. */
export const lowOf =
  (a: Long): Expression =>
  (code) => {
    a.write(code);
    code.byte(0xa7);
  };
/** 1 for 0, else 0. */
export const notLong =
  (a: Long): Expression =>
  (code) => {
    a.write(code);
    code.byte(0x50);
  };

/** 32 bits with their sign as 64. */
export const signed = (a: Operand): Long =>
  new Long((code) => {
    write(code, a);
    code.byte(0xac);
  });

export const loadLong = (address: Operand, offset = 0): Long =>
  new Long((code) => {
    write(code, address);
    code.byte(0x29, 0x03).number(offset);
  });
export const storeLong =
  (address: Operand, value: Long, offset = 0): Step =>
  (code) => {
    write(code, address);
    value.write(code);
    code.byte(0x37, 0x03).number(offset);
  };
export const setLong =
  (local: LongLocal, value: Long): Step =>
  (code) => {
    value.write(code);
    code.localSet(local.index);
  };
