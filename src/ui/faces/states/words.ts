import { OFF, ON } from '@/core/logic/minimise/cube';
import { minimise } from '@/core/logic/minimise/minimise';
import { type Machine, stateNumber, type Transition } from '@/core/states/machine';

/**
 * The label of a transition: for each product of the inputs a letter an input, `1`, `0` or `–` for a
 * don't-care, then the outputs, `1– / 01`. Empty for a transition that is always taken.
 */
export function transitionWords(machine: Machine, arrow: Transition): string {
  const when = arrow.rows.length === machine.rows ? '' : whenWords(machine, arrow.rows);
  if (machine.isMoore) return when;
  const said = [...new Set(arrow.outputs)].join(' or ');
  return when ? `${when} / ${said}` : `/ ${said}`;
}

function whenWords(machine: Machine, rows: readonly number[]): string {
  const inputs = machine.inputs.length;
  const is = new Set(rows);
  const fn = {
    inputs,
    rows: Uint8Array.from({ length: machine.rows }, (_, row) => (is.has(row) ? ON : OFF)),
  };
  return minimise(fn)
    .cubes.map(({ mask, value }) =>
      Array.from({ length: inputs }, (_, i) => {
        const bit = 1 << (inputs - 1 - i);
        return mask & bit ? (value & bit ? '1' : '0') : '–';
      }).join(''),
    )
    .join(' ');
}

/** The name of a state: its given name, or the number that its bits make. */
export function stateWords(code: string, names: ReadonlyMap<string, string>): string {
  return names.get(code) ?? String(stateNumber(code) ?? code);
}

/** Names one after the other, the bits of a bus together: `Total[7:0] Turn`. */
export function namesTogether(names: readonly string[]): string {
  const found: { base: string; first: string; last: string | null }[] = [];
  for (const name of names) {
    const [, base, bit] = /^(.*)\[(\d+)\]$/.exec(name) ?? [];
    const before = found.at(-1);
    if (bit !== undefined && before?.last != null && before.base === base) before.last = bit;
    else found.push({ base: base ?? name, first: bit ?? '', last: bit ?? null });
  }
  return found
    .map(({ base, first, last }) =>
      last === null ? base : first === last ? `${base}[${first}]` : `${base}[${first}:${last}]`,
    )
    .join(' ');
}
