import { PS_PER_UNIT, type TimeUnit } from '../../values/time';
import { GATES, KEYWORDS } from './keywords';
import { ExpressionParser } from './parse-expression';
import type {
  Connection,
  Declaration,
  Expression,
  FileDelay,
  Item,
  Module,
  Range,
  Statement,
} from './syntax';
import { type Place, tokensOf, VerilogError } from './tokens';

/** Reads the modules of a Verilog file. @throws VerilogError with the place and the expected token. */
export function parseVerilog(source: string): Module[] {
  return new Parser(tokensOf(source)).file();
}

class Parser extends ExpressionParser {
  /** Ps in a time unit of the file. */
  private unit = 1000;

  file(): Module[] {
    const modules: Module[] = [];
    for (;;) {
      this.skipAttributes();
      const t = this.token;
      if (t.kind === 'end') break;
      if (t.kind === 'directive') this.directive();
      else if (this.is('module')) modules.push(this.module());
      else this.fail('“module”');
    }
    if (modules.length === 0)
      throw new VerilogError('a module is expected, and there is none', { line: 1, column: 1 });
    const seen = new Map<string, Module>();
    for (const m of modules) {
      if (seen.has(m.name)) throw new VerilogError(`there are two modules called ${m.name}`, m);
      seen.set(m.name, m);
    }
    return modules;
  }

  private directive(): void {
    const t = this.token;
    const time = /^timescale\s+(1|10|100)\s*(s|ms|us|ns|ps)\s*\/\s*(1|10|100)\s*(s|ms|us|ns|ps|fs)$/.exec(
      t.text,
    );
    if (time) this.unit = Number(time[1]) * PS_PER_UNIT[time[2] as TimeUnit];
    else if (
      !/^(default_nettype\s+wire|resetall|celldefine|endcelldefine|default_nettype\s+none)$/.test(t.text)
    )
      this.unsupported(`the directive \`${t.text.split(/\s/)[0]}`);
    this.at++;
  }

  private module(): Module {
    const place = this.token;
    this.expect('module');
    const name = this.name('the name of the module');
    const made: {
      ports: string[];
      declarations: Declaration[];
      parameters: { name: string; value: Expression; local: boolean }[];
      items: Item[];
    } = { ports: [], declarations: [], parameters: [], items: [] };
    if (this.accept('#')) {
      this.expect('(');
      do {
        this.accept('parameter');
        made.parameters.push(this.parameter(false));
      } while (this.accept(','));
      this.expect(')');
    }
    if (this.accept('(')) {
      if (this.is('input') || this.is('output') || this.is('inout')) this.ansiPorts(made);
      else made.ports.push(...this.list(() => this.name('the name of a port'), ')'));
      this.expect(')');
    }
    this.expect(';');
    const { unit } = this;
    while (!this.is('endmodule')) {
      if (this.token.kind === 'end') this.fail('“endmodule”');
      this.item(made);
    }
    this.expect('endmodule');
    return { name, unit, line: place.line, column: place.column, ...made };
  }

  private parameter(local: boolean): { name: string; value: Expression; local: boolean } {
    if (this.is('signed') || this.is('integer') || this.is('real')) this.unsupported(`“${this.token.text}”`);
    this.range();
    const name = this.name('the name of a parameter');
    this.expect('=');
    return { name, value: this.expression(), local };
  }

  private ansiPorts(made: { ports: string[]; declarations: Declaration[] }): void {
    let direction: 'input' | 'output' = 'input';
    let type: 'wire' | 'reg' = 'wire';
    let range: Range | null = null;
    do {
      this.skipAttributes();
      if (this.is('inout')) this.unsupported('a port of both directions (inout)');
      if (this.is('input') || this.is('output')) {
        direction = this.token.text as 'input';
        this.at++;
        type = 'wire';
        if (this.accept('reg')) type = 'reg';
        else this.accept('wire');
        if (this.is('signed')) this.unsupported('“signed”');
        range = this.range();
      }
      const { line, column } = this.token;
      const name = this.name('the name of a port');
      made.ports.push(name);
      made.declarations.push({ name, range, direction, type, line, column });
    } while (this.accept(','));
  }

  private range(): Range | null {
    if (!this.accept('[')) return null;
    const high = this.expression();
    this.expect(':');
    const low = this.expression();
    this.expect(']');
    return { high, low };
  }

