/** Findings about several bits of one number that are alike, told as one. */
export interface SameBits<T> {
  /** The bits: `Count[3:0]`, `Count[3, 0]`, `Q0 to Q3`, `Q0, Q2`, or as the one finding has it. */
  readonly name: string;
  /** The findings, in their order; at least one. */
  readonly all: readonly T[];
}

interface Group<T> {
  readonly stem: string;
  readonly isBus: boolean;
  readonly bits: number[];
  readonly all: T[];
}

/**
 * Makes one of findings that say the same of bits of one number; each stands where its first one stood.
 * @param nameOf the name with its bit behind it: `Count[3]` of a part that keeps several, `Q3` of one part in a row of them.
 * @param says everything else that a finding says.
 */
export function sameBits<T>(
  findings: readonly T[],
  nameOf: (finding: T) => string,
  says: (finding: T) => string,
): SameBits<T>[] {
  const groups = new Map<string, Group<T>>();
  for (const finding of findings) {
    const name = nameOf(finding);
    const [, stem = name, bracket, bit] = /^(.*?)(\[?)(\d+)\]?$/.exec(name) ?? [];
    const key = `${stem} ${bracket} ${says(finding)}`;
    const group: Group<T> = groups.get(key) ?? { stem, isBus: bracket === '[', bits: [], all: [] };
    groups.set(key, group);
    if (bit !== undefined) group.bits.push(Number(bit));
    group.all.push(finding);
  }
  return [...groups.values()].map((group) => ({ name: bitsText(group), all: group.all }));
}

function bitsText({ stem, isBus, bits }: Group<unknown>): string {
  const up = [...bits].sort((a, b) => a - b);
  const [first, last] = [up[0], up.at(-1)];
  const isRun = up.length > 1 && last! - first! === up.length - 1;
  if (isBus) return `${stem}[${isRun ? `${last}:${first}` : up.reverse().join(', ')}]`;
  if (up.length === 0) return stem;
  return up.length > 2 && isRun ? `${stem}${first} to ${stem}${last}` : up.map((n) => stem + n).join(', ');
}
