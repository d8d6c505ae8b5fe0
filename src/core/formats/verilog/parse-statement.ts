import { KEYWORDS } from './keywords';
import { ExpressionParser } from './parse-expression';
import type {
  Assign,
  CaseItem,
  Declaration,
  Direction,
  Expression,
  FileDelay,
  Parameter,
  Range,
  Sensitivity,
  Statement,
  Watched,
} from './syntax';
import type { Place } from './tokens';

const STORED = new Set(['reg', 'integer', 'time', 'real', 'realtime', 'event']);

/** Reads statements, and the declarations that stand among them. */
export abstract class StatementParser extends ExpressionParser {
  protected place(): Place {
    const { line, column } = this.token;
    return { line, column };
  }

  protected range(): Range | null {
    if (!this.accept('[')) return null;
    const high = this.expression();
    this.expect(':');
    const low = this.expression();
    this.expect(']');
    return { high, low };
  }

  /** `#5`, `#(5)`, `#(3, 4)`, `#(1:2:3, 4, 5)`: of three values the middle one, of three delays the first two. */
  protected delay(): FileDelay | null {
    if (!this.accept('#')) return null;
    if (!this.accept('(')) {
      // In `and #D (y, a, b)` the name is no function.
      this.mayCall = false;
      const value = this.primary();
      this.mayCall = true;
      return { rise: value, fall: value };
    }
    const one = () => {
      const least = this.expression();
      if (!this.accept(':')) return least;
      const usual = this.expression();
      this.expect(':');
      this.expression();
      return usual;
    };
    const values = this.list(one, ')');
    this.expect(')');
    if (values.length === 0 || values.length > 3) this.fail('one to three delays');
    return { rise: values[0]!, fall: values[1] ?? values[0]! };
  }

  /** What stands between a direction or a type and the names. */
  protected typeBefore(direction: Direction | null): Omit<Declaration, 'name' | 'words' | 'line' | 'column'> {
    let type: Declaration['type'] = 'wire';
    const { text } = this.token;
    if (
      this.token.kind === 'name' &&
      (STORED.has(text) || text === 'supply0' || text === 'supply1' || text === 'genvar')
    ) {
      type = (text === 'realtime' ? 'real' : text) as Declaration['type'];
      this.pass();
    } else if (!this.accept('wire') && !this.accept('tri')) {
      for (const resolved of ['wand', 'wor', 'triand', 'trior', 'trireg', 'tri0', 'tri1'])
        if (this.is(resolved))
          this.unsupported(`“${resolved}”`, this.token, 'a wire, or a gate that joins the signals');
    }
    const signed = this.accept('signed') || type === 'integer';
    if (!signed) this.accept('unsigned');
    return { range: this.range(), direction, type, signed };
  }

  /** Names behind a type, up to the semicolon. */
  protected names(
    type: Omit<Declaration, 'name' | 'words' | 'line' | 'column'>,
    into: Declaration[],
    onValue?: (target: Expression, value: Expression) => void,
  ): void {
    do {
      const { line, column } = this.token;
      const name = this.name('the name of a signal');
      const words = this.range();
      if (this.is('['))
        this.unsupported('a memory of several addresses', this.token, 'join them to one address');
      const { range, direction, type: of, signed } = type;
      into.push({ name, range, direction, type: of, signed, words, line, column });
      if (!this.is('=')) continue;
      if (!onValue) this.unsupported('a value at the declaration', this.token, 'assign it in a statement');
      this.pass();
      onValue({ is: 'name', name, line, column }, this.expression());
    } while (this.accept(','));
    this.expect(';');
  }

  protected parameter(local: boolean): Parameter {
    for (const real of ['real', 'realtime', 'time']) this.accept(real);
    const isInteger = this.accept('integer');
    const signed = this.accept('signed') || isInteger;
    const range = this.range();
    const place = this.place();
    const name = this.name('the name of a parameter');
    this.expect('=');
    return { name, value: this.expression(), local, range, signed, ...place };
  }

  /** Behind an `@`. */
  protected sensitivity(): Sensitivity {
    if (this.accept('*')) return 'all';
    const place = this.place();
    if (!this.accept('('))
      return [{ edge: null, signal: this.selected(this.path('a signal or “(”'), place) }];
    if (this.accept('*')) {
      this.expect(')');
      return 'all';
    }
    if (this.accept('*)')) return 'all';
    const watched: Watched[] = [];
    do {
      const edge = this.is('posedge') || this.is('negedge') ? (this.token.text as 'posedge') : null;
      if (edge) this.pass();
      watched.push({ edge, signal: this.expression() });
    } while (this.accept(',') || this.accept('or'));
    this.expect(')');
    return watched;
  }

  protected statement(): Statement {
    return this.deeper(() => {
      this.skipAttributes();
      const place = this.place();
      const { kind, text, escaped } = this.token;
      if (kind === 'symbol') return this.timed(place);
      if (kind === 'system') return this.calling(place);
      if (kind === 'name' && !escaped && KEYWORDS.has(text)) return this.keyword(text, place);
      if (kind !== 'name') this.fail('a statement');
      // `count;` and `count(a, b);` call a task.
      const next = this.ahead;
      if (next.kind === 'symbol' && (next.text === ';' || next.text === '(')) return this.calling(place);
      const assign = this.assignment();
      this.expect(';');
      return assign;
    });
  }

