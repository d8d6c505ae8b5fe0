const collator = new Intl.Collator('en', { numeric: true });

/** Orders names as people count them: `A2` before `A10`. */
export function naturalOrder(a: string, b: string): number {
  return collator.compare(a, b);
}
