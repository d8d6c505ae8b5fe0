'use client';

import { Fragment, useEffect, useMemo, useState } from 'react';
import type { Exercise, Expected } from '@/core/circuit/exercise';
import { partsUsed } from '@/core/exercise/check';
import { ExerciseSchema } from '@/core/exercise/exercise-schema';
import { EXERCISE_KINDS } from '@/core/exercise/kinds';
import type { ExerciseKind, SetUp, SetUpSource, SetUpValues } from '@/core/exercise/kinds/exercise-kind';
import { exerciseToFragment, LONGEST_LINK, writeExercise } from '@/core/formats/exercise-file';
import { families, findKind, PLACEABLE } from '@/core/parts/catalogue';
import { type Result, sentence } from '@/core/values/result';
import { copyText } from '@/session/page-clipboard';
import { randomId, storeProblem } from '@/store/database';
import { keepExercise } from '@/store/exercises';
import { fileName, saveFile } from '@/ui/controls/files';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { HANDING_OUT } from '@/ui/session/first-steps';
import { useSession } from '@/ui/session/session-context';
import { ExpectedTable } from './ExpectedTable';
import { TaskText } from './TaskText';

const FAMILIES = families(PLACEABLE.filter((k) => !k.alwaysAllowed));
const GATES = PLACEABLE.filter((k) => k.isGate).map((k) => k.kind);

/** One way to set the exercise up, with the values of its fields. */
interface Draft {
  readonly setUp: SetUp<Expected>;
  readonly kind: ExerciseKind<Expected>;
  readonly values: SetUpValues;
  /** The last result of the fields, or why there is none. */
  readonly made: Result<Expected>;
  /** That, with the cells that were pressed since. */
  readonly expected: Expected | null;
}

/** A draft for each way to set an exercise up, those that are read off the sheet first. */
function begun(source: SetUpSource): readonly Draft[] {
  const drafts = EXERCISE_KINDS.flatMap((kind) => {
    const known = kind as unknown as ExerciseKind<Expected>;
    return known.setUps.map((setUp): Draft => {
      const values = setUp.initial(source);
      const made = setUp.make(source, values, null);
      return { setUp, kind: known, values, made, expected: made.ok ? made.value : null };
    });
  });
  const typed = (draft: Draft) => draft.setUp.from === 'typed';
  return [...drafts.filter((d) => !typed(d)), ...drafts.filter(typed)];
}

