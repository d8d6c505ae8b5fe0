import type { Builder, PowerUp, Ref } from './part-kind';
import { type Delay, Primitive } from './primitive';

/*
 * Words of bits made of primitives, the least significant bit first. Nothing here takes time; the delay stands at
 * a part's outputs.
 */

export const zero = (b: Builder): Ref => b.gate(Primitive.CONST_0, []);
export const one = (b: Builder): Ref => b.gate(Primitive.CONST_1, []);
export const not = (b: Builder, a: Ref): Ref => b.gate(Primitive.NOT, [a]);
export const and = (b: Builder, ...a: Ref[]): Ref => (a.length === 1 ? a[0]! : b.gate(Primitive.AND, a));
export const or = (b: Builder, ...a: Ref[]): Ref => (a.length === 1 ? a[0]! : b.gate(Primitive.OR, a));
export const xor = (b: Builder, x: Ref, y: Ref): Ref => b.gate(Primitive.XOR, [x, y]);

/** The first word where the selecting bit is 0, else the second. */
export function choose(b: Builder, select: Ref, at0: readonly Ref[], at1: readonly Ref[]): Ref[] {
  return at0.map((ref, i) => (ref === at1[i] ? ref : b.gate(Primitive.MUX, [select, ref, at1[i]!])));
}

/** The word of that number: `words[select]`. There are 2 ** select.length words. */
export function pick(b: Builder, select: readonly Ref[], words: readonly (readonly Ref[])[]): Ref[] {
  let left = words;
  for (const bit of select)
    left = Array.from({ length: left.length / 2 }, (_, i) => choose(b, bit, left[2 * i]!, left[2 * i + 1]!));
  return [...left[0]!];
}

/** Sum and carry out of two words and a carry in. */
export function add(
  b: Builder,
  x: readonly Ref[],
  y: readonly Ref[],
  carryIn: Ref,
): { sum: Ref[]; carry: Ref } {
  let carry = carryIn;
  const sum = x.map((bit, i) => {
    const half = xor(b, bit, y[i]!);
    const s = xor(b, half, carry);
    carry = or(b, and(b, bit, y[i]!), and(b, half, carry));
    return s;
  });
  return { sum, carry };
}

/** Whether a word is this number. */
export function equals(b: Builder, word: readonly Ref[], value: number): Ref {
  return and(b, ...word.map((bit, i) => (Math.floor(value / 2 ** i) % 2 ? bit : not(b, bit))));
}

/** A constant word. */
export function constant(b: Builder, value: number, width: number): Ref[] {
  return Array.from({ length: width }, (_, i) => (Math.floor(value / 2 ** i) % 2 ? one(b) : zero(b)));
}

/** Storage of a word on a clock edge, its bits called Q0, Q1 ... */
export function keep(
  b: Builder,
  op: Primitive,
  next: readonly Ref[],
  state: readonly Ref[],
  control: readonly Ref[],
  kept: { name: string; powerUp: PowerUp; setup: number; hold: number },
): void {
  for (const [i, bit] of state.entries())
    b.store(op, [next[i]!, ...control], bit, { ...kept, name: `${kept.name}${i}` });
}

/** Shows a word on an output port. */
export function show(b: Builder, port: string, word: readonly Ref[], delay: Delay): void {
  for (const [i, bit] of word.entries()) b.drive(b.pin(port, i), Primitive.BUF, [bit], delay);
}
