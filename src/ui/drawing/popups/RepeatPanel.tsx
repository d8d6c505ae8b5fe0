'use client';

import { useState } from 'react';
import { repeatSelected } from '@/session/changes/clipboard';
import { told } from '@/session/told';
import { useSession } from '@/ui/session/session-context';
import { Panel } from './Panel';
import type { PopoverPlace } from './SheetPopover';

const MOST_COPIES = 200;
const MOST_STEPS = 200;

const isWhole = (value: number, least: number, most: number) =>
  Number.isInteger(value) && value >= least && value <= most;

/** The error in the values; empty if there is none. */
function problemWith(copies: number, across: number, down: number): string {
  if (!isWhole(copies, 1, MOST_COPIES)) return `Copies: a whole number from 1 to ${MOST_COPIES}.`;
  if (!isWhole(across, -MOST_STEPS, MOST_STEPS) || !isWhole(down, -MOST_STEPS, MOST_STEPS))
    return `Steps: whole numbers from −${MOST_STEPS} to ${MOST_STEPS}.`;
  if (across === 0 && down === 0) return 'One of the steps must not be 0, or the copies lie on the original.';
  return '';
}

/** Repeats the selection: so many copies, each so far from the last, their labels counted on. */
export function RepeatPanel({ place, onClose }: PopoverPlace) {
  const session = useSession();
  const [copies, setCopies] = useState('3');
  const [across, setAcross] = useState('0');
  const [down, setDown] = useState('5');
  const problem = problemWith(Number(copies), Number(across), Number(down));
  const field = (label: string, value: string, set: (v: string) => void) => (
    <label className="flex items-center gap-2 text-sm">
      <span className="w-28 shrink-0">{label}</span>
      <input className="field" value={value} onChange={(event) => set(event.target.value)} />
    </label>
  );
  return (
    <Panel label="Repeat" width="w-64" place={place} onClose={onClose}>
      <form
        className="flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (problem) return;
          onClose();
          told(repeatSelected(session, Number(copies), { x: Number(across), y: Number(down) }));
        }}
      >
        <p className="text-sm font-semibold">Repeat what is selected</p>
        {field('Copies', copies, setCopies)}
        {field('Steps to the right', across, setAcross)}
        {field('Steps down', down, setDown)}
        <p className={`text-xs ${problem ? 'text-bad' : 'text-quiet'}`} role="status">
          {problem || 'Labels are counted on: A0 becomes A1, A2 …'}
        </p>
        <button type="submit" className="button main small" disabled={problem !== ''}>
          Repeat
        </button>
      </form>
    </Panel>
  );
}
