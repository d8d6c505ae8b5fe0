import type { Expression } from '../syntax';
import { isKnown, numberIn, type Word } from '../word';
import { displayed, isText, type Shown } from './display';
import { evaluate, type Surroundings } from './evaluate';
import type { Scope } from './place';

const MOST_LINES = 10_000;

/** A line that was printed, and when, in ps. */
export interface Printed {
  readonly time: number;
  readonly text: string;
}

type Given = readonly (Expression | null)[];

/** What `$display` and its kin print (IEEE Std 1364-2005, 17.1 and 17.3). */
export class Printer {
  readonly printed: Printed[] = [];
  private line = '';
  private times: { ps: number; digits: number; suffix: string; width: number };
  private monitor: { given: Given; scope: Scope; usual: Base; last: string } | null = null;

  /** @param precision ps to which times are told. */
  constructor(
    private readonly around: Surroundings,
    precision: number,
  ) {
    this.times = { ps: precision, digits: 0, suffix: '', width: 20 };
  }

  /** What was written without an end of line. */
  get rest(): string {
    return this.line;
  }

  /** Prints a list of texts and values. @param usual how a value is written that no text asks for. */
  print(given: Given, scope: Scope, usual: Base, ends: boolean): void {
    this.write(this.lineOf(given, scope, usual), ends);
  }

  /** Prints a list again whenever one of its values has changed. */
  watch(given: Given, scope: Scope, usual: Base): void {
    this.monitor = { given, scope, usual, last: '' };
  }

  /** `$timeformat`. */
  timeFormat(given: Given, scope: Scope): void {
    const number = (i: number) => (given[i] ? Number(numberIn(evaluate(given[i], scope, this.around))) : 0);
    const suffix = given[2];
    this.times = {
      ps: 10 ** (number(0) + 12),
      digits: number(1),
      suffix: suffix?.is === 'text' ? suffix.text : '',
      width: number(3),
    };
  }

  /** Prints what is watched, at the end of an instant. */
  atEnd(): void {
    const { monitor } = this;
    if (!monitor) return;
    const { given, scope, usual } = monitor;
    // The time alone is no change.
    const timeless = this.lineOf(
      given.map((e) => (e?.is === 'call' ? null : e)),
      scope,
      'd',
    );
    if (monitor.last === timeless) return;
    monitor.last = timeless;
    this.print(given, scope, usual, true);
  }

  private lineOf(given: Given, scope: Scope, usual: Base): string {
    const list = given.map((e): Shown => {
      if (!e) return { is: 'blank' };
      return isText(e) ? { is: 'text', text: e.text } : { is: 'word', word: evaluate(e, scope, this.around) };
    });
    return displayed(list, usual, scope.path, (word) => this.timeText(word, scope));
  }

  /** How `%t` writes a time of a module's unit: in the smallest precision of all, unless `$timeformat` says otherwise (17.3.2). */
  private timeText(word: Word, { module }: Scope): { text: string; width: number } {
    if (!isKnown(word)) return { text: 'x', width: 20 };
    const { ps, digits, suffix, width } = this.times;
    const value = (Number(numberIn(word)) * module.unit) / ps;
    return { text: value.toFixed(digits) + suffix, width };
  }

  private write(text: string, ends: boolean): void {
    const lines = (this.line + text + (ends ? '\n' : '')).split('\n');
    this.line = lines.pop()!;
    for (const line of lines)
      if (this.printed.length < MOST_LINES) this.printed.push({ time: this.around.now, text: line });
  }
}

export type Base = 'd' | 'b' | 'h' | 'o';
