import fc from 'fast-check';
import { textHash } from './text-hash';

test('equal texts have equal hashes, and others hardly ever', () => {
  const seen = new Map<string, string>();
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', maxLength: 40 }), (text) => {
      const hash = textHash(text);
      expect(hash).toMatch(/^[0-9a-z]{1,11}$/);
      expect(textHash(text)).toBe(hash);
      expect(seen.get(hash) ?? text).toBe(text);
      seen.set(hash, text);
    }),
    { numRuns: 3000 },
  );
});

test('neighbours are far apart', () => {
  const hashes = new Set(Array.from({ length: 20_000 }, (_, i) => textHash(`row ${i}`)));
  expect(hashes.size).toBe(20_000);
  expect(new Set([...hashes].map((hash) => hash.at(-1))).size).toBe(36);
});
