'use client';

import type { Expected } from '@/core/circuit/exercise';
import type { Sheet } from '@/core/circuit/sheet';
import { excerptFor } from '@/core/exercise/begin';
import type { SetUpSource } from '@/core/exercise/expected/expected-kind';
import { runOfSheet } from '@/core/exercise/expected/run/expected-run';
import { tableOfSheet } from '@/core/exercise/expected/table/expected-table';
import type { FaultAsked, FaultTask } from '@/core/exercise/kinds/fault';
import {
  FAULT_SORTS,
  type FaultSort,
  faultsOf,
  faultsOn,
  faultWords,
  injected,
  nameOfPlace,
  type Place,
  type PlacedFault,
  type PutFault,
  seenFault,
  WIRE_FAULTS,
} from '@/core/exercise/kinds/fault/inject';
import { drivingOf } from '@/core/simulate/drive';
import { done, mapped, type Result, refusal } from '@/core/values/result';
import { counted } from '@/core/values/wording';
import { NOWHERE, PlaceChoice } from '../PlaceChoice';
import { FormProblem } from './FormProblem';
import { type FormProps, later, type TaskForm } from './task-form';

interface Draft {
  readonly wanted: Result<Expected>;
  readonly sort: FaultSort | 'any';
  /** The part or wire at which it is put in; neither where Manege chooses. */
  readonly at: Place;
  readonly placed: Result<PlacedFault>;
  readonly does: 'find' | 'repair';
  readonly needsRow: boolean;
  readonly isDark: boolean;
}

const SORTS: Readonly<Record<FaultSort | 'any', string>> = {
  any: 'any of these',
  stuck: 'an output stuck at 0 or 1',
  inverted: 'an inverted input',
  open: 'an open input',
  exchanged: 'two exchanged inputs',
  other: 'a gate that works as another kind',
  cut: 'a cut wire',
  tied: 'two wires that touch',
};

const isOfWire = (sort: Draft['sort']): boolean => (WIRE_FAULTS as readonly string[]).includes(sort);

const placeOf = (put: PutFault) =>
  'part' in put ? { part: put.part, wire: null } : { part: null, wire: put.wire };

/** The place of a fault as a sentence begins with it. */
function placeText(sheet: Sheet, put: PutFault): string {
  const name = nameOfPlace(sheet, placeOf(put));
  return name.charAt(0).toUpperCase() + name.slice(1);
}

/** Readings of a circuit with storage. */
const READINGS = 16;

function wantedOf({ sheet, sheets, settings, on }: SetUpSource): Result<Expected> {
  const table = tableOfSheet(sheet, sheets);
  if (table.ok) return table;
  const run = runOfSheet(sheet, { sheets, settings }, drivingOf(sheet.time), on, READINGS);
  return run.ok ? mapped(run, ({ expected }) => expected) : table;
}

/** Puts a fault in by chance, of one sort or any, at one place or any. */
function placed({ sheet, sheets }: SetUpSource, wanted: Result<Expected>, sort: Draft['sort'], at: Place) {
  if (!wanted.ok) return wanted;
  const sorts = new Set(sort === 'any' ? FAULT_SORTS : [sort]);
  return seenFault(sheet, sheets, wanted.value, faultsOn(sheet, sorts, Math.random, at), Math.random);
}

interface FaultFieldsProps {
  readonly asked: FaultAsked;
  readonly onAsked: (asked: FaultAsked) => void;
}

/** Whether the fault is found or repaired, and what is told meanwhile. */
function FaultFields({ asked: { does, needsRow, isDark }, onAsked }: FaultFieldsProps) {
  const asked = { does, needsRow, isDark };
  return (
    <>
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {(['find', 'repair'] as const).map((one) => (
          <label key={one} className="flex items-center gap-1.5">
            <input
              type="radio"
              name="does"
              checked={asked.does === one}
              onChange={() => onAsked({ ...asked, does: one })}
            />
            {one === 'find' ? 'The student finds the place' : 'The student repairs the circuit'}
          </label>
        ))}
        {asked.does === 'find' && (
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={asked.needsRow}
              onChange={(event) => onAsked({ ...asked, needsRow: event.target.checked })}
            />
            and a row that shows it
          </label>
        )}
      </div>
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={asked.isDark}
          onChange={(event) => onAsked({ ...asked, isDark: event.target.checked })}
        />
        Wires tell their signal once they are probed, rows once they are tried; both are counted
      </label>
    </>
  );
}

function Form({ source, draft, onDraft }: FormProps<Draft>) {
  const { wanted, sort, at } = draft;
  if (!wanted.ok) return <FormProblem problem={wanted.problem} />;
  const put = (change: Partial<Pick<Draft, 'sort' | 'at'>>) => {
    const next = { ...draft, ...change };
    // A place that cannot have such a fault is none that was chosen for it.
    const fits = next.sort === 'any' || isOfWire(next.sort) === (next.at.wire !== null);
    const where = 'at' in change || fits ? next.at : NOWHERE;
    const sorted = 'at' in change && !fits && next.at !== NOWHERE ? ('any' as const) : next.sort;
    onDraft({ ...next, at: where, sort: sorted, placed: placed(source, wanted, sorted, where) });
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
        <PlaceChoice
          label="At"
          sheet={source.sheet}
          parts={parts}
          place={at}
          none="any place"
          onPlace={(next) => put({ at: next })}
        />
        <button type="button" className="button" onClick={() => put({})}>
          Another
        </button>
      </div>
      {draft.placed.ok ? (
        <p>
          <b>
            {placeText(source.sheet, draft.placed.value.put)}:{' '}
            {faultWords(draft.placed.value.put.fault, source.sheet)}
          </b>
          ; it shows in{' '}
          {counted(draft.placed.value.tells.length, wanted.value.kind === 'run' ? 'reading' : 'row')}. The
          drawing looks sound.
        </p>
      ) : (
        <FormProblem problem={draft.placed.problem} />
      )}
      <FaultFields asked={draft} onAsked={(next) => onDraft({ ...draft, ...next })} />
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
      at: NOWHERE,
      placed: placed(source, wanted, 'any', NOWHERE),
      does: 'find',
      needsRow: true,
      isDark: true,
    };
  },
  Form,
  Later: later<FaultTask>(({ task, onTask }) => (
    <FaultFields asked={task.asked} onAsked={(asked) => onTask({ asked })} />
  )),
  finish({ sheet, sheets, settings }, { wanted, placed: put, does, needsRow, isDark }) {
    if (!wanted.ok) return refusal(wanted.problem);
    if (!put.ok) return refusal(put.problem);
    const faulty = injected(sheet, put.value.put);
    return done({
      given: excerptFor(faulty, sheets, settings),
      asked: { does, needsRow: does === 'find' && needsRow, isDark },
      key: { ...placeOf(put.value.put), wanted: wanted.value },
    });
  },
};
