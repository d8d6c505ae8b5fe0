import type { Infer, Schema } from '../values/schema';
import { type BoxLayout, boxBody, boxPorts, boxSymbol } from './box';
import type { ParamSchemas } from './param-schemas';
import type { Drawn, PartEntry, PartKind } from './part-kind';

/**
 * A kind of part: the schema of its parameters, and the rest of the entry, whose methods receive the
 * parameters as the schema infers them.
 */
export function definePart<S extends Schema>(
  params: (of: ParamSchemas) => S,
  entry: PartEntry<Infer<S>> & Drawn<Infer<S>>,
): PartKind {
  return { ...entry, params } as unknown as PartKind;
}

/** As `definePart`, for a kind whose ports, body and symbol all follow from a box with pins at its sides. */
export function defineBox<S extends Schema>(
  params: (of: ParamSchemas) => S,
  { box, ...entry }: PartEntry<Infer<S>> & { readonly box: (params: Infer<S>) => BoxLayout },
): PartKind {
  const drawn: Drawn<Infer<S>> = {
    ports: (of) => boxPorts(box(of)),
    body: (of) => boxBody(box(of)),
    symbol: (of) => boxSymbol(box(of)),
  };
  return { ...entry, ...drawn, params } as unknown as PartKind;
}
