/** A Boolean expression as it was written; `at` is the place of a name in the text. */
export type Expression =
  | { readonly op: 'constant'; readonly value: 0 | 1 }
  | { readonly op: 'name'; readonly name: string; readonly at: number }
  | { readonly op: 'not'; readonly of: Expression }
  | { readonly op: Operator; readonly of: readonly Expression[] };

export type Operator = 'and' | 'or' | 'xor' | 'nand' | 'nor' | 'xnor';

/** The names in an expression, each once, in the order in which they are first met. */
export function namesOf(expression: Expression): string[] {
  const names = new Set<string>();
  const visit = (e: Expression) => {
    if (e.op === 'name') names.add(e.name);
    else if (e.op === 'not') visit(e.of);
    else if (e.op !== 'constant') e.of.forEach(visit);
  };
  visit(expression);
  return [...names];
}

/** The value of an expression for values of its names. */
export function evaluate(expression: Expression, values: ReadonlyMap<string, 0 | 1>): 0 | 1 {
  switch (expression.op) {
    case 'constant':
      return expression.value;
    case 'name':
      return values.get(expression.name) ?? 0;
    case 'not':
      return evaluate(expression.of, values) ? 0 : 1;
    default: {
      const bits = expression.of.map((e) => evaluate(e, values));
      const ones = bits.filter(Boolean).length;
      const { op } = expression;
      const plain =
        op === 'and' || op === 'nand'
          ? ones === bits.length
          : op === 'or' || op === 'nor'
            ? ones > 0
            : ones % 2 === 1;
      return plain !== (op === 'nand' || op === 'nor' || op === 'xnor') ? 1 : 0;
    }
  }
}
