'use client';

import { excerptFor } from '@/core/exercise/begin';
import { partsUsed } from '@/core/exercise/check';
import type { SetUpSource } from '@/core/exercise/expected/expected-kind';
import type { BuildAsked, BuildTask } from '@/core/exercise/kinds/build';
import { findKind, sheetInside } from '@/core/parts/catalogue';
import { done } from '@/core/values/result';
import { BuildAskedFields, GATES } from './BuildAskedFields';
import { ExpectedFields, expectedOf, type Ways, waysFrom } from './ExpectedFields';
import { type FormProps, later, type TaskForm } from './task-form';

interface Draft extends Ways {
  readonly asked: BuildAsked;
  /** The sheet with which the student begins; nothing for an empty one. */
  readonly beginsWith: string;
  /** Whether the circuit of the sheet is given as a block in later tasks. */
  readonly standsIn: boolean;
}

/** The kinds of part on the sheet, without those that can always be placed. */
const used = ({ sheet, sheets }: SetUpSource): ReadonlySet<string> =>
  new Set(partsUsed(sheet, sheets).flatMap(({ kind }) => (findKind(kind)?.alwaysAllowed ? [] : [kind])));

/** What is expected of the circuit, and the parts of which it may be made. */
function Form({ source, draft, onDraft }: FormProps<Draft>) {
  const { asked } = draft;
  return (
    <>
      <ExpectedFields source={source} ways={draft} onWays={(ways) => onDraft({ ...draft, ...ways })} />
      {source.sheets.some(({ parts }) => parts.size > 0) && (
        <label className="flex flex-wrap items-center gap-2">
          <span className="font-semibold">The student begins with</span>
          <select
            className="field"
            value={draft.beginsWith}
            onChange={(event) => onDraft({ ...draft, beginsWith: event.target.value })}
          >
            <option value="">an empty sheet</option>
            {source.sheets
              .filter(({ parts }) => parts.size > 0)
              .map(({ id, name }) => (
                <option key={id} value={id}>
                  {id === source.sheet.id ? `this sheet, “${name}”` : `“${name}”`}
                </option>
              ))}
          </select>
        </label>
      )}
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={draft.standsIn}
          onChange={(event) => onDraft({ ...draft, standsIn: event.target.checked })}
        />
        In later tasks, give this sheet as a block to those who did not solve it
        <span className="text-quiet">it can be read in the file</span>
      </label>
      <BuildAskedFields
        asked={asked}
        own={used(source)}
        onAsked={(next) => onDraft({ ...draft, asked: next })}
      />
    </>
  );
}

export const buildForm: TaskForm<Draft> = {
  kind: 'build',
  begin(source) {
    const { ways, chosen } = waysFrom(source);
    // Where the sheet has a table of its own, its gates are a good beginning.
    const parts = [...(ways[0]!.made.ok ? GATES : used(source))];
    return {
      ways,
      chosen,
      asked: { parts, drawing: 'free', blocks: [], limits: {}, standIn: null },
      beginsWith: '',
      standsIn: false,
    };
  },
  Form,
  Later: later<BuildTask>(({ task, onTask, earlier }) => (
    <BuildAskedFields asked={task.asked} earlier={earlier} onAsked={(asked) => onTask({ asked })} />
  )),
  finish({ sheet, sheets, settings }, { ways, chosen, asked, standsIn, beginsWith }) {
    const expected = expectedOf({ ways, chosen });
    if (!expected.ok) return expected;
    const standIn = standsIn ? excerptFor(sheet, sheets, settings) : null;
    const begun = sheets.find(({ id }) => id === beginsWith);
    const given = begun ? excerptFor(begun, sheets, settings) : null;
    return done({ given, asked: { ...asked, standIn }, key: expected.value });
  },
  fit({ sheet, sheets }, body, earlier) {
    const inside = [...sheet.parts.values()].flatMap((part) => sheetInside(part, sheets)?.name ?? []);
    const blocks = earlier.filter(({ kind, title }) => kind === 'build' && inside.includes(title));
    return { ...body, asked: { ...(body.asked as BuildAsked), blocks: blocks.map(({ id }) => id) } };
  },
};