/** From a sheet to an exercise: the task, the expectation, the parts; out as a file or as a link. */
export function HandOut({ onClose }: { onClose: () => void }) {
  const session = useSession();
  useEffect(() => void window.dispatchEvent(new Event(HANDING_OUT)), []);
  const { sheet } = session;
  const { lesson, on } = session.state;
  const { sheets, settings } = lesson;
  const source = useMemo((): SetUpSource => ({ sheet, sheets, settings, on }), [sheet, sheets, settings, on]);
  const [drafts, setDrafts] = useState(() => begun(source));
  const [chosen, setChosen] = useState(() =>
    Math.max(
      0,
      drafts.findIndex((d) => d.made.ok),
    ),
  );
  const draft = drafts[chosen]!;
  const change = (part: Partial<Draft>) => setDrafts(drafts.with(chosen, { ...draft, ...part }));
  const fill = (id: string, value: string) => {
    const values = { ...draft.values, [id]: value };
    const made = draft.setUp.make(source, values, draft.expected);
    change({ values, made, expected: made.ok ? made.value : draft.expected });
  };
  const [title, setTitle] = useState(sheet.name);
  const [task, setTask] = useState('');
  const used = () =>
    new Set(
      partsUsed(sheet, lesson.sheets).flatMap(({ kind }) => (findKind(kind)?.alwaysAllowed ? [] : [kind])),
    );
  // Where the sheet has a table of its own, its gates are a good beginning.
  const [allowed, setAllowed] = useState<ReadonlySet<string>>(() =>
    drafts[0]!.made.ok ? new Set(GATES) : used(),
  );
  const [out, setOut] = useState<Exercise | null>(null);
  const [problem, setProblem] = useState('');

  const make = () => {
    if (!draft.made.ok) {
      setProblem(sentence(draft.made.problem));
      return;
    }
    const made = ExerciseSchema.safeParse({
      id: randomId(),
      title,
      task,
      expected: draft.expected,
      allowed: [...allowed],
      made: new Date().toISOString(),
    });
    if (!made.success) {
      setProblem(`${made.error.issues[0]!.message}.`);
      return;
    }
    setProblem('');
    setOut(made.data);
    keepExercise(made.data).catch((error) => setProblem(sentence(storeProblem(error))));
  };

  if (out) return <Ready exercise={out} onBack={() => setOut(null)} onClose={onClose} problem={problem} />;
  return (
    <Modal
      title="Hand out an exercise"
      says="Students get the task and an empty sheet. What they draw is checked against what is expected, row by row."
      onClose={onClose}
      foot={
        <DialogFoot
          onClose={onClose}
          close="Cancel"
          problem={problem}
          main={{ name: 'Make the exercise', onClick: make }}
        />
      }
    >
      <label className="flex flex-col gap-1">
        <span className="font-semibold">Title</span>
        <input
          className="field"
          value={title}
          maxLength={120}
          onChange={(event) => setTitle(event.target.value)}
        />
      </label>
      <div className="grid grid-cols-2 gap-4">
        <label className="flex flex-col gap-1">
          <span className="font-semibold">
            Task <span className="font-normal text-quiet">in words; Markdown</span>
          </span>
          <textarea
            className="field h-32 resize-y py-2"
            value={task}
            maxLength={20000}
            placeholder={'What should the circuit do?\n\n- one line for each condition'}
            onChange={(event) => setTask(event.target.value)}
          />
        </label>
        <div className="flex min-w-0 flex-col gap-1">
          <span className="font-semibold">As the student sees it</span>
          <div className="h-32 overflow-auto rounded-lg border border-hairline bg-raised px-3 py-2">
            {task ? <TaskText text={task} /> : <span className="text-quiet">The task appears here.</span>}
          </div>
        </div>
      </div>
      <fieldset className="flex flex-col gap-2">
        <legend className="mb-1 font-semibold">What is expected</legend>
        <div className="flex flex-wrap gap-x-5 gap-y-1">
          {drafts.map(({ setUp, made }, i) => (
            <label key={setUp.name} className="flex items-center gap-1.5">
              <input
                type="radio"
                name="source"
                checked={i === chosen}
                disabled={!made.ok && !setUp.isAlwaysOffered}
                onChange={() => setChosen(i)}
              />
              {setUp.name}
            </label>
          ))}
        </div>
        {drafts.map(
          ({ setUp, made, kind }) =>
            !made.ok &&
            !setUp.isAlwaysOffered &&
            kind === draft.kind && (
              <p key={setUp.name} className="text-sm text-quiet">
                {setUp.name} cannot be used: {made.problem.message}.
              </p>
            ),
        )}
        <SetUpFields draft={draft} source={source} onFill={fill} />
        {draft.expected && (draft.made.ok || draft.setUp.isAlwaysOffered) && (
          <ExpectedTable
            of={draft.kind.rows(draft.expected)}
            onTurn={
              draft.setUp.turn &&
              ((output, row) => {
                const { made, expected, setUp } = draft;
                change({ expected: setUp.turn!(expected!, made.ok ? made.value : expected!, output, row) });
              })
            }
          />
        )}
      </fieldset>
      <fieldset>
        <legend className="mb-1 font-semibold">
          Parts that may be used{' '}
          <span className="font-normal text-quiet">besides switches and lamps; also inside blocks</span>
        </legend>
        <div className="mb-1.5 flex gap-2">
          <button type="button" className="button small" onClick={() => setAllowed(used())}>
            As on this sheet
          </button>
          <button type="button" className="button small" onClick={() => setAllowed(new Set(GATES))}>
            All gates
          </button>
          <button type="button" className="button small" onClick={() => setAllowed(new Set(['nand']))}>
            NAND only
          </button>
          <button type="button" className="button small" onClick={() => setAllowed(new Set(['nor']))}>
            NOR only
          </button>
        </div>
        <div className="grid grid-cols-[6rem_1fr] gap-y-1.5">
          {FAMILIES.map(({ family, kinds }) => (
            <Fragment key={family}>
              <span className="text-sm text-quiet">{family}</span>
              <div className="flex flex-wrap gap-x-4 gap-y-0.5">
                {kinds.map((kind) => (
                  <label key={kind.kind} className="flex items-center gap-1.5">
                    <input
                      type="checkbox"
                      checked={allowed.has(kind.kind)}
                      onChange={(event) => {
                        const next = new Set(allowed);
                        if (event.target.checked) next.add(kind.kind);
                        else next.delete(kind.kind);
                        setAllowed(next);
                      }}
                    />
                    {kind.name}
                  </label>
                ))}
              </div>
            </Fragment>
          ))}
        </div>
      </fieldset>
    </Modal>
  );
}

