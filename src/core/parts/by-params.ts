import type { Params, Part } from '../circuit/sheet';

/**
 * Caches the result of a function that depends only on a part's kind and parameters: moving or labelling a part changes
 * neither.
 */
export function byParams<T>(find: (part: Part) => T): (part: Part) => T {
  const known = new WeakMap<Params, { readonly kind: string; readonly found: T }>();
  return (part) => {
    const was = known.get(part.params);
    if (was?.kind === part.kind) return was.found;
    const found = find(part);
    known.set(part.params, { kind: part.kind, found });
    return found;
  };
}
