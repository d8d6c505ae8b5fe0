'use client';

import { useState } from 'react';
import { type NumberTask, whyUnreadable } from '@/core/exercise/kinds/number';
import { type FoundValue, valuesOf } from '@/core/exercise/kinds/number/from-circuit';
import { QUANTITIES, type Quantity } from '@/core/exercise/kinds/number/quantity';
import { done, refused } from '@/core/values/result';
import { GivenChoice, givenOf } from './GivenChoice';
import { type FormProps, type LaterProps, later, type TaskForm } from './task-form';

interface Draft {
  readonly found: readonly FoundValue[];
  /** The id of a value of the circuit, or nothing where it is typed. */
  readonly from: string;
  readonly quantity: Quantity | 'bits';
  readonly value: string;
  readonly tolerance: string;
  readonly isGiven: boolean;
}

const NAMES: Readonly<Record<Quantity | 'bits', string>> = {
  number: 'a number',
  time: 'a time',
  frequency: 'a frequency',
  bits: 'the bits of a word',
};

/** How far an answer may be off. */
function Tolerance({
  value,
  onValue,
}: {
  readonly value: string;
  readonly onValue: (value: string) => void;
}) {
  return (
    <label className="flex flex-col gap-1">
      <span className="font-semibold">May be off by</span>
      <span className="flex items-center gap-1.5">
        <input
          className="field w-20"
          type="number"
          min={0}
          max={100}
          value={value}
          onChange={(event) => onValue(event.target.value)}
        />
        per cent
      </span>
    </label>
  );
}

function Form({ source, draft, onDraft }: FormProps<Draft>) {
  const { found, from, quantity, value, tolerance, isGiven } = draft;
  const choose = (id: string) => {
    const one = found.find((f) => f.id === id);
    onDraft({ ...draft, from: id, ...(one ? { quantity: one.quantity, value: one.value } : {}) });
  };
  return (
    <>
      <div className="flex flex-wrap gap-4">
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Wanted</span>
          <select className="field" value={from} onChange={(event) => choose(event.target.value)}>
            {found.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}, of this sheet
              </option>
            ))}
            <option value="">a value that you type</option>
          </select>
        </label>
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Is</span>
          <select
            className="field"
            value={quantity}
            disabled={from !== ''}
            onChange={(event) => onDraft({ ...draft, quantity: event.target.value as Quantity | 'bits' })}
          >
            {[...QUANTITIES, 'bits' as const].map((one) => (
              <option key={one} value={one}>
                {NAMES[one]}
              </option>
            ))}
          </select>
        </label>
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Value</span>
          <input
            className="field w-36 font-mono"
            value={value}
            maxLength={60}
            readOnly={from !== ''}
            onChange={(event) => onDraft({ ...draft, value: event.target.value })}
          />
        </label>
        {quantity !== 'bits' && (
          <Tolerance value={tolerance} onValue={(text) => onDraft({ ...draft, tolerance: text })} />
        )}
      </div>
      <GivenChoice
        source={source}
        isGiven={isGiven}
        onGiven={(given) => onDraft({ ...draft, isGiven: given })}
      />
    </>
  );
}

/** The wanted value of a task and how far an answer may be off; a value that cannot be read is told and not taken. */
function ValueLater({ task: { asked, key }, onTask }: LaterProps<NumberTask>) {
  const [typed, setTyped] = useState(key.value);
  const [shown, setShown] = useState(key.value);
  // What undo brings back is shown.
  if (key.value !== shown) {
    setShown(key.value);
    setTyped(key.value);
  }
  const why = whyUnreadable(asked, typed);
  return (
    <div className="flex flex-wrap gap-4">
      <label className="flex flex-col gap-1">
        <span className="font-semibold">Value</span>
        <input
          className="field w-36 font-mono"
          value={typed}
          maxLength={60}
          onChange={(event) => {
            const value = event.target.value;
            setTyped(value);
            if (whyUnreadable(asked, value)) return;
            setShown(value.trim());
            onTask({ key: { ...key, value: value.trim() } });
          }}
        />
        {why && (
          <span role="alert" className="text-sm text-bad">
            {why}
          </span>
        )}
      </label>
      {asked.bits === null && (
        <Tolerance
          value={String(key.tolerance * 100)}
          onValue={(text) =>
            onTask({ key: { ...key, tolerance: Math.min(1, Math.max(0, Number(text) / 100 || 0)) } })
          }
        />
      )}
    </div>
  );
}

export const numberForm: TaskForm<Draft> = {
  kind: 'number',
  begin({ sheet, sheets }) {
    const found = valuesOf(sheet, sheets);
    const first =
      found.find(({ id }) => id === 'period') ?? found.find(({ id }) => id === 'delay') ?? found[0];
    return {
      found,
      from: first?.id ?? '',
      quantity: first?.quantity ?? 'number',
      value: first?.value ?? '',
      tolerance: '1',
      isGiven: sheet.parts.size > 0,
    };
  },
  Form,
  Later: later<NumberTask>(ValueLater),
  finish(source, { quantity, value, tolerance, isGiven }) {
    const asked =
      quantity === 'bits'
        ? { quantity: 'number' as const, bits: Math.max(1, value.replaceAll(/[\s_]/g, '').length) }
        : { quantity, bits: null };
    const why = whyUnreadable(asked, value);
    if (why) return refused('bad-value', `the value cannot be used: ${why.replace(/\.$/, '')}`);
    const share = quantity === 'number' && Number.isInteger(Number(value)) ? 0 : Number(tolerance) / 100;
    return done({
      given: givenOf(source, isGiven),
      asked,
      key: { value: value.trim(), tolerance: Number.isFinite(share) ? share : 0 },
    });
  },
};
