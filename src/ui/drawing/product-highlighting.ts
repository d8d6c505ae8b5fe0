import { productsOf } from '@/core/logic/expression/products';
import { reordered, sameCube } from '@/core/logic/minimise/cube';
import type { Session } from '@/session/session';
import type { Highlight } from '@/ui/session/cross-highlight';

const columnsOf = (session: Session) => session.state.netlist.inputColumns.map((c) => c.name);

/** The parts of the sheet that make the product that is pointed at. */
export function partsMaking(session: Session, pointed: Highlight): ReadonlySet<string> {
  const { path, netlist } = session.state;
  const cube = reordered(pointed.cube, pointed.inputs, columnsOf(session));
  if (!cube || path.length > 0) return new Set();
  return new Set(
    productsOf(netlist)
      .filter((p) => sameCube(p.cube, cube) && session.sheet.parts.has(p.part))
      .map((p) => p.part),
  );
}

/** The product that a part makes; null if it makes none. */
export function productOfPart(session: Session, part: string): Highlight | null {
  const { path, netlist } = session.state;
  const product = path.length === 0 && productsOf(netlist).find((p) => p.part === part);
  return product ? { output: null, inputs: columnsOf(session), cube: product.cube } : null;
}
