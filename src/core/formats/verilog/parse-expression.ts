import { numberOf } from './numbers';
import type { Expression } from './syntax';
import { TokenReader } from './token-reader';

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
const UNARY = new Set(['~', '!', '&', '|', '^', '~&', '~|', '~^', '^~', '-', '+']);

/** Reads expressions by precedence climbing. */
export abstract class ExpressionParser extends TokenReader {
  protected expression(least = 0): Expression {
    return this.deeper(() => {
      let left = this.unary();
      for (;;) {
        const { line, column, kind, text } = this.token;
        const strength = kind === 'symbol' ? STRENGTH[text] : undefined;
        if (strength === undefined || strength <= least) break;
        this.at++;
        const right = this.expression(strength);
        left = { is: 'binary', operator: text, left, right, line, column };
      }
      if (least === 0 && this.is('?')) {
        const { line, column } = this.token;
        this.at++;
        const yes = this.expression();
        this.expect(':');
        const no = this.expression();
        return { is: 'choose', condition: left, yes, no, line, column };
      }
      return left;
    });
  }

  protected unary(): Expression {
    const { line, column, kind, text } = this.token;
    if (kind !== 'symbol' || !UNARY.has(text)) return this.primary();
    this.at++;
    return this.deeper(() => ({ is: 'unary', operator: text, of: this.unary(), line, column }));
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
        return { is: 'repeat', count: first, item: { is: 'concat', items, ...place }, ...place };
      }
      const items = [first];
      while (this.accept(',')) items.push(this.expression());
      this.expect('}');
      return { is: 'concat', items, ...place };
    }
    const name = this.name('a signal, a number or “(”');
    if (!this.accept('[')) return { is: 'name', name, ...place };
    const index = this.expression();
    if (this.accept(':')) {
      const low = this.expression();
      this.expect(']');
      if (this.is('[')) this.unsupported('a second select');
      return { is: 'range', name, high: index, low, ...place };
    }
    if (this.is('+') || this.is('-')) this.unsupported('an indexed part select');
    this.expect(']');
    if (this.is('[')) this.unsupported('a second select');
    return { is: 'bit', name, index, ...place };
  }
}
