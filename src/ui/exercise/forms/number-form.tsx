'use client';

import { whyUnreadable } from '@/core/exercise/kinds/number';
import { type FoundValue, valuesOf } from '@/core/exercise/kinds/number/from-circuit';
import { QUANTITIES, type Quantity } from '@/core/exercise/kinds/number/quantity';
import { done, refused } from '@/core/values/result';
import { GivenChoice, givenOf } from './GivenChoice';
import type { FormProps, TaskForm } from './task-form';

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
          <label className="flex flex-col gap-1">
            <span className="font-semibold">May be off by</span>
            <span className="flex items-center gap-1.5">
              <input
                className="field w-20"
                type="number"
                min={0}
                max={100}
                value={tolerance}
                onChange={(event) => onDraft({ ...draft, tolerance: event.target.value })}
              />
              per cent
            </span>
          </label>
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
