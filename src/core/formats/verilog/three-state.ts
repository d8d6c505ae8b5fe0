import { type Bit, C0, C1, type Cells, CX } from './cells';
import type { Expressions } from './expressions';
import { MOST_PART, NOW, type Value } from './gates';
import type { Expression } from './syntax';

/** A value with its enable: `C1` if it is always driven, `C0` if it always floats. */
interface EnabledValue {
  readonly data: Value;
  readonly enable: Bit;
  /** Whether the enable is active low. */
  readonly isLow?: boolean;
}

/** `c ? a : b`: a multiplexer, or a three-state buffer if a branch, at any depth, is all z. */
export function threeState(
  e: Extract<Expression, { is: 'choose' }>,
  width: number,
  signed: boolean,
  logic: Expressions,
  cells: Cells,
): Value {
  const { data, enable, isLow } = enabledValue(e, width, signed, logic);
  if (enable === C1) return data;
  const tri = (from: number, to: number) => {
    const Y = cells.fresh(to - from);
    const params = { enable: isLow ? 'low' : 'high', width: to - from, ...NOW };
    cells.add('tri', params, { A: data.bits.slice(from, to), EN: [enable], Y });
    return Y;
  };
  if (width > MOST_PART) return { bits: logic.gates.inParts(width, tri) };
  return logic.gates.made(tri(0, width));
}

/** The value of an expression, and the bit that enables it where a branch of the expression is z. */
function enabledValue(e: Expression, width: number, signed: boolean, logic: Expressions): EnabledValue {
  const { gates } = logic;
  if (isFloating(e)) return { data: { bits: Array<Bit>(width).fill(CX) }, enable: C0 };
  if (e.is !== 'choose') return { data: logic.value(e, width, signed), enable: C1 };
  const select = logic.truth(e.condition);
  if (select === C0 || select === C1) return enabledValue(select === C1 ? e.yes : e.no, width, signed, logic);
  if (!mayFloat(e))
    return {
      data: gates.mux(select, logic.value(e.no, width, signed).bits, logic.value(e.yes, width, signed).bits),
      enable: C1,
    };
  const no = enabledValue(e.no, width, signed, logic);
  const yes = enabledValue(e.yes, width, signed, logic);
  const activeHigh = ({ enable, isLow }: EnabledValue) => (isLow ? gates.not(enable) : enable);
  if (no.enable === C0)
    return { data: yes.data, enable: yes.enable === C1 ? select : gates.and(select, activeHigh(yes)) };
  if (yes.enable === C0)
    return no.enable === C1
      ? { data: no.data, enable: select, isLow: true }
      : { data: no.data, enable: gates.and(gates.not(select), activeHigh(no)) };
  return {
    data: gates.mux(select, no.data.bits, yes.data.bits),
    enable: gates.mux(select, [activeHigh(no)], [activeHigh(yes)]).bits[0]!,
  };
}

const isFloating = (of: Expression): boolean =>
  (of.is === 'number' && /^z+$/.test(of.digits)) ||
  (of.is === 'repeat' && isFloating(of.item)) ||
  (of.is === 'concat' && of.items.every(isFloating));

export const mayFloat = (of: Expression): boolean =>
  isFloating(of) || (of.is === 'choose' && (mayFloat(of.yes) || mayFloat(of.no)));