  private item(made: {
    declarations: Declaration[];
    parameters: { name: string; value: Expression; local: boolean }[];
    items: Item[];
  }): void {
    this.skipAttributes();
    const t = this.token;
    const place = { line: t.line, column: t.column };
    if (t.kind === 'directive') {
      this.directive();
      return;
    }
    if (t.kind !== 'name') this.fail('a declaration, an assign, a gate or an instance');
    if (t.escaped) {
      this.instances(made.items);
      return;
    }
    switch (t.text) {
      case 'input':
      case 'output':
      case 'wire':
      case 'tri':
      case 'reg':
      case 'supply0':
      case 'supply1':
        this.declaration(made);
        return;
      case 'parameter':
      case 'localparam':
        this.at++;
        do made.parameters.push(this.parameter(t.text === 'localparam'));
        while (this.accept(','));
        this.expect(';');
        return;
      case 'assign': {
        this.at++;
        if (this.is('(')) this.unsupported('a drive strength');
        const delay = this.delay();
        do {
          const target = this.target();
          this.expect('=');
          made.items.push({ is: 'assign', target, value: this.expression(), delay, ...place });
        } while (this.accept(','));
        this.expect(';');
        return;
      }
      case 'always': {
        this.at++;
        const edges = this.sensitivity();
        made.items.push({ is: 'always', edges, body: this.statement(), ...place });
        return;
      }
      case 'initial': {
        this.at++;
        const block = this.accept('begin');
        do {
          const target = this.target();
          if (!this.accept('=')) this.expect('<=');
          made.items.push({ is: 'initial', target, value: this.expression(), ...place });
          this.expect(';');
        } while (block && !this.accept('end'));
        return;
      }
      default:
        if (GATES.has(t.text)) {
          this.gates(made.items);
          return;
        }
        if (KEYWORDS.has(t.text)) this.unsupported(`“${t.text}”`);
        this.instances(made.items);
        return;
    }
  }

  private declaration(made: { declarations: Declaration[]; items: Item[] }): void {
    let direction: Declaration['direction'] = null;
    if (this.is('input') || this.is('output')) {
      direction = this.token.text as 'input';
      this.at++;
    }
    let type: Declaration['type'] = 'wire';
    if (this.is('reg') || this.is('supply0') || this.is('supply1')) {
      type = this.token.text as 'reg';
      this.at++;
    } else if (!this.accept('wire')) this.accept('tri');
    if (this.is('signed')) this.unsupported('“signed”');
    const range = this.range();
    const delay = this.delay();
    do {
      const { line, column } = this.token;
      const place = { line, column };
      const name = this.name('the name of a signal');
      if (this.is('[')) this.unsupported('a memory');
      made.declarations.push({ name, range, direction, type, ...place });
      if (!this.accept('=')) continue;
      const value = this.expression();
      const target: Expression = { is: 'name', name, ...place };
      if (type === 'reg') made.items.push({ is: 'initial', target, value, ...place });
      else made.items.push({ is: 'assign', target, value, delay, ...place });
    } while (this.accept(','));
    this.expect(';');
  }

