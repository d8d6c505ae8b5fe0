import { type ComponentType, lazy, type ReactNode, Suspense } from 'react';
import { fetcher } from '@/loading/load';

/**
 * A component that is fetched when it is first shown.
 * @param what as it follows “could not fetch”: `the truth table`.
 * @param meanwhile what is shown until then; `HoldKeys` where the component will take the keyboard.
 */
export function lazyComponent<Props extends object>(
  what: string,
  fetchIt: () => Promise<ComponentType<Props>>,
  meanwhile: ReactNode | ((props: Props) => ReactNode) = null,
): ComponentType<Props> {
  const fetched = fetcher(what, fetchIt);
  const Fetched = lazy(() =>
    fetched().then((component) => ({ default: component as ComponentType<object> })),
  );
  // biome-ignore lint/correctness/noComponentHookFactories: called once for each, where a module begins
  return function LazyComponent(props: Props) {
    return (
      <Suspense fallback={typeof meanwhile === 'function' ? meanwhile(props) : meanwhile}>
        <Fetched {...props} />
      </Suspense>
    );
  };
}
