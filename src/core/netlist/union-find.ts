/** Disjoint sets over 0 ... size - 1 with path halving and union by size (Tarjan and van Leeuwen, 1984). */
export class UnionFind {
  private readonly parent: Int32Array;
  private readonly size: Int32Array;

  constructor(size: number) {
    this.parent = new Int32Array(size);
    for (let i = 0; i < size; i++) this.parent[i] = i;
    this.size = new Int32Array(size).fill(1);
  }

  find(a: number): number {
    const { parent } = this;
    let at = a;
    while (parent[at] !== at) {
      parent[at] = parent[parent[at]!]!;
      at = parent[at]!;
    }
    return at;
  }

  union(a: number, b: number): void {
    let p = this.find(a);
    let q = this.find(b);
    if (p === q) return;
    if (this.size[p]! < this.size[q]!) [p, q] = [q, p];
    this.parent[q] = p;
    this.size[p] = this.size[p]! + this.size[q]!;
  }
}
