import type { Expression } from '../logic/expression/expression';
import { readExpression } from '../logic/expression/read-expression';
import { expectDone } from '../values/result';

/** An expression as it is written, in any notation. */
export const expressionOf = (text: string, known: readonly string[] = []): Expression =>
  expectDone(readExpression(text, known)).expression;
