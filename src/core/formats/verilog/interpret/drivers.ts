import type { Expression, FileDelay, Item } from '../syntax';
import {
  binary,
  bitsAt,
  floatingWord,
  isKnown,
  isSame,
  truthOf,
  unary,
  unknownWord,
  type Word,
  withBits,
  wordOf,
} from '../word';
import { assigned, evaluate, type Surroundings } from './evaluate';
import { fail, type Scope, type Variable } from './place';
import { readsIn } from './reads';
import { piecesOf, psOf, widthOfPieces } from './statements';

/** What drivers ask of the simulation. */
export interface DriverHost extends Surroundings {
  soon(work: () => void): void;
  later(work: () => void, ps: number): void;
  atStart(work: () => void): void;
}

/** What drives wires: continuous assignments and gates (IEEE Std 1364-2005, clauses 6 and 7). */
export class Drivers {
  constructor(private readonly host: DriverHost) {}

  /** A value that drives a target for ever, after a delay where one is given. */
  assign(target: Expression, value: Expression, scope: Scope, delay: FileDelay | null): void {
    const pieces = piecesOf(target, scope, this.host);
    const width = widthOfPieces(pieces);
    this.driven(target, scope, readsIn(value, scope), () => assigned(value, width, scope, this.host), delay);
  }

  /** A continuous driver of a target, with an optional delay. @param on the signals that it depends on. */
  driven(
    target: Expression,
    scope: Scope,
    on: Iterable<Variable>,
    compute: () => Word,
    delay: FileDelay | null,
    to: Scope = scope,
  ): void {
    const pieces = piecesOf(target, to, this.host);
    const width = widthOfPieces(pieces);
    for (const { of } of pieces)
      if (!of.drivers)
        fail(`${of.name} is a variable: assign it in an “always” block, or make it a wire`, target);
    const driver = {};
    let last = floatingWord(width);
    let isNew = true;
    let ticket = 0;
    const apply = (word: Word) => {
      let low = word.width;
      for (const { of, from, width: bits } of pieces) {
        low -= bits;
        if (from === null) continue;
        const own = of.drivers!.get(driver) ?? floatingWord(of.width);
        of.drive(driver, withBits(own, from, bitsAt(word, low, bits)));
      }
    };
    const update = () => {
      const word = compute();
      if (!isNew && isSame(word, last)) return;
      isNew = false;
      last = word;
      if (!delay) {
        apply(word);
        return;
      }
      // An earlier change that has not come yet is swallowed.
      const own = ++ticket;
      const falls = isKnown(word) && word.ones === 0n;
      this.host.later(
        () => own === ticket && apply(word),
        psOf(falls ? delay.fall : delay.rise, scope, this.host),
      );
    };
    let isPlanned = false;
    const plan = () => {
      if (isPlanned) return;
      isPlanned = true;
      this.host.soon(() => {
        isPlanned = false;
        update();
      });
    };
    for (const variable of new Set(on)) variable.watchers.add(plan);
    this.host.atStart(plan);
  }

  gate({ kind, terminals, delay }: Extract<Item, { is: 'gate' }>, scope: Scope): void {
    if (kind === 'pullup' || kind === 'pulldown') {
      const [{ of, from }] = piecesOf(terminals[0]!, scope, this.host) as [
        ReturnType<typeof piecesOf>[number],
      ];
      of.pull = withBits(of.pull ?? floatingWord(of.width), from ?? 0, wordOf(kind === 'pullup' ? 1 : 0, 1));
      of.drive(this, floatingWord(of.width));
      return;
    }
    const bit = (e: Expression) => bitsAt(evaluate(e, scope, this.host), 0, 1);
    const reads = (list: readonly Expression[]) => list.flatMap((e) => [...readsIn(e, scope)]);
    if (kind === 'buf' || kind === 'not') {
      const from = terminals.at(-1)!;
      for (const out of terminals.slice(0, -1))
        this.driven(
          out,
          scope,
          reads([from]),
          () => (kind === 'buf' ? settled(bit(from)) : unary('~', bit(from))),
          delay,
        );
      return;
    }
    const [out, ...inputs] = terminals;
    if (kind.includes('if')) {
      const [data, enable] = inputs as [Expression, Expression];
      this.driven(
        out!,
        scope,
        reads(inputs),
        () => {
          const truth = truthOf(bit(enable));
          if (truth === null) return unknownWord(1);
          if (truth !== kind.endsWith('1')) return floatingWord(1);
          return kind.startsWith('not') ? unary('~', bit(data)) : settled(bit(data));
        },
        delay,
      );
      return;
    }
    const [operator, isInverted] = GATES[kind]!;
    this.driven(
      out!,
      scope,
      reads(inputs),
      () => {
        const word = inputs.map(bit).reduce((a, b) => binary(operator, a, b));
        return isInverted ? unary('~', word) : settled(word);
      },
      delay,
    );
  }
}

const GATES: Readonly<Record<string, readonly [operator: string, isInverted: boolean]>> = {
  and: ['&', false],
  nand: ['&', true],
  or: ['|', false],
  nor: ['|', true],
  xor: ['^', false],
  xnor: ['^', true],
};

/** What a gate gives on: z becomes x. */
const settled = (word: Word): Word => ({ ...word, ones: word.ones | word.unknown });
