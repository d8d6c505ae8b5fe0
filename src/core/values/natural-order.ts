/** Created on demand, which takes 25 to 40 ms: most starts never meet a name that needs it. */
let collator: Intl.Collator | null = null;

/** Orders names as people count them: `A2` before `A10`. */
export function naturalOrder(a: string, b: string): number {
  const plain = plainOrder(a, b);
  if (plain !== null) return plain;
  collator ??= new Intl.Collator('en', { numeric: true });
  return collator.compare(a, b);
}

const DIGIT = 2;
/** By ASCII code: `_`, digits, letters without their case, in this order; 0 is not plain. */
const WEIGHTS = Uint8Array.from({ length: 128 }, (_, code) => {
  const c = String.fromCharCode(code);
  if (c === '_') return 1;
  if (/\d/.test(c)) return DIGIT;
  return /[a-z]/i.test(c) ? c.toLowerCase().charCodeAt(0) : 0;
});
const ZERO = 48;

/** The weight of a character; 0 beyond the end and for characters that are not plain. */
const weightAt = (text: string, at: number): number => {
  const code = at < text.length ? text.charCodeAt(at) : 128;
  return code < 128 ? WEIGHTS[code]! : 0;
};

/** The end of the digits that begin at a place; -1 if they have leading zeros, or the next character is not plain. */
function endOfDigits(text: string, from: number): number {
  let end = from + 1;
  while (weightAt(text, end) === DIGIT) end++;
  const isPlain = end === text.length || weightAt(text, end) !== 0;
  return isPlain && (end === from + 1 || text.charCodeAt(from) !== ZERO) ? end : -1;
}

/** The collator's order (Unicode Technical Standard 10) for names of ASCII letters, digits and `_`; null for other names. */
function plainOrder(a: string, b: string): number | null {
  let byCase = 0;
  let [i, j] = [0, 0];
  while (i < a.length && j < b.length) {
    const [left, right] = [weightAt(a, i), weightAt(b, j)];
    if (left === 0 || right === 0) return null;
    if (left !== right) return left < right ? -1 : 1;
    if (left === DIGIT) {
      const [endA, endB] = [endOfDigits(a, i), endOfDigits(b, j)];
      if (endA === -1 || endB === -1) return null;
      const longer = endA - i - (endB - j);
      if (longer !== 0) return longer < 0 ? -1 : 1;
      for (; i < endA; i++, j++) {
        const more = a.charCodeAt(i) - b.charCodeAt(j);
        if (more !== 0) return more < 0 ? -1 : 1;
      }
      continue;
    }
    // Small letters come first where all else is the same.
    if (byCase === 0) byCase = Math.sign(b.charCodeAt(j) - a.charCodeAt(i));
    i++;
    j++;
  }
  if (i < a.length) return weightAt(a, i) === 0 ? null : 1;
  if (j < b.length) return weightAt(b, j) === 0 ? null : -1;
  return byCase;
}
