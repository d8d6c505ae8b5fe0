import { Primitive } from '../parts/primitive';
import { type Logic, ONE, resolve, X, Z, ZERO } from '../values/logic';

/**
 * The output of a primitive that remembers nothing, by the tables of IEEE Std 1364-2005, clause 7: a value that
 * decides the gate alone decides it even beside X; Z at an input counts as X.
 */
export function evaluate(
  op: number,
  ins: ArrayLike<number>,
  from: number,
  to: number,
  values: Uint8Array,
): Logic {
  switch (op) {
    case Primitive.BUF:
    case Primitive.NOT: {
      const v = values[ins[from]!]!;
      return v > 1 ? X : ((v ^ (op === Primitive.NOT ? 1 : 0)) as Logic);
    }
    case Primitive.AND:
    case Primitive.NAND:
    case Primitive.OR:
    case Primitive.NOR: {
      const decides = op === Primitive.AND || op === Primitive.NAND ? ZERO : ONE;
      const decided =
        op === Primitive.AND ? ZERO : op === Primitive.NAND ? ONE : op === Primitive.OR ? ONE : ZERO;
      let known = true;
      for (let i = from; i < to; i++) {
        const v = values[ins[i]!]!;
        if (v === decides) return decided;
        if (v > 1) known = false;
      }
      return known ? ((1 - decided) as Logic) : X;
    }
    case Primitive.XOR:
    case Primitive.XNOR: {
      let odd = op === Primitive.XNOR ? 1 : 0;
      for (let i = from; i < to; i++) {
        const v = values[ins[i]!]!;
        if (v > 1) return X;
        odd ^= v;
      }
      return odd as Logic;
    }
    case Primitive.MUX: {
      const select = values[ins[from]!]!;
      const at0 = values[ins[from + 1]!]!;
      const at1 = values[ins[from + 2]!]!;
      const v = select === ZERO ? at0 : select === ONE || at0 === at1 ? at1 : X;
      return v > 1 ? X : (v as Logic);
    }
    case Primitive.TRI: {
      const enable = values[ins[from + 1]!]!;
      if (enable === ZERO) return Z;
      const v = values[ins[from]!]!;
      return enable === ONE && v <= 1 ? (v as Logic) : X;
    }
    case Primitive.PULL_UP:
    case Primitive.PULL_DOWN: {
      const v = values[ins[from]!]!;
      return v === Z ? (op === Primitive.PULL_UP ? ONE : ZERO) : (v as Logic);
    }
    case Primitive.CONST_0:
      return ZERO;
    case Primitive.CONST_1:
      return ONE;
    case Primitive.CONST_X:
      return X;
    default: {
      let v: Logic = Z;
      for (let i = from; i < to; i++) v = resolve(v, values[ins[i]!] as Logic);
      return v;
    }
  }
}

/** Primitives of one or two inputs, looked up: entry `op * 16 + first * 4 + second`. */
export const TABLE: Uint8Array = (() => {
  const table = new Uint8Array(16 * (Primitive.PULL_DOWN + 1));
  const values = new Uint8Array(2);
  for (let op = 0; op <= Primitive.PULL_DOWN; op++) {
    if (op === Primitive.MUX) continue;
    const inputs = hasOneInput(op) ? [0] : [0, 1];
    for (let a = 0; a < 4; a++)
      for (let b = 0; b < 4; b++) {
        values[0] = a;
        values[1] = b;
        table[op * 16 + a * 4 + b] = evaluate(op, inputs, 0, inputs.length, values);
      }
  }
  return table;
})();

export function hasOneInput(op: number): boolean {
  return (
    op === Primitive.BUF || op === Primitive.NOT || op === Primitive.PULL_UP || op === Primitive.PULL_DOWN
  );
}
