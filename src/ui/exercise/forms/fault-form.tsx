'use client';

import type { Expected } from '@/core/circuit/exercise';
import { excerptFor } from '@/core/exercise/begin';
import type { SetUpSource } from '@/core/exercise/expected/expected-kind';
import { runOfSheet } from '@/core/exercise/expected/run/expected-run';
import { tableOfSheet } from '@/core/exercise/expected/table/expected-table';
import {
  FAULT_SORTS,
  type FaultSort,
  faultsOf,
  faultWords,
  injected,
  nameOfPart,
  type PlacedFault,
  rowsThatTell,
  someFault,
} from '@/core/exercise/kinds/fault/inject';
import { spokenName } from '@/core/parts/catalogue';
import { drivingOf } from '@/core/simulate/drive';
import { done, mapped, type Result, refusal, refused } from '@/core/values/result';
import { counted } from '@/core/values/wording';
import { FormProblem } from './FormProblem';
import type { FormProps, TaskForm } from './task-form';

interface Draft {
  readonly wanted: Result<Expected>;
  readonly sort: FaultSort | 'any';
  /** The part at which it is put in, or nothing where Manege chooses. */
  readonly part: string;
  readonly placed: Result<PlacedFault>;
  readonly does: 'find' | 'repair';
  readonly needsRow: boolean;
}

const SORTS: Readonly<Record<FaultSort | 'any', string>> = {
  any: 'any of these',
  stuck: 'an output stuck at 0 or 1',
  inverted: 'an inverted input',
  open: 'an open input',
  exchanged: 'two exchanged inputs',
  other: 'a gate that works as another kind',
};

/** Readings of a circuit with storage. */
const READINGS = 16;

function wantedOf({ sheet, sheets, settings, on }: SetUpSource): Result<Expected> {
  const table = tableOfSheet(sheet, sheets);
  if (table.ok) return table;
  const run = runOfSheet(sheet, { sheets, settings }, drivingOf(sheet.time), on, READINGS);
  return run.ok ? mapped(run, ({ expected }) => expected) : table;
}

/** Puts a fault in by chance, of one sort or any, at one part or any. */
function placed(source: SetUpSource, wanted: Result<Expected>, sort: Draft['sort'], part: string) {
  if (!wanted.ok) return wanted;
  const sorts = new Set(sort === 'any' ? FAULT_SORTS : [sort]);
  if (!part) return someFault(source.sheet, source.sheets, wanted.value, sorts, Math.random);
  const all = faultsOf(source.sheet.parts.get(part)!).filter(({ is }) => sorts.has(is));
  while (all.length > 0) {
    const [fault] = all.splice(Math.floor(Math.random() * all.length), 1);
    const tells = rowsThatTell(injected(source.sheet, part, fault!), source.sheets, wanted.value);
    if (tells.length > 0) return done({ part, fault: fault!, tells });
  }
  return refused('unseen', 'no such fault at this part could be seen from outside');
}

function Form({ source, draft, onDraft }: FormProps<Draft>) {
  const { wanted, sort, part, does, needsRow } = draft;
  if (!wanted.ok) return <FormProblem problem={wanted.problem} />;
  const put = (change: Partial<Pick<Draft, 'sort' | 'part'>>) => {
    const next = { ...draft, ...change };
    onDraft({ ...next, placed: placed(source, wanted, next.sort, next.part) });
  };
  const parts = [...source.sheet.parts.values()].filter((one) => faultsOf(one).length > 0);
  return (
    <>
      <div className="flex flex-wrap items-end gap-4">
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Fault</span>
          <select
            className="field"
            value={sort}
            onChange={(event) => put({ sort: event.target.value as Draft['sort'] })}
          >
            {(['any', ...FAULT_SORTS] as const).map((one) => (
              <option key={one} value={one}>
                {SORTS[one]}
              </option>
            ))}
          </select>
        </label>
        <label className="flex flex-col gap-1">
          <span className="font-semibold">At</span>
          <select className="field" value={part} onChange={(event) => put({ part: event.target.value })}>
            <option value="">any part</option>
            {parts.map((one) => (
              <option key={one.id} value={one.id}>
                {spokenName(one)}
              </option>
            ))}
          </select>
        </label>
        <button type="button" className="button" onClick={() => put({})}>
          Another
        </button>
      </div>
      {draft.placed.ok ? (
        <p>
          <b>
            {nameOfPart(source.sheet, draft.placed.value.part)}: {faultWords(draft.placed.value.fault)}
          </b>
          ; it shows in{' '}
          {counted(draft.placed.value.tells.length, wanted.value.kind === 'run' ? 'reading' : 'row')}. The
          drawing looks sound.
        </p>
      ) : (
        <FormProblem problem={draft.placed.problem} />
      )}
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {(['find', 'repair'] as const).map((one) => (
          <label key={one} className="flex items-center gap-1.5">
            <input
              type="radio"
              name="does"
              checked={does === one}
              onChange={() => onDraft({ ...draft, does: one })}
            />
            {one === 'find' ? 'The student finds the part' : 'The student repairs the circuit'}
          </label>
        ))}
        {does === 'find' && (
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={needsRow}
              onChange={(event) => onDraft({ ...draft, needsRow: event.target.checked })}
            />
            and a row that shows it
          </label>
        )}
      </div>
    </>
  );
}

export const faultForm: TaskForm<Draft> = {
  kind: 'fault',
  begin(source) {
    const wanted = wantedOf(source);
    return {
      wanted,
      sort: 'any',
      part: '',
      placed: placed(source, wanted, 'any', ''),
      does: 'find',
      needsRow: true,
    };
  },
  Form,
  finish({ sheet, sheets, settings }, { wanted, placed: put, does, needsRow }) {
    if (!wanted.ok) return refusal(wanted.problem);
    if (!put.ok) return refusal(put.problem);
    const { part, fault } = put.value;
    const faulty = injected(sheet, part, fault);
    return done({
      given: excerptFor(faulty, sheets, settings),
      asked: { does, needsRow: does === 'find' && needsRow },
      key: { part, wanted: wanted.value },
    });
  },
};
