/** What is expected of a circuit; `exercise/kinds/` says what each kind holds besides. */
export interface Expected {
  readonly kind: string;
}

/** What the instructor hands out: a task in words, what is expected of the circuit, the parts that may be used. */
export interface Exercise {
  readonly id: string;
  readonly title: string;
  /** Markdown without HTML. */
  readonly task: string;
  readonly expected: Expected;
  /** Kinds of part from the catalogue; switches and lamps can always be used. */
  readonly allowed: readonly string[];
  /** When it was made, as ISO 8601. */
  readonly made: string;
}
