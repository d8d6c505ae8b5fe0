import { PS_PER_UNIT, type TimeUnit } from '../../values/time';
import { GATES, KEYWORDS } from './keywords';
import { StatementParser } from './parse-statement';
import { type Includes, preprocessed } from './preprocess';
import type {
  Connection,
  Declaration,
  Direction,
  Expression,
  Generated,
  Item,
  Module,
  Parameter,
  Routine,
} from './syntax';
import { type Place, VerilogError } from './tokens';

/** Reads the modules of a Verilog file. @throws VerilogError with the place and the expected token. */
export function parseVerilog(source: string, includes?: Includes): Module[] {
  return new Parser(preprocessed(source, includes)).file();
}

/** A body that is being read. */
interface Made {
  readonly declarations: Declaration[];
  readonly parameters: Parameter[];
  readonly items: Item[];
  readonly routines: Routine[];
}
interface MadeModule extends Made {
  readonly ports: string[];
}

const nothing = (): Made => ({ declarations: [], parameters: [], items: [], routines: [] });

class Parser extends StatementParser {
  /** Ps in a time unit of the file. */
  private unit = 1000;
  /** Ps of the precision of the file. */
  private precision = 1000;

  file(): Module[] {
    const modules: Module[] = [];
    for (;;) {
      this.skipAttributes();
      const t = this.token;
      if (t.kind === 'end') break;
      if (t.kind === 'directive') this.timescale();
      else if (this.is('module') || this.is('macromodule')) modules.push(this.module());
      else if (this.is('primitive'))
        this.unsupported('a primitive of one’s own', t, 'write it as a module with a case');
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

  private timescale(): void {
    const t = this.token;
    const time = /^timescale\s+(1|10|100)\s*(s|ms|us|ns|ps)\s*\/\s*(1|10|100)\s*(s|ms|us|ns|ps|fs)$/.exec(
      t.text,
    );
    if (!time) this.unsupported(`“\`${t.text.slice(0, 40)}”`, t, 'such as `timescale 1ns/1ps');
    this.unit = Number(time[1]) * PS_PER_UNIT[time[2] as TimeUnit];
    this.precision = time[4] === 'fs' ? 1 : Number(time[3]) * PS_PER_UNIT[time[4] as TimeUnit];
    this.pass();
  }

  private module(): Module {
    const place = this.place();
    this.pass();
    const name = this.name('the name of the module');
    const made: MadeModule = { ports: [], ...nothing() };
    if (this.accept('#')) {
      this.expect('(');
      if (!this.is(')'))
        do {
          this.accept('parameter');
          made.parameters.push(this.parameter(this.accept('localparam')));
        } while (this.accept(','));
      this.expect(')');
    }
    if (this.accept('(')) {
      this.skipAttributes();
      if (this.is('input') || this.is('output') || this.is('inout')) this.ansiPorts(made.ports, made);
      else {
        if (this.is('.'))
          this.unsupported('a port with another name inside', this.token, 'give it the name of its signal');
        made.ports.push(...this.list(() => this.name('the name of a port'), ')'));
      }
      this.expect(')');
    }
    this.expect(';');
    const { unit, precision } = this;
    while (!this.is('endmodule')) {
      if (this.token.kind === 'end') this.fail('“endmodule”');
      this.item(made);
    }
    this.expect('endmodule');
    return { name, unit, precision, ...place, ...made };
  }

  /** Ports, or arguments, each with its direction before it, up to the bracket. */
  private ansiPorts(ports: string[], made: Pick<Made, 'declarations'> & Partial<Pick<Made, 'items'>>): void {
    let type: Omit<Declaration, 'name' | 'words' | 'line' | 'column'> | null = null;
    do {
      this.skipAttributes();
      if (this.is('input') || this.is('output') || this.is('inout')) {
        const direction = this.token.text as Direction;
        this.pass();
        type = this.typeBefore(direction);
      }
      if (!type) this.fail('“input”, “output” or “inout”');
      const place = this.place();
      const name = this.name('the name of a port');
      ports.push(name);
      made.declarations.push({ ...type, name, words: null, ...place });
      if (this.is('=') && made.items && type.type === 'reg') {
        this.pass();
        made.items.push(begun({ is: 'name', name, ...place }, this.expression(), place));
      }
    } while (this.accept(','));
  }

  private item(made: Made & Partial<MadeModule>): void {
    this.beginTree();
    this.skipAttributes();
    const t = this.token;
    const place = this.place();
    if (t.kind === 'directive') {
      this.timescale();
      return;
    }
    if (this.accept(';')) return;
    if (t.kind !== 'name') this.fail('a declaration, an assign, a gate or an instance');
    if (t.escaped) {
      this.instances(made.items);
      return;
    }
    switch (t.text) {
      case 'parameter':
      case 'localparam':
        this.pass();
        do made.parameters.push(this.parameter(t.text === 'localparam'));
        while (this.accept(','));
        this.expect(';');
        return;
      case 'assign':
        this.assign(made.items, place);
        return;
      case 'always': {
        this.pass();
        const on = this.accept('@') ? this.sensitivity() : null;
        made.items.push({ is: 'always', on, body: this.statement(), ...place });
        return;
      }
      case 'initial':
        this.pass();
        made.items.push({ is: 'initial', body: this.statement(), ...place });
        return;
      case 'function':
      case 'task':
        made.routines.push(this.routine(t.text, place));
        return;
      case 'generate':
        this.pass();
        while (!this.accept('endgenerate')) {
          if (this.token.kind === 'end') this.fail('“endgenerate”');
          this.item(made);
        }
        return;
      case 'for':
      case 'if':
      case 'case':
      case 'begin':
        made.items.push(this.generated(t.text, place));
        return;
      default:
        if (isDeclared(t.text)) this.declaration(made);
        else if (GATES.has(t.text)) this.gates(made.items);
        else if (KEYWORDS.has(t.text)) this.unsupported(`“${t.text}”`, t, INSTEAD[t.text] ?? '');
        else this.instances(made.items);
    }
  }

  private assign(items: Item[], place: Place): void {
    this.pass();
    if (this.is('(')) this.unsupported('a drive strength', this.token, 'leave it out');
    const delay = this.delay();
    do {
      const target = this.target();
      this.expect('=');
      items.push({ is: 'assign', target, value: this.expression(), delay, ...place });
    } while (this.accept(','));
    this.expect(';');
  }

  private declaration(made: Made): void {
    let direction: Declaration['direction'] = null;
    if (this.is('input') || this.is('output') || this.is('inout')) {
      direction = this.token.text as Direction;
      this.pass();
    }
    const type = this.typeBefore(direction);
    const delay = this.delay();
    this.names(type, made.declarations, (target, value) => {
      const { line, column } = target;
      if (type.type === 'wire' || type.type.startsWith('supply'))
        made.items.push({ is: 'assign', target, value, delay, line, column });
      else made.items.push(begun(target, value, { line, column }));
    });
  }

  private routine(word: string, place: Place): Routine {
    this.pass();
    this.accept('automatic');
    let result: Routine['result'] = null;
    if (word === 'function') {
      const isInteger = this.is('integer') || this.is('time');
      if (isInteger) this.pass();
      if (this.is('real') || this.is('realtime')) this.unsupported('a function of real numbers', this.token);
      const signed = this.accept('signed') || isInteger;
      result = { isInteger, signed, range: this.range() };
    }
    const name = this.name(`the name of the ${word}`);
    const own: Declaration[] = [];
    if (this.accept('(')) {
      if (!this.is(')')) this.ansiPorts([], { declarations: own });
      this.expect(')');
    }
    this.expect(';');
    while (this.token.kind === 'name' && isDeclared(this.token.text) && !this.token.escaped) {
      const body = nothing();
      this.declaration(body);
      if (body.items.length > 0)
        this.unsupported('a value at the declaration', place, 'assign it in a statement');
      own.push(...body.declarations);
    }
    const statements = [];
    while (!this.is(`end${word}`)) {
      if (this.token.kind === 'end') this.fail(`“end${word}”`);
      statements.push(this.statement());
    }
    this.pass();
    // `input [3:0] a; reg [3:0] a;` declare one argument.
    const list = own.filter((d) => d.direction !== null);
    return {
      name,
      result,
      arguments: list,
      declarations: own.filter((d) => d.direction === null && !list.some((a) => a.name === d.name)),
      body: { is: 'block', name, declarations: [], statements, ...place },
      ...place,
    };
  }

  private generated(word: string, place: Place): Item {
    const inBrackets = () => {
      this.expect('(');
      const inside = this.expression();
      this.expect(')');
      return inside;
    };
    if (word === 'begin') return { is: 'generate block', body: this.generatedBody(), ...place };
    this.pass();
    if (word === 'if') {
      const condition = inBrackets();
      const yes = this.generatedBody();
      const no = this.accept('else') ? this.generatedBody() : null;
      return { is: 'generate if', condition, yes, no, ...place };
    }
    if (word === 'for') {
      this.expect('(');
      this.accept('genvar');
      const variable = this.name('the name of a genvar');
      this.expect('=');
      const first = this.expression();
      this.expect(';');
      const condition = this.expression();
      this.expect(';');
      const stepped = this.assignment();
      this.expect(')');
      return {
        is: 'generate for',
        variable,
        first,
        condition,
        step: stepped.value,
        body: this.generatedBody(),
        ...place,
      };
    }
    const chosen = inBrackets();
    const items: { labels: Expression[]; body: Generated }[] = [];
    let otherwise: Generated | null = null;
    while (!this.accept('endcase')) {
      if (this.token.kind === 'end') this.fail('“endcase”');
      if (this.accept('default')) {
        this.accept(':');
        otherwise = this.generatedBody();
        continue;
      }
      const labels = this.list(() => this.expression(), ':');
      this.expect(':');
      items.push({ labels, body: this.generatedBody() });
    }
    return { is: 'generate case', chosen, items, otherwise, ...place };
  }

  private generatedBody(): Generated {
    return this.deeper(() => {
      const made = nothing();
      let name: string | null = null;
      if (this.accept('begin')) {
        if (this.accept(':')) name = this.name('the name of the block');
        while (!this.accept('end')) {
          if (this.token.kind === 'end') this.fail('“end”');
          this.item(made);
        }
      } else this.item(made);
      return { name, ...made };
    });
  }

  private gates(items: Item[]): void {
    const kind = this.token.text;
    this.pass();
    if (this.is('(') && /^(supply|strong|pull|weak|highz)/.test(this.ahead.text))
      this.unsupported('a drive strength', this.ahead, 'leave it out');
    const delay = this.delay();
    do {
      const { line, column } = this.token;
      const name = this.is('(') ? '' : this.name('the name of the gate or “(”');
      if (this.is('[')) this.unsupported('an array of gates', this.token, 'make it with generate for');
      this.expect('(');
      const terminals = this.list(() => this.expression(), ')');
      this.expect(')');
      const least = kind.startsWith('pull') ? 1 : kind.includes('if') ? 3 : 2;
      if (terminals.length < least || ((least === 3 || least === 1) && terminals.length !== least))
        throw new VerilogError(
          `${kind} has ${least}${least === 2 ? ' or more' : ''} terminals, not ${terminals.length}`,
          { line, column },
        );
      items.push({ is: 'gate', kind, name, delay, terminals, line, column });
    } while (this.accept(','));
    this.expect(';');
  }

  private instances(items: Item[]): void {
    const place = this.place();
    const module = this.name();
    const parameters = this.accept('#') ? this.parameters() : [];
    do {
      const name = this.name('the name of the instance');
      if (this.is('[')) this.unsupported('an array of instances', this.token, 'make it with generate for');
      this.expect('(');
      const connections = this.connections();
      this.expect(')');
      items.push({ is: 'instance', module, name, parameters, connections, ...place });
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
      const place = this.place();
      if (this.accept('.')) {
        const port = this.name('the name of a port');
        this.expect('(');
        const to = this.is(')') ? null : this.expression();
        this.expect(')');
        list.push({ port, to, ...place });
      } else list.push({ port: null, to: this.is(',') || this.is(')') ? null : this.expression(), ...place });
    } while (this.accept(','));
    return list;
  }
}

const DECLARED = new Set(
  'input output inout wire tri reg integer time real realtime event genvar supply0 supply1 wand wor triand trior trireg tri0 tri1'.split(
    ' ',
  ),
);
const isDeclared = (word: string): boolean => DECLARED.has(word);

/** What to write in place of words that are not read. */
const INSTEAD: Readonly<Record<string, string>> = {
  nmos: 'bufif1',
  pmos: 'bufif0',
  cmos: 'bufif1',
  tran: 'a wire',
  defparam: 'give the parameter at the instance with #(.NAME(value))',
  specify: 'give delays at gates and assigns with #',
};

/** A value at power-up, as an initial block. */
const begun = (target: Expression, value: Expression, place: Place): Item => ({
  is: 'initial',
  body: { is: 'assign', target, value, delay: null, blocking: true, ...place },
  ...place,
});