  /** `#5`, `#(5)`, `#(3, 4)`, `#(1:2:3, 4, 5)`: of three values the middle one, of three delays the first two. */
  private delay(): FileDelay | null {
    if (!this.accept('#')) return null;
    if (!this.accept('(')) {
      const value = this.primary();
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

  private gates(items: Item[]): void {
    const kind = this.token.text;
    this.at++;
    if (this.is('(') && /^(supply|strong|pull|weak|highz)/.test(this.tokens[this.at + 1]!.text))
      this.unsupported('a drive strength', this.tokens[this.at + 1]);
    const delay = this.delay();
    do {
      const { line, column } = this.token;
      const name = this.is('(') ? '' : this.name('the name of the gate or “(”');
      if (this.is('[')) this.unsupported('an array of gates');
      this.expect('(');
      const terminals = this.list(() => this.expression(), ')');
      this.expect(')');
      const least = kind.startsWith('pull') ? 1 : kind.includes('if') ? 3 : 2;
      if (terminals.length < least || ((least === 3 || least === 1) && terminals.length !== least))
        throw new VerilogError(
          `${kind} has ${least}${least === 2 ? ' or more' : ''} terminals, not ${terminals.length}`,
          {
            line,
            column,
          },
        );
      items.push({ is: 'gate', kind, name, delay, terminals, line, column });
    } while (this.accept(','));
    this.expect(';');
  }

  private instances(items: Item[]): void {
    const place = this.token;
    const module = this.name();
    const parameters = this.accept('#') ? this.parameters() : [];
    do {
      const name = this.name('the name of the instance');
      if (this.is('[')) this.unsupported('an array of instances');
      this.expect('(');
      const connections = this.connections();
      this.expect(')');
      items.push({
        is: 'instance',
        module,
        name,
        parameters,
        connections,
        line: place.line,
        column: place.column,
      });
    } while (this.accept(','));
    this.expect(';');
  }

  private parameters(): Connection[] {
    this.expect('(');
    const list = this.connections();
    this.expect(')');
    return list;
  }

  private connections(): Connection[] {
    const list: Connection[] = [];
    if (this.is(')')) return list;
    do {
      this.skipAttributes();
      const { line, column } = this.token;
      if (this.accept('.')) {
        const port = this.name('the name of a port');
        this.expect('(');
        const to = this.is(')') ? null : this.expression();
        this.expect(')');
        list.push({ port, to, line, column });
      } else
        list.push({ port: null, to: this.is(',') || this.is(')') ? null : this.expression(), line, column });
    } while (this.accept(','));
    return list;
  }

  private sensitivity(): { edge: 'posedge' | 'negedge'; signal: Expression }[] | null {
    if (!this.accept('@')) this.unsupported('an always block without a list of edges');
    if (this.accept('*')) return null;
    this.expect('(');
    if (this.accept('*')) {
      this.expect(')');
      return null;
    }
    if (this.accept('*)')) return null;
    const edges: { edge: 'posedge' | 'negedge'; signal: Expression }[] = [];
    let levels = 0;
    do {
      const edge = this.is('posedge') || this.is('negedge') ? (this.token.text as 'posedge') : null;
      if (edge) this.at++;
      else levels++;
      const signal = this.primary();
      if (edge) edges.push({ edge, signal });
    } while (this.accept(',') || this.accept('or'));
    this.expect(')');
    if (levels > 0 && edges.length > 0) this.unsupported('a list of edges and levels together');
    return levels > 0 ? null : edges;
  }

  private statement(): Statement {
    return this.deeper(() => {
      const { line, column } = this.token;
      const place = { line, column };
      if (this.accept('begin')) {
        if (this.accept(':')) this.name('the name of the block');
        const statements: Statement[] = [];
        while (!this.accept('end')) {
          if (this.token.kind === 'end') this.fail('“end”');
          statements.push(this.statement());
        }
        return this.above({ is: 'block', statements, ...place }, ...statements);
      }
      if (this.accept('if')) {
        this.expect('(');
        const condition = this.expression();
        this.expect(')');
        const yes = this.statement();
        const no = this.accept('else') ? this.statement() : null;
        return this.above({ is: 'if', condition, yes, no, ...place }, yes, no);
      }
      if (this.accept('case')) return this.cases(place);
      if (this.accept(';')) return { is: 'block', statements: [], ...place };
      if (this.token.kind === 'name' && !this.token.escaped && KEYWORDS.has(this.token.text))
        this.unsupported(`“${this.token.text}” in an always block`);
      const target = this.target();
      const blocking = this.is('=');
      if (!this.accept('=') && !this.accept('<=')) this.fail('“<=”');
      const delay = this.delay();
      const value = this.expression();
      this.expect(';');
      return { is: 'assign', target, value, delay, blocking, ...place };
    });
  }

  /** A case statement, as the ifs that it stands for: one after the other, the default last (IEEE Std 1364-2005, 9.5). */
  private cases(place: Place): Statement {
    this.expect('(');
    const chosen = this.expression();
    this.expect(')');
    const items: { readonly labels: Expression[]; readonly body: Statement }[] = [];
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
    // Where all values are named, the last one needs no question: nothing is left to be kept.
    if (otherwise === null && namesAll(items.flatMap((item) => item.labels))) otherwise = items.pop()!.body;
    return items.reduceRight<Statement>(
      (no, { labels, body }) => {
        const equal = labels.map(
          (right): Expression => ({ is: 'binary', operator: '==', left: chosen, right, ...place }),
        );
        const condition = this.joined(equal, { text: '||', ...place });
        return this.above({ is: 'if', condition, yes: body, no, ...place }, body, no);
      },
      otherwise ?? { is: 'block', statements: [], ...place },
    );
  }

  /** The left side of an assignment: a name, some of its bits, or several of these in braces. */
  private target(): Expression {
    const t = this.token;
    if (!this.is('{') && t.kind !== 'name') this.fail('the name of a signal');
    return this.primary();
  }
}

/** Whether labels are all the numbers of their width, each once. */
function namesAll(labels: readonly Expression[]): boolean {
  const digits = labels.map((label) =>
    label.is === 'number' && /^[01]+$/.test(label.digits) ? label.digits : '',
  );
  const width = digits[0]?.length ?? 0;
  const isSized = width > 0 && width < 16 && digits.every((d) => d.length === width);
  return isSized && new Set(digits).size === 2 ** width;
}
