import { numberOf } from './numbers';
import type { Expression, PartSelect } from './syntax';
import { TokenReader } from './token-reader';
import type { Place, Token } from './tokens';

/** Binding strength of binary operators (IEEE Std 1364-2005, table 5-4), the strongest highest. */
const STRENGTH: Record<string, number> = {
  '**': 12,
  '*': 11,
  '/': 11,
  '%': 11,
  '+': 10,
  '-': 10,
  '<<': 9,
  '>>': 9,
  '<<<': 9,
  '>>>': 9,
  '<': 8,
  '<=': 8,
  '>': 8,
  '>=': 8,
  '==': 7,
  '!=': 7,
  '===': 7,
  '!==': 7,
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
        this.pass();
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
        this.pass();
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
    this.pass();
    return this.deeper(() => {
      const of = this.unary();
      return this.above({ is: 'unary', operator: text, of, line, column }, of);
    });
  }

  protected primary(): Expression {
    const { line, column, kind, text } = this.token;
    const place = { line, column };
    if (kind === 'number') {
      this.pass();
      return { ...numberOf(text, place), ...place };
    }
    if (kind === 'text') {
      this.pass();
      return { is: 'text', text, ...place };
    }
    if (kind === 'system') {
      this.pass();
      return { is: 'call', name: text, arguments: this.accept('(') ? this.arguments() : [], ...place };
    }
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
    const name = this.path('a signal, a number or “(”');
    if (this.is('(') && this.mayCall) {
      this.pass();
      const given = this.arguments();
      return this.above({ is: 'call', name, arguments: given, ...place }, ...given);
    }
    return this.selected(name, place);
  }

  /** Whether a name with a bracket behind it is the call of a function: not so where a name is declared or connected. */
  protected mayCall = true;

  protected arguments(): Expression[] {
    const list = this.list(() => this.expression(), ')');
    this.expect(')');
    return list;
  }

  /** A name, or one inside of instances and blocks: `desk.count`. */
  protected path(what: string): string {
    let name = this.name(what);
    while (this.is('.') && this.ahead.kind === 'name') {
      this.pass();
      name += `.${this.name('a name')}`;
    }
    return name;
  }

  /** What stands in square brackets behind a name. */
  protected selected(name: string, place: Place): Expression {
    const path: Expression[] = [];
    let part: PartSelect | null = null;
    while (part === null && this.accept('[')) {
      const first = this.expression();
      const how = ([':', '+:', '-:'] as const).find((sign) => this.accept(sign));
      if (how) part = { how, first, second: this.expression() };
      else path.push(first);
      this.expect(']');
    }
    if (part === null && path.length === 0)
      return { is: 'name', name, line: place.line, column: place.column };
    const below = part ? [...path, part.first, part.second] : path;
    return this.above({ is: 'select', name, path, part, ...place }, ...below);
  }
}
