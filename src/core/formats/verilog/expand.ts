import type { Expression, Generated, Item } from './syntax';
import type { Place } from './tokens';
import { VerilogError } from './tokens';

/** Rounds of one generate loop. */
const MOST_ROUNDS = 10_000;

/** What carries out generate constructs: names live in scopes of type S. */
export interface Generator<S> {
  number(e: Expression, scope: S): number;
  /** The scope of a block within another, with its declarations; `variable` is that of the loop. */
  enter(block: Generated, scope: S, name: string, variable: readonly [name: string, value: number] | null): S;
  /** An item that is no generate construct. */
  place(item: Item, scope: S): void;
}

type Construct = Extract<Item, { is: `generate ${string}` }>;
export const isGenerated = (item: Item): item is Construct => item.is.startsWith('generate ');

/** Carries out one item: generate constructs become the items that they stand for (IEEE Std 1364-2005, 12.4). */
export function expand<S>(item: Item, scope: S, to: Generator<S>): void {
  if (!isGenerated(item)) {
    to.place(item, scope);
    return;
  }
  const into = (block: Generated, name: string, variable: readonly [string, number] | null = null) => {
    const inner = to.enter(block, scope, name, variable);
    for (const one of block.items) expand(one, inner, to);
  };
  switch (item.is) {
    case 'generate block':
      into(item.body, item.body.name ?? '');
      return;
    case 'generate if': {
      const taken = to.number(item.condition, scope) !== 0 ? item.yes : item.no;
      if (taken) into(taken, taken.name ?? '');
      return;
    }
    case 'generate case': {
      const value = to.number(item.chosen, scope);
      const fits = item.items.find(({ labels }) => labels.some((label) => to.number(label, scope) === value));
      const taken = fits?.body ?? item.otherwise;
      if (taken) into(taken, taken.name ?? '');
      return;
    }
    case 'generate for': {
      let value = to.number(item.first, scope);
      for (let round = 0; ; round++) {
        // Condition and step see the variable in a scope of their own.
        const own = to.enter(NOTHING, scope, '', [item.variable, value]);
        if (to.number(item.condition, own) === 0) return;
        if (round >= MOST_ROUNDS) refuse(`the loop goes round more than ${MOST_ROUNDS} times`, item);
        into(item.body, `${item.body.name ?? ''}[${value}]`, [item.variable, value]);
        value = to.number(item.step, own);
      }
    }
  }
}

const NOTHING: Generated = { name: null, declarations: [], parameters: [], items: [], routines: [] };

function refuse(message: string, { line, column }: Place): never {
  throw new VerilogError(message, { line, column });
}
