import fc from 'fast-check';

/** The ingredients of a mutated file: its own text, cut, doubled, swapped and with strange words put in. */
export function mutated(text: string, words: readonly string[]): fc.Arbitrary<string> {
  const at = fc.nat({ max: Math.max(0, text.length - 1) });
  const change = fc.record({
    at,
    length: fc.nat({ max: 40 }),
    to: at,
    kind: fc.constantFrom('cut', 'put', 'double', 'swap', 'letter'),
    word: fc.oneof(fc.constantFrom(...words), fc.string({ maxLength: 6 })),
  });
  return fc.array(change, { minLength: 1, maxLength: 6 }).map((changes) =>
    changes.reduce((now, { at: from, length, to, kind, word }) => {
      const i = from % Math.max(1, now.length);
      const piece = now.slice(i, i + length);
      switch (kind) {
        case 'cut':
          return now.slice(0, i) + now.slice(i + length);
        case 'put':
          return now.slice(0, i) + word + now.slice(i);
        case 'double':
          return now.slice(0, to) + piece.repeat(1 + (length % 5)) + now.slice(to);
        case 'swap':
          return now.slice(0, i) + now.slice(to, to + length) + now.slice(i + length);
        default:
          return now.slice(0, i) + (word[0] ?? '?') + now.slice(i + 1);
      }
    }, text),
  );
}
