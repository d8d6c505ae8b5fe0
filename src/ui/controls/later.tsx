import { type ComponentType, lazy, type ReactNode, Suspense } from 'react';

/** A component that is fetched when it is first shown; until then `meanwhile` stands in its place. */
export function later<Props extends object>(
  load: () => Promise<ComponentType<Props>>,
  meanwhile: ReactNode = null,
): ComponentType<Props> {
  const Fetched = lazy(() => load().then((component) => ({ default: component as ComponentType<object> })));
  // biome-ignore lint/correctness/noComponentHookFactories: called once for each, where a module begins
  return function Later(props: Props) {
    return (
      <Suspense fallback={meanwhile}>
        <Fetched {...props} />
      </Suspense>
    );
  };
}
