import { Primitive } from '../parts/primitive';
import { type Logic, ONE, resolve, X, Z, ZERO } from '../values/logic';

/**
 * The output of a primitive that remembers nothing, by the tables of IEEE Std 1364-2005, clause 7: a value that
 * decides the gate alone decides it even beside X; Z at an input counts as X.
 */
export function evaluate(op: number, ins: Int32Array, from: number, to: number, values: Uint8Array): Logic {
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
    default: {
      let v: Logic = Z;
      for (let i = from; i < to; i++) v = resolve(v, values[ins[i]!] as Logic);
      return v;
    }
  }
}
