'use client';

import { Tooltip } from 'radix-ui';

export interface ShownHint {
  readonly text: string;
  /** The element, in pixels of the window. */
  readonly box: DOMRect;
}

/**
 * A tooltip beside an element, in a landmark of its own: there is none at the end of the page, where it lies above all
 * else.
 */
export function HintTip({ text, box }: ShownHint) {
  return (
    <Tooltip.Provider>
      <Tooltip.Root open>
        <Tooltip.Trigger asChild>
          <span
            aria-hidden="true"
            className="pointer-events-none fixed"
            style={{ left: box.left, top: box.top, width: box.width, height: box.height }}
          />
        </Tooltip.Trigger>
        <section aria-label="Hint">
          <Tooltip.Content
            side="bottom"
            sideOffset={6}
            collisionPadding={8}
            className="pointer-events-none z-[70] max-w-72 rounded-lg bg-ink px-2 py-1 text-sm text-paper shadow-lg"
          >
            {text}
          </Tooltip.Content>
        </section>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
