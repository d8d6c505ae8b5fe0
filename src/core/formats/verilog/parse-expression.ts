import { numberOf } from './numbers';
import type { Expression } from './syntax';
import { TokenReader } from './token-reader';
import type { Token } from './tokens';

/** Binding strength of binary operators (IEEE Std 1364-2005, table 5-4), the strongest highest. */
const STRENGTH: Record<string, number> = {
  '*': 11,
  '/': 11,
  '%': 11,
  '+': 10,
  '-': 10,
  '<<': 9,
  '>>': 9,
  '<': 8,
  '<=': 8,
  '>': 8,
  '>=': 8,
  '==': 7,
  '!=': 7,
  '&': 6,
  '^': 5,
  '~^': 5,
  '^~': 5,
  '|': 4,
  '&&': 3,
  '||': 2,
};
/** Operators in whose chains brackets may stand anywhere. */
const ASSOCIATIVE = new Set(['&', '|', '^', '&&', '||']);
/** Operands of a chain that are joined one after the other. */
const FROM_THE_LEFT = 16;
const UNARY = new Set(['~', '!', '&', '|', '^', '~&', '~|', '~^', '^~', '-', '+']);

/** Reads expressions by precedence climbing. */
export abstract class ExpressionParser extends TokenReader {
  protected expression(least = 0): Expression {
    return this.deeper(() => {
      let left = this.unary();
      /** Operands of the same operator so far, where brackets between them change nothing. */
      let chain: Expression[] = [];
      let before: Token | null = null;
      const endChain = () => {
        if (before) left = this.joined(chain, before);
        before = null;
      };
      for (;;) {
        const token = this.token;
        const strength = token.kind === 'symbol' ? STRENGTH[token.text] : undefined;
        if (strength === undefined || strength <= least) break;
        if ((before as Token | null)?.text !== token.text) endChain();
        this.at++;
        const right = this.expression(strength);
        if (!ASSOCIATIVE.has(token.text)) left = this.joined([left, right], token);
        else if (before) chain.push(right);
        else {
          chain = [left, right];
          before = token;
        }
      }
      endChain();
      if (least === 0 && this.is('?')) {
        const { line, column } = this.token;
        this.at++;
        const yes = this.expression();
        this.expect(':');
        const no = this.expression();
        return this.above({ is: 'choose', condition: left, yes, no, line, column }, left, yes, no);
      }
      return left;
    });
  }

  /** Operands joined by one operator: from the left, or as a balanced tree where there are many. */
  protected joined(operands: readonly Expression[], at: Pick<Token, 'text' | 'line' | 'column'>): Expression {
    const { text: operator, line, column } = at;
    const two = (left: Expression, right: Expression): Expression =>
      this.above({ is: 'binary', operator, left, right, line, column }, left, right);
    if (operands.length <= FROM_THE_LEFT) return operands.reduce(two);
    const middle = operands.length >> 1;
    return two(this.joined(operands.slice(0, middle), at), this.joined(operands.slice(middle), at));
  }

  protected unary(): Expression {
    const { line, column, kind, text } = this.token;
    if (kind !== 'symbol' || !UNARY.has(text)) return this.primary();
    this.at++;
    return this.deeper(() => {
      const of = this.unary();
      return this.above({ is: 'unary', operator: text, of, line, column }, of);
    });
  }

  protected primary(): Expression {
    const { line, column, kind, text } = this.token;
    const place = { line, column };
    if (kind === 'number') {
      this.at++;
      return { ...numberOf(text, place), ...place };
    }
    if (kind === 'text') this.unsupported('a text');
    if (this.accept('(')) {
      const inside = this.expression();
      this.expect(')');
      return inside;
    }
    if (this.accept('{')) {
      const first = this.expression();
      if (this.accept('{')) {
        const items = this.list(() => this.expression(), '}');
        this.expect('}');
        this.expect('}');
        const item = this.above<Expression>({ is: 'concat', items, ...place }, ...items);
        return this.above({ is: 'repeat', count: first, item, ...place }, first, item);
      }
      const items = [first];
      while (this.accept(',')) items.push(this.expression());
      this.expect('}');
      return this.above({ is: 'concat', items, ...place }, ...items);
    }
    const name = this.name('a signal, a number or “(”');
    if (!this.accept('[')) return { is: 'name', name, ...place };
    const index = this.expression();
    if (this.accept(':')) {
      const low = this.expression();
      this.expect(']');
      if (this.is('[')) this.unsupported('a second select');
      return this.above({ is: 'range', name, high: index, low, ...place }, index, low);
    }
    if (this.is('+') || this.is('-')) this.unsupported('an indexed part select');
    this.expect(']');
    if (this.is('[')) this.unsupported('a second select');
    return this.above({ is: 'bit', name, index, ...place }, index);
  }
}
