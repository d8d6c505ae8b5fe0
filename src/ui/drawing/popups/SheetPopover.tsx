'use client';

import { Popover } from 'radix-ui';
import { type KeyboardEvent, type ReactNode, useState } from 'react';

/** A box of the drawing in pixels from its upper left corner; a point has no width and no height. */
export interface PixelBox {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** What a popup stands beside, and how it closes. */
export interface PopoverPlace {
  readonly place: PixelBox;
  readonly onClose: () => void;
}

export const pointBox = ({ x, y }: { readonly x: number; readonly y: number }): PixelBox => ({
  left: x,
  top: y,
  width: 0,
  height: 0,
});

/** Pixels that are kept between it and the edge of the drawing. */
const MARGIN = 4;
/** Pixels below which it rather stands elsewhere than that it is lower. */
const LEAST_HEIGHT = 150;
/** A padding that lets nothing below count as in the way. */
const FAR_BELOW = -2000;

interface Props extends PopoverPlace {
  readonly label: string;
  /** Whether it stays below the box where there is some room there, and is lower instead. */
  readonly staysBelow?: boolean;
  /** Where it stands if there is room: below the box, off the pins of a part, or to the right of it. */
  readonly side?: 'right' | 'bottom';
  /** Pixels between it and the box. */
  readonly gap?: number;
  /** Pixels by which it is shifted along the side of the box. */
  readonly along?: number;
  readonly className: string;
  /** Gives the focus to a field; without it the first control gets it. */
  readonly onOpen?: (content: HTMLElement) => void;
  readonly onKeyDown?: (event: KeyboardEvent) => void;
  /** Escape, where it is to do something else than to close. */
  readonly onEscape?: () => void;
  readonly children: ReactNode;
}

/**
 * A popup over the sheet, kept inside the drawing. It takes the focus, and closes with Escape, with a press elsewhere, or
 * when the focus leaves it.
 */
export function SheetPopover({
  place,
  onClose,
  label,
  side = 'bottom',
  gap = 10,
  along = 0,
  staysBelow = false,
  className,
  onOpen,
  onKeyDown,
  onEscape,
  children,
}: Props) {
  const [drawing, setDrawing] = useState<Element | null>(null);
  const height = staysBelow && drawing ? drawing.clientHeight - place.top - place.height - gap - MARGIN : 0;
  const isLowered = height > LEAST_HEIGHT;
  return (
    <Popover.Root open onOpenChange={(isOpen) => !isOpen && onClose()}>
      <Popover.Anchor asChild>
        <span
          ref={(anchor) => setDrawing(anchor?.closest('[role="application"]') ?? null)}
          aria-hidden="true"
          className="pointer-events-none absolute"
          style={{ ...place }}
        />
      </Popover.Anchor>
      <Popover.Content
        aria-label={label}
        side={side}
        align="start"
        sideOffset={gap}
        alignOffset={along}
        collisionPadding={
          isLowered ? { top: MARGIN, right: MARGIN, bottom: FAR_BELOW, left: MARGIN } : MARGIN
        }
        {...(drawing && { collisionBoundary: drawing })}
        className={`z-30 rounded-xl border border-hairline bg-raised shadow-lg outline-none ${className}`}
        style={{ maxHeight: isLowered ? height : 'var(--radix-popover-content-available-height)' }}
        onOpenAutoFocus={(event) => {
          if (!onOpen) return;
          event.preventDefault();
          onOpen(event.currentTarget as HTMLElement);
        }}
        {...(onEscape && {
          onEscapeKeyDown: (event: Event) => {
            event.preventDefault();
            onEscape();
          },
        })}
        onCloseAutoFocus={(event) => event.preventDefault()}
        onPointerDown={(event) => event.stopPropagation()}
        onDoubleClick={(event) => event.stopPropagation()}
        onKeyDown={(event) => {
          event.stopPropagation();
          onKeyDown?.(event);
        }}
      >
        {children}
      </Popover.Content>
    </Popover.Root>
  );
}
