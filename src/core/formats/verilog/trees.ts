import { type Bit, C0, C1, CX } from './cells';
import type { Gates } from './gates';

/*
 * What statements make of signals, before parts are made of it: a value, nothing (it keeps what it has), or a choice between such.
 */

/** A signal that was not assigned. */
export const KEPT = 'kept';

/** Where branches of statements meet again: the bits that choose between them, the lowest first. */
export interface Meeting {
  readonly select: readonly Bit[];
}

/** What a bit becomes: itself a bit, `KEPT`, or one of 2^n of these. */
export type Tree = Bit | typeof KEPT | Choice;
interface Choice {
  readonly at: Meeting;
  readonly branches: readonly Tree[];
}

export function chosen(at: Meeting, branches: readonly Tree[]): Tree {
  const [first] = branches;
  return branches.every((branch) => branch === first) ? first! : { at, branches };
}

/** Makes multiplexers of trees: one for a word where its bits are chosen alike. */
export class Growth {
  private readonly grown = new Map<Choice, Bit>();
  private readonly conditions = new Map<string, Bit>();
  private readonly meetings = new Map<Meeting, number>();

  constructor(private readonly gates: Gates) {}

  /**
   * The bits of trees.
   * @param kept gives the bit that stands for a kept one, by its place; null for any bit.
   */
  bits(trees: readonly Tree[], kept: (place: number) => Bit | null): Bit[] {
    return this.of(
      trees.map((tree, place) => ({ tree, place })),
      kept,
      false,
    ).map((bit) => bit ?? C0);
  }

  /** As `bits`, made once for a signal that is read often. @param self the signal's own bits, used for kept ones. */
  read(trees: readonly Tree[], self: readonly Bit[]): Bit[] {
    return this.of(
      trees.map((tree, place) => ({ tree, place })),
      (place) => self[place]!,
      true,
    ).map((bit) => bit ?? CX);
  }

  private of(
    asked: readonly { readonly tree: Tree; readonly place: number }[],
    kept: (place: number) => Bit | null,
    isRead: boolean,
  ): (Bit | null)[] {
    const made: (Bit | null)[] = Array<Bit | null>(asked.length).fill(null);
    const together = new Map<Meeting, number[]>();
    for (const [i, { tree, place }] of asked.entries()) {
      if (tree === KEPT) made[i] = kept(place);
      else if (typeof tree === 'number') made[i] = tree;
      else if (isRead && this.grown.has(tree)) made[i] = this.grown.get(tree)!;
      else together.set(tree.at, [...(together.get(tree.at) ?? []), i]);
    }
    for (const [at, list] of together) {
      const words = Array.from({ length: 2 ** at.select.length }, (_, branch) =>
        this.of(
          list.map((i) => ({ tree: (asked[i]!.tree as Choice).branches[branch]!, place: asked[i]!.place })),
          kept,
          isRead,
        ),
      );
      const open = list.map((_, n) => words.find((word) => word[n] !== null)?.[n] ?? null);
      const filled = words.map((word) => word.map((bit, n) => bit ?? open[n] ?? C0));
      // Bits that are the same in every branch need no choice.
      const differing = list.flatMap((_, n) =>
        filled.every((word) => word[n] === filled[0]![n]) ? [] : [n],
      );
      const bits = differing.length
        ? at.select.length === 1
          ? this.gates.mux(
              at.select[0]!,
              differing.map((n) => filled[0]![n]!),
              differing.map((n) => filled[1]![n]!),
            ).bits
          : this.gates.choice(
              at.select,
              filled.map((word) => differing.map((n) => word[n]!)),
            ).bits
        : [];
      for (const [n, i] of list.entries()) {
        const of = differing.indexOf(n);
        const bit = of === -1 ? (open[n] === null ? null : filled[0]![n]!) : bits[of]!;
        made[i] = bit;
        if (isRead && bit !== null) this.grown.set(asked[i]!.tree as Choice, bit);
      }
    }
    return made;
  }

  /** The bit that is 1 where a tree gives a value, and does not keep one. */
  isAssigned(tree: Tree): Bit {
    if (tree === KEPT) return C0;
    if (typeof tree === 'number') return C1;
    const { at } = tree;
    const branches = tree.branches.map((branch) => this.isAssigned(branch));
    if (branches.every((bit) => bit === branches[0])) return branches[0]!;
    if (!this.meetings.has(at)) this.meetings.set(at, this.meetings.size);
    const key = `${this.meetings.get(at)}:${branches.join()}`;
    const known = this.conditions.get(key);
    if (known !== undefined) return known;
    const made =
      at.select.length === 1
        ? this.condition(at.select[0]!, branches[0]!, branches[1]!)
        : this.oneOf(at, branches);
    this.conditions.set(key, made);
    return made;
  }

  private condition(select: Bit, no: Bit, yes: Bit): Bit {
    const { gates } = this;
    if (no === C0) return gates.and(select, yes);
    if (yes === C0) return gates.and(gates.not(select), no);
    if (no === C1) return gates.or(gates.not(select), yes);
    if (yes === C1) return gates.or(select, no);
    return gates.mux(select, [no], [yes]).bits[0]!;
  }

  private oneOf({ select }: Meeting, branches: readonly Bit[]): Bit {
    return this.gates.choice(
      select,
      branches.map((bit) => [bit]),
    ).bits[0]!;
  }
}
