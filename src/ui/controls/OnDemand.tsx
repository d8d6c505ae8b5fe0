'use client';

import { type ComponentType, lazy, type ReactNode, Suspense, useMemo, useState } from 'react';
import { HoldKeys } from './HoldKeys';

interface Props<P extends object> {
  readonly className: string;
  readonly children: ReactNode;
  readonly popup: 'menu' | 'dialog';
  /** Fetches the content; it shows the same button itself and is open when it appears. */
  readonly load: () => Promise<ComponentType<P>>;
  readonly props: P;
}

/** A button whose menu is fetched when it is first reached for, outside a page's first load. */
export function OnDemand<P extends object>({ className, children, popup, load, props }: Props<P>) {
  const [asked, setAsked] = useState(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is fetched never changes
  const Opened = useMemo(() => lazy(() => load().then((component) => ({ default: component }))), []);
  const button = (
    <button
      type="button"
      className={className}
      aria-haspopup={popup}
      aria-expanded="false"
      onPointerEnter={() => void load()}
      onFocus={() => void load()}
      onClick={() => setAsked(true)}
    >
      {children}
    </button>
  );
  if (!asked) return button;
  return (
    <Suspense
      fallback={
        <>
          {button}
          <HoldKeys onLeave={() => setAsked(false)} />
        </>
      }
    >
      <Opened {...props} />
    </Suspense>
  );
}
