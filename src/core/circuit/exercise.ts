/** The expectation of an exercise; `exercise/kinds/` adds the rest of each kind. */
export interface Expected {
  readonly kind: string;
}

/** An exercise as it is handed out: a task in words, the expectation, and the allowed parts. */
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
