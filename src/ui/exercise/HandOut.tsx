'use client';

import { useEffect, useMemo, useState } from 'react';
import type { Exercise, Tells } from '@/core/circuit/exercise';
import { ExerciseSchema } from '@/core/exercise/exercise-schema';
import type { SetUpSource } from '@/core/exercise/expected/expected-kind';
import { taskKindOf } from '@/core/exercise/kinds';
import { sentence } from '@/core/values/result';
import { randomId, storeProblem } from '@/store/database';
import { keepExercise } from '@/store/exercises';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { HANDING_OUT } from '@/ui/session/first-steps';
import { useSession } from '@/ui/session/session-context';
import { FORMS } from './forms';
import { Ready } from './Ready';
import { TaskText } from './TaskText';
import { TellsChoice } from './TellsChoice';

/** From a sheet to an exercise: what is done, the words, what is expected; out as a file or as a link. */
export function HandOut({ onClose }: { onClose: () => void }) {
  const session = useSession();
  useEffect(() => void window.dispatchEvent(new Event(HANDING_OUT)), []);
  const { sheet } = session;
  const { lesson, on } = session.state;
  const { sheets, settings } = lesson;
  const source = useMemo((): SetUpSource => ({ sheet, sheets, settings, on }), [sheet, sheets, settings, on]);
  const [form, setForm] = useState(FORMS[0]!);
  const [drafts, setDrafts] = useState<Readonly<Record<string, unknown>>>(() => ({
    [form.kind]: form.begin(source),
  }));
  const [title, setTitle] = useState(sheet.name);
  const [words, setWords] = useState('');
  const [tells, setTells] = useState<Tells>('wanted');
  const [tries, setTries] = useState<number | null>(null);
  const [out, setOut] = useState<Exercise | null>(null);
  const [problem, setProblem] = useState('');
  const choose = (kind: string) => {
    const chosen = FORMS.find((f) => f.kind === kind)!;
    setForm(chosen);
    setProblem('');
    if (!(kind in drafts)) setDrafts({ ...drafts, [kind]: chosen.begin(source) });
  };

  const make = () => {
    const body = form.finish(source, drafts[form.kind]);
    if (!body.ok) {
      setProblem(sentence(body.problem));
      return;
    }
    const kind = taskKindOf(form);
    const made = ExerciseSchema.safeParse({
      id: randomId(),
      title,
      words: '',
      edition: 1,
      made: new Date().toISOString(),
      order: 'free',
      tasks: [
        {
          id: 'task1',
          kind: kind.kind,
          title: title.trim() || 'Task',
          words,
          points: 1,
          tells: kind.isMarkedByHand ? 'nothing' : tells,
          tries,
          ...body.value,
        },
      ],
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
  const { Form } = form;
  return (
    <Modal
      title="Hand out an exercise"
      says="Your students get the words and what they need; how it is checked is up to you."
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
          // biome-ignore lint/a11y/noAutofocus: the dialog was opened to type this
          autoFocus
          onChange={(event) => setTitle(event.target.value)}
        />
      </label>
      <fieldset>
        <legend className="mb-1 font-semibold">What students do</legend>
        <div className="flex flex-wrap gap-x-5 gap-y-1">
          {FORMS.map(({ kind }) => (
            <label key={kind} className="flex items-center gap-1.5">
              <input type="radio" name="kind" checked={kind === form.kind} onChange={() => choose(kind)} />
              {taskKindOf({ kind }).name}
            </label>
          ))}
        </div>
        <p className="mt-1 text-sm text-quiet">{taskKindOf(form).says}</p>
      </fieldset>
      <div className="grid grid-cols-2 gap-4">
        <label className="flex flex-col gap-1">
          <span className="font-semibold">
            Task <span className="font-normal text-quiet">in words; Markdown</span>
          </span>
          <textarea
            className="field h-32 resize-y py-2"
            value={words}
            maxLength={20000}
            placeholder={'What is to be done?\n\n- one line for each condition'}
            onChange={(event) => setWords(event.target.value)}
          />
        </label>
        <div className="flex min-w-0 flex-col gap-1">
          <span className="font-semibold">As the student sees it</span>
          <div className="h-32 overflow-auto rounded-lg border border-hairline bg-raised px-3 py-2">
            {words ? <TaskText text={words} /> : <span className="text-quiet">The task appears here.</span>}
          </div>
        </div>
      </div>
      <Form
        source={source}
        draft={drafts[form.kind]}
        onDraft={(draft) => setDrafts({ ...drafts, [form.kind]: draft })}
      />
      {!taskKindOf(form).isMarkedByHand && (
        <TellsChoice tells={tells} tries={tries} onTells={setTells} onTries={setTries} />
      )}
    </Modal>
  );
}
