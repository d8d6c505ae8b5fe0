'use client';

import { Fragment, useMemo, useState } from 'react';
import { Exercise, type Wanted, type WantedRun } from '@/core/circuit/exercise';
import { NO_TIME_PLAN } from '@/core/circuit/time-plan';
import { partsUsed } from '@/core/exercise/check';
import { cellTurned, namesIn, wantedFromNames, wantedFromSheet } from '@/core/exercise/wanted';
import { columnsOf } from '@/core/exercise/wanted-columns';
import { wantedFromRun } from '@/core/exercise/wanted-run';
import { exerciseToFragment, LONGEST_LINK, writeExercise } from '@/core/formats/exercise-file';
import { ALWAYS_ALLOWED, families, PLACEABLE } from '@/core/parts/catalogue';
import { sentence } from '@/core/values/result';
import { randomId, storeProblem } from '@/store/database';
import { keepExercise } from '@/store/exercises';
import { fileName, saveFile } from '@/ui/controls/files';
import { Modal } from '@/ui/controls/Modal';
import { useSession } from '@/ui/lesson/session-context';
import { TaskText } from './TaskText';
import { WantedRunFields } from './WantedRunFields';
import { WantedTable } from './WantedTable';

const FAMILIES = families(PLACEABLE.filter((k) => !ALWAYS_ALLOWED.includes(k.kind)));
const GATES = FAMILIES.find((f) => f.family === 'Gates')!.kinds.map((k) => k.kind);

type Source = 'sheet' | 'run' | 'typed';

/** How often a run is read at first. */
const USUAL_READINGS = '16';

/** From a sheet to an exercise: the task, the wanted function, the parts; out as a file or as a link. */
export function HandOut({ onClose }: { onClose: () => void }) {
  const session = useSession();
  const { sheet } = session;
  const { lesson, on } = session.state;
  const own = useMemo(() => wantedFromSheet(sheet, lesson.sheets), [sheet, lesson]);
  const stimuli = sheet.time?.stimuli ?? NO_TIME_PLAN.stimuli;
  const [stimulus, setStimulus] = useState(sheet.time?.driven ?? '');
  const [count, setCount] = useState(USUAL_READINGS);
  const ownRun = useMemo(
    () => wantedFromRun(sheet, lesson, stimuli.find((s) => s.name === stimulus) ?? null, on, Number(count)),
    [sheet, lesson, stimuli, stimulus, on, count],
  );
  const [turned, setTurned] = useState<{ of: typeof ownRun; wanted: WantedRun } | null>(null);
  const wantedRun = turned?.of === ownRun ? turned.wanted : ownRun.ok ? ownRun.value.wanted : null;
  const [title, setTitle] = useState(sheet.name);
  const [task, setTask] = useState('');
  const [source, setSource] = useState<Source>(own.ok ? 'sheet' : ownRun.ok ? 'run' : 'typed');
  const [inputs, setInputs] = useState(own.ok ? own.value.inputs.join(', ') : 'A, B');
  const [outputs, setOutputs] = useState(own.ok ? own.value.outputs.map((o) => o.name).join(', ') : 'Y');
  const [typed, setTyped] = useState<Wanted>(() => {
    const made = wantedFromNames(namesIn(inputs), namesIn(outputs), own.ok ? own.value : undefined);
    return made.ok ? made.value : { inputs: ['A'], outputs: [{ name: 'Y', rows: '01' }] };
  });
  const [nameProblem, setNameProblem] = useState('');
  const used = () =>
    new Set(
      partsUsed(sheet, lesson.sheets).flatMap(({ kind }) => (ALWAYS_ALLOWED.includes(kind) ? [] : [kind])),
    );
  const [allowed, setAllowed] = useState<ReadonlySet<string>>(() => (own.ok ? new Set(GATES) : used()));
  const [out, setOut] = useState<Exercise | null>(null);
  const [problem, setProblem] = useState('');

  const rename = (nextInputs: string, nextOutputs: string) => {
    setInputs(nextInputs);
    setOutputs(nextOutputs);
    const made = wantedFromNames(namesIn(nextInputs), namesIn(nextOutputs), typed);
    setNameProblem(made.ok ? '' : sentence(made.problem));
    if (made.ok) setTyped(made.value);
  };
  const make = () => {
    const wanted = source === 'sheet' && own.ok ? own.value : source === 'run' ? wantedRun : typed;
    if (!wanted) {
      setProblem('This sheet’s run cannot be used: see above.');
      return;
    }
    if (source === 'typed' && nameProblem) {
      setProblem(nameProblem);
      return;
    }
    const made = Exercise.safeParse({
      id: randomId(),
      title,
      task,
      wanted,
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
      says="Students get the task and an empty sheet. What they draw is held against what is wanted, row by row."
      onClose={onClose}
      foot={
        <>
          {problem && (
            <p role="alert" className="mr-auto text-sm text-bad">
              {problem}
            </p>
          )}
          <button type="button" className="button" onClick={onClose}>
            Cancel
          </button>
          <button type="button" className="button main" onClick={make}>
            Make the exercise
          </button>
        </>
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
        <legend className="mb-1 font-semibold">What is wanted</legend>
        <div className="flex flex-wrap gap-x-5 gap-y-1">
          <label className="flex items-center gap-1.5">
            <input
              type="radio"
              name="source"
              checked={source === 'sheet'}
              disabled={!own.ok}
              onChange={() => setSource('sheet')}
            />
            This sheet’s truth table
          </label>
          <label className="flex items-center gap-1.5">
            <input type="radio" name="source" checked={source === 'run'} onChange={() => setSource('run')} />
            This sheet’s run
          </label>
          <label className="flex items-center gap-1.5">
            <input
              type="radio"
              name="source"
              checked={source === 'typed'}
              onChange={() => setSource('typed')}
            />
            A table typed in here
          </label>
        </div>
        {!own.ok && source !== 'run' && (
          <p className="text-sm text-quiet">This sheet’s own table cannot be used: {own.problem.message}.</p>
        )}
        {source === 'typed' && (
          <div className="grid grid-cols-2 gap-3">
            <label className="flex flex-col gap-0.5 text-sm">
              Inputs, with commas
              <input
                className="field"
                value={inputs}
                onChange={(event) => rename(event.target.value, outputs)}
              />
            </label>
            <label className="flex flex-col gap-0.5 text-sm">
              Outputs, with commas
              <input
                className="field"
                value={outputs}
                onChange={(event) => rename(inputs, event.target.value)}
              />
            </label>
            {nameProblem && (
              <p role="alert" className="col-span-2 text-sm text-bad">
                {nameProblem}
              </p>
            )}
            <p className="col-span-2 text-sm text-quiet">
              Press a cell to turn it: 0, 1, x (either will do).
            </p>
          </div>
        )}
        {source === 'run' && (
          <WantedRunFields
            stimuli={stimuli}
            stimulus={stimulus}
            onStimulus={setStimulus}
            count={count}
            onCount={setCount}
            own={ownRun}
            wanted={wantedRun}
            onWanted={(wanted) => setTurned({ of: ownRun, wanted })}
          />
        )}
        {source === 'sheet' && own.ok && <WantedTable columns={columnsOf(own.value)} />}
        {source === 'typed' && (
          <WantedTable
            columns={columnsOf(typed)}
            onTurn={(output, row) => setTyped(cellTurned(typed, output, row))}
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
              navigator.clipboard.writeText(link).then(
                () => setCopied('Copied.'),
                () => setCopied('This browser does not let pages copy: select the link and copy it by hand.'),
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
