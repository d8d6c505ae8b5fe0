'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { repeatSelected } from '@/session/changes/clipboard';
import type { Session } from '@/session/session';
import { type Action, type ActionSurroundings, actionsFor } from './actions';

interface Props extends Omit<ActionSurroundings, 'openRepeat'> {
  readonly x: number;
  readonly y: number;
  /** Most pixels that it may be high. */
  readonly room: number;
  readonly session: Session;
  readonly onClose: () => void;
}

/** What can be done with what is selected, in a list at the pointer. */
export function ActionMenu({ x, y, room, session, onClose, ...around }: Props) {
  const [repeating, setRepeating] = useState(false);
  const root = useRef<HTMLDivElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list is that of the moment at which it opened
  const groups = useMemo(
    () => actionsFor(session, { ...around, openRepeat: () => setRepeating(true) }),
    [session],
  );
  useEffect(() => {
    root.current?.querySelector<HTMLElement>('[role="menuitem"], input')?.focus();
  }, []);
  const run = (action: Action) => {
    if (action.name !== 'Repeat …') onClose();
    action.run();
  };
  const go = (by: number) => {
    const items = [...(root.current?.querySelectorAll<HTMLElement>('[role="menuitem"]') ?? [])];
    const at = items.indexOf(document.activeElement as HTMLElement);
    items[(at + by + items.length) % items.length]?.focus();
  };
  return (
    <div
      ref={root}
      role={repeating ? 'dialog' : 'menu'}
      aria-label={repeating ? 'Repeat' : 'What can be done'}
      className="absolute z-30 w-64 overflow-y-auto rounded-xl border border-hairline bg-raised p-1.5 shadow-lg"
      style={{ left: x, top: y, maxHeight: room }}
      onPointerDown={(event) => event.stopPropagation()}
      onContextMenu={(event) => event.preventDefault()}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) onClose();
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') onClose();
        else if (repeating) return;
        else if (event.key === 'ArrowDown' || event.key === 'ArrowRight') go(1);
        else if (event.key === 'ArrowUp' || event.key === 'ArrowLeft') go(-1);
        else return;
        event.preventDefault();
      }}
    >
      {repeating ? (
        <Repeat session={session} onClose={onClose} />
      ) : (
        groups.map(({ title, actions, small }) => (
          <fieldset
            key={title}
            className="mb-1 border-b border-hairline pb-1 last:mb-0 last:border-0 last:pb-0"
          >
            <legend className="px-2 pt-0.5 text-xs text-quiet">{title}</legend>
            <div className={small ? 'flex flex-wrap gap-1 px-1.5 py-0.5' : ''}>
              {actions.map((action) =>
                title === 'Mark with a colour' ? (
                  <button
                    key={action.name}
                    type="button"
                    role="menuitem"
                    tabIndex={-1}
                    aria-label={action.name === 'none' ? 'No colour' : action.name}
                    title={action.name === 'none' ? 'No colour' : action.name}
                    className="size-6 cursor-pointer rounded-full border border-hairline text-xs"
                    style={{ background: action.name === 'none' ? undefined : `var(--wire-${action.name})` }}
                    onClick={() => run(action)}
                  >
                    {action.name === 'none' ? '×' : ''}
                  </button>
                ) : (
                  <button
                    key={action.name}
                    type="button"
                    role="menuitem"
                    tabIndex={-1}
                    title={small && action.key ? action.key : undefined}
                    className={
                      small
                        ? 'cursor-pointer rounded-md border border-hairline px-1.5 py-0.5 text-xs hover:bg-accent-soft focus:bg-accent-soft'
                        : 'flex w-full cursor-pointer items-center rounded-lg px-2 py-1 text-left text-sm hover:bg-accent-soft focus:bg-accent-soft'
                    }
                    onClick={() => run(action)}
                  >
                    {action.name}
                    {!small && action.key && (
                      <span className="ml-auto pl-3 text-xs text-quiet">{action.key}</span>
                    )}
                  </button>
                ),
              )}
            </div>
          </fieldset>
        ))
      )}
    </div>
  );
}

/** How often and how far: copies of what is selected, their labels counted on. */
function Repeat({ session, onClose }: { session: Session; onClose: () => void }) {
  const [times, setTimes] = useState('3');
  const [across, setAcross] = useState('0');
  const [down, setDown] = useState('5');
  const first = useRef<HTMLInputElement>(null);
  useEffect(() => first.current?.select(), []);
  const [n, x, y] = [Number(times), Number(across), Number(down)];
  const whole = (v: number, least: number, most: number) => Number.isInteger(v) && v >= least && v <= most;
  const problem = !whole(n, 1, 200)
    ? 'Copies: a whole number from 1 to 200.'
    : !whole(x, -200, 200) || !whole(y, -200, 200)
      ? 'Steps: whole numbers from −200 to 200.'
      : x === 0 && y === 0
        ? 'One of the steps must not be 0, or the copies lie on the original.'
        : '';
  const field = (label: string, value: string, set: (v: string) => void, ref?: typeof first) => (
    <label className="flex items-center gap-2 text-sm">
      <span className="w-28 shrink-0">{label}</span>
      <input ref={ref} className="field" value={value} onChange={(event) => set(event.target.value)} />
    </label>
  );
  return (
    <form
      className="flex flex-col gap-2 p-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        if (problem) return;
        onClose();
        repeatSelected(session, n, { x, y });
      }}
    >
      <p className="text-sm font-semibold">Repeat what is selected</p>
      {field('Copies', times, setTimes, first)}
      {field('Steps to the right', across, setAcross)}
      {field('Steps down', down, setDown)}
      <p className={`text-xs ${problem ? 'text-bad' : 'text-quiet'}`} role="status">
        {problem || 'Labels are counted on: A0 becomes A1, A2 …'}
      </p>
      <button type="submit" className="button main small" disabled={problem !== ''}>
        Repeat
      </button>
    </form>
  );
}
