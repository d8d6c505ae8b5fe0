import type { ComponentProps, CSSProperties, ReactNode } from 'react';

interface Props extends Omit<ComponentProps<'div'>, 'role' | 'className' | 'children'> {
  /** The row of headings, which stays in sight. */
  readonly head: ReactNode;
  /** More classes and styles of the row of headings. */
  readonly headClass?: string;
  readonly headStyle?: CSSProperties;
  /** Height of all rows in pixels, rendered or not. */
  readonly height: number;
  /** The rendered rows, each at its place. */
  readonly children: ReactNode;
}

/** A table that scrolls under its headings: the frame that all tables of rows share. */
export function GridFrame({ head, headClass = '', headStyle, height, children, ...grid }: Props) {
  return (
    <div
      role="grid"
      tabIndex={0}
      className="group min-h-0 flex-1 overflow-auto outline-none select-none"
      {...grid}
    >
      <div className="min-w-max">
        <div
          role="row"
          aria-rowindex={1}
          className={`sticky top-0 z-10 border-b-2 border-ink bg-raised text-sm group-focus-visible:border-accent ${headClass}`}
          style={headStyle}
        >
          {head}
        </div>
        <div className="relative" style={{ height }}>
          {children}
        </div>
      </div>
    </div>
  );
}

/** The classes of a row of headings in one line. */
export const ONE_LINE = 'grid items-end py-1.5 font-semibold';