  private timed(place: Place): Statement {
    if (this.accept(';')) return { is: 'block', name: null, declarations: [], statements: [], ...place };
    if (this.is('#')) {
      const { rise } = this.delay()!;
      const body = this.statement();
      return this.above({ is: 'delay', delay: rise, body, ...place }, body);
    }
    if (this.accept('@')) {
      const on = this.sensitivity();
      const body = this.statement();
      return this.above({ is: 'event', on, body, ...place }, body);
    }
    if (this.accept('->')) {
      const name = this.path('the name of an event');
      this.expect(';');
      return { is: 'trigger', name, ...place };
    }
    const assign = this.assignment();
    this.expect(';');
    return assign;
  }

  private calling(place: Place): Statement {
    const name = this.token.kind === 'system' ? this.token.text : '';
    if (name) this.pass();
    const called = name || this.path('the name of a task');
    const given: (Expression | null)[] = [];
    if (this.accept('(')) {
      if (!this.is(')'))
        do given.push(this.is(',') || this.is(')') ? null : this.expression());
        while (this.accept(','));
      this.expect(')');
    }
    this.expect(';');
    return { is: 'call', name: called, arguments: given, ...place };
  }

  private keyword(word: string, place: Place): Statement {
    const first = this.token;
    this.pass();
    const inBrackets = () => {
      this.expect('(');
      const inside = this.expression();
      this.expect(')');
      return inside;
    };
    switch (word) {
      case 'begin':
        return this.block(place);
      case 'if': {
        const condition = inBrackets();
        const yes = this.statement();
        const no = this.accept('else') ? this.statement() : null;
        return this.above({ is: 'if', condition, yes, no, ...place }, condition, yes, no);
      }
      case 'case':
      case 'casez':
      case 'casex':
        return this.cases(word, place);
      case 'for': {
        this.expect('(');
        const first = this.assignment();
        this.expect(';');
        const condition = this.expression();
        this.expect(';');
        const step = this.assignment();
        this.expect(')');
        const body = this.statement();
        return this.above({ is: 'for', first, condition, step, body, ...place }, body);
      }
      case 'while': {
        const condition = inBrackets();
        const body = this.statement();
        return this.above({ is: 'while', condition, body, ...place }, body);
      }
      case 'repeat': {
        const count = inBrackets();
        const body = this.statement();
        return this.above({ is: 'repeat', count, body, ...place }, body);
      }
      case 'forever': {
        const body = this.statement();
        return this.above({ is: 'forever', body, ...place }, body);
      }
      case 'wait': {
        const condition = inBrackets();
        const body = this.statement();
        return this.above({ is: 'wait', condition, body, ...place }, body);
      }
      case 'disable': {
        const name = this.path('the name of a block');
        this.expect(';');
        return { is: 'disable', name, ...place };
      }
      case 'fork':
        return this.unsupported('“fork”', place, 'write several “initial” blocks');
      case 'assign':
      case 'force':
        return this.unsupported(`“${word}” in a process`, place, 'assign in an “always” block');
      default:
        return this.fail('a statement', first, first);
    }
  }

  private block(place: Place): Statement {
    const name = this.accept(':') ? this.name('the name of the block') : null;
    const declarations: Declaration[] = [];
    while (this.token.kind === 'name' && STORED.has(this.token.text))
      this.names(this.typeBefore(null), declarations);
    const statements: Statement[] = [];
    while (!this.accept('end')) {
      if (this.token.kind === 'end') this.fail('“end”');
      statements.push(this.statement());
    }
    return this.above({ is: 'block', name, declarations, statements, ...place }, ...statements);
  }

  protected assignment(): Assign {
    const place = this.place();
    const target = this.target();
    const blocking = this.is('=');
    if (!this.accept('=') && !this.accept('<=')) this.fail('“=” or “<=”');
    const delay = this.delay();
    if (this.is('@'))
      this.unsupported(
        'an assignment that waits for an event',
        this.token,
        'wait for it in a statement before',
      );
    const value = this.expression();
    return this.above({ is: 'assign', target, value, delay, blocking, ...place }, value);
  }

  private cases(how: 'case' | 'casez' | 'casex', place: Place): Statement {
    this.expect('(');
    const chosen = this.expression();
    this.expect(')');
    const items: CaseItem[] = [];
    let otherwise: Statement | null = null;
    while (!this.accept('endcase')) {
      if (this.token.kind === 'end') this.fail('“endcase”');
      if (this.accept('default')) {
        this.accept(':');
        otherwise = this.statement();
        continue;
      }
      const labels = this.list(() => this.expression(), ':');
      this.expect(':');
      items.push({ labels, body: this.statement() });
    }
    const bodies = items.map(({ body }) => body);
    return this.above({ is: 'case', how, chosen, items, otherwise, ...place }, otherwise, ...bodies);
  }

  /** The left side of an assignment: a name, some of its bits, or several of these in braces. */
  protected target(): Expression {
    const t = this.token;
    if (!this.is('{') && t.kind !== 'name') this.fail('the name of a signal');
    if (this.is('{')) return this.primary();
    const place = this.place();
    return this.selected(this.path('the name of a signal'), place);
  }
}
