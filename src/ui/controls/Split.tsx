import { Fragment, type KeyboardEvent, type PointerEvent, type ReactNode, useRef, useState } from 'react';

export interface Pane {
  readonly key: string;
  readonly node: ReactNode;
  /** Share of the room in per cent while nobody has dragged; panes without one share the rest. */
  readonly share?: number | undefined;
}

/** No pane gets smaller than this share of the room, in per cent. */
const LEAST = 15;
const STEP = 4;

/** Panes beside or below each other, resized by dragging what is between them or by its arrow keys. */
export function Split({ across, panes }: { across: boolean; panes: readonly Pane[] }) {
  const [chosen, setChosen] = useState<Readonly<Record<string, number>>>({});
  const root = useRef<HTMLDivElement>(null);
  const drag = useRef<{ at: number; before: number; after: number; room: number } | null>(null);

  const given = panes.map((p) => chosen[p.key] ?? p.share);
  const left = 100 - given.reduce<number>((sum, s) => sum + (s ?? 0), 0);
  const open = given.filter((s) => s === undefined).length;
  const shares = given.map((s) => s ?? Math.max(LEAST, left / Math.max(1, open)));
  const all = shares.reduce((sum, s) => sum + s, 0);

  const resize = (i: number, before: number, after: number, by: number) => {
    const moved = Math.max(LEAST - before, Math.min(after - LEAST, by));
    const [a, b] = [panes[i]!, panes[i + 1]!];
    setChosen((sizes) => ({
      ...Object.fromEntries(panes.map((p, k) => [p.key, sizes[p.key] ?? (shares[k]! * 100) / all])),
      [a.key]: before + moved,
      [b.key]: after - moved,
    }));
  };
  const share = (i: number) => (shares[i]! * 100) / all;
  const place = (event: PointerEvent) => (across ? event.clientX : event.clientY);

  return (
    <div ref={root} className={`flex min-h-0 min-w-0 flex-1 ${across ? '' : 'flex-col'}`}>
      {panes.map((pane, i) => (
        <Fragment key={pane.key}>
          {i > 0 && (
            <div
              role="separator"
              tabIndex={0}
              aria-label="Resize"
              aria-orientation={across ? 'vertical' : 'horizontal'}
              aria-valuenow={Math.round(share(i - 1))}
              className={`shrink-0 touch-none rounded-full outline-offset-[-2px] hover:bg-hairline active:bg-accent ${
                across ? 'mx-[3px] w-1 cursor-col-resize' : 'my-[3px] h-1 cursor-row-resize'
              }`}
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                const box = root.current!.getBoundingClientRect();
                drag.current = {
                  at: place(event),
                  before: share(i - 1),
                  after: share(i),
                  room: across ? box.width : box.height,
                };
              }}
              onPointerMove={(event) => {
                const from = drag.current;
                if (from)
                  resize(i - 1, from.before, from.after, ((place(event) - from.at) / from.room) * 100);
              }}
              onPointerUp={() => {
                drag.current = null;
              }}
              onKeyDown={(event: KeyboardEvent) => {
                const [less, more] = across ? ['ArrowLeft', 'ArrowRight'] : ['ArrowUp', 'ArrowDown'];
                if (event.key !== less && event.key !== more) return;
                event.preventDefault();
                event.stopPropagation();
                resize(i - 1, share(i - 1), share(i), event.key === more ? STEP : -STEP);
              }}
            />
          )}
          <div className="flex min-h-0 min-w-0 flex-col" style={{ flex: `${share(i)} 1 0px` }}>
            {pane.node}
          </div>
        </Fragment>
      ))}
    </div>
  );
}