interface SetUpFieldsProps {
  readonly draft: Draft;
  readonly source: SetUpSource;
  readonly onFill: (id: string, value: string) => void;
}

/** The fields of a set-up, the error in them, and a hint about the rows below. */
function SetUpFields({ draft, source, onFill }: SetUpFieldsProps) {
  const { setUp, values, made, expected } = draft;
  const fields = setUp.fields(source);
  const hint = expected && made.ok ? setUp.hint(expected, source) : '';
  return (
    <>
      {fields.length > 0 && (
        <div className="grid grid-cols-2 gap-3">
          {fields.map((field) => (
            <div key={field.id} className="flex flex-col gap-0.5 text-sm">
              <label htmlFor={`set-up-${field.id}`}>{field.label}</label>
              {field.control === 'choice' ? (
                <select
                  id={`set-up-${field.id}`}
                  className="field"
                  value={values[field.id]}
                  onChange={(event) => onFill(field.id, event.target.value)}
                >
                  {field.options.map(([value, label]) => (
                    <option key={value} value={value}>
                      {label}
                    </option>
                  ))}
                </select>
              ) : (
                <input
                  id={`set-up-${field.id}`}
                  className={`field ${field.control === 'number' ? 'max-w-24' : ''}`}
                  type={field.control}
                  min={field.control === 'number' ? field.least : undefined}
                  max={field.control === 'number' ? field.most : undefined}
                  value={values[field.id]}
                  onChange={(event) => onFill(field.id, event.target.value)}
                />
              )}
            </div>
          ))}
        </div>
      )}
      {!made.ok && fields.length > 0 && (
        <p role="alert" className="text-sm text-bad">
          {sentence(made.problem)}
        </p>
      )}
      {hint && <p className="text-sm text-quiet">{hint}</p>}
    </>
  );
}

interface ReadyProps {
  readonly exercise: Exercise;
  readonly problem: string;
  readonly onBack: () => void;
  readonly onClose: () => void;
}

function Ready({ exercise, problem, onBack, onClose }: ReadyProps) {
  const link = useMemo(() => `${location.origin}/exercise#${exerciseToFragment(exercise)}`, [exercise]);
  const long = link.length > LONGEST_LINK;
  const [copied, setCopied] = useState('');
  return (
    <Modal
      title={`“${exercise.title}” is ready`}
      says="Give it to your students as a file or as a link; both hold the whole exercise, nothing is on a server."
      onClose={onClose}
      foot={
        <>
          <button type="button" className="button mr-auto" onClick={onBack}>
            Back
          </button>
          <a className="button" href={`/marking?exercise=${exercise.id}`}>
            Go to marking
          </a>
          <button type="button" className="button main" onClick={onClose}>
            Done
          </button>
        </>
      }
    >
      {problem && (
        <p role="alert" className="text-bad">
          {problem}
        </p>
      )}
      <div className="flex flex-col gap-2">
        <h3 className="font-semibold">As a file</h3>
        <button
          type="button"
          className="button main self-start"
          onClick={() => saveFile(fileName(exercise.title, '.exercise.json'), writeExercise(exercise))}
        >
          Save the exercise file
        </button>
      </div>
      <div className="flex flex-col gap-2">
        <h3 className="font-semibold">As a link</h3>
        {long && (
          <p role="alert" className="text-sm text-bad">
            The link has {link.length.toLocaleString('en')} characters; many mail, chat and learning tools cut
            links at {LONGEST_LINK.toLocaleString('en')}. Hand out the file instead.
          </p>
        )}
        <textarea
          readOnly
          className="field h-20 resize-none py-1.5 font-mono text-xs break-all"
          value={link}
          aria-label="Link to the exercise"
          onFocus={(event) => event.target.select()}
        />
        <div className="flex items-center gap-3">
          <button
            type="button"
            className="button"
            onClick={() =>
              copyText(link).then((isTaken) =>
                setCopied(
                  isTaken
                    ? 'Copied.'
                    : 'This browser does not let pages copy: select the link and copy it by hand.',
                ),
              )
            }
          >
            Copy the link
          </button>
          <span className="text-sm text-quiet" role="status">
            {copied || `${link.length.toLocaleString('en')} characters`}
          </span>
        </div>
      </div>
      <p className="text-sm text-quiet">
        What comes back are files: drop them on the marking page, all at once. The exercise stays listed there
        in this browser.
      </p>
    </Modal>
  );
}
