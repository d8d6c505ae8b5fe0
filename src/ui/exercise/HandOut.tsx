'use client';

import { DropdownMenu } from 'radix-ui';
import { useEffect, useMemo, useState } from 'react';
import type { Exercise, Task } from '@/core/circuit/exercise';
import { excerptFor } from '@/core/exercise/begin';
import type { SetUpSource } from '@/core/exercise/expected/expected-kind';
import { taskKindOf } from '@/core/exercise/kinds';
import { formulasInWords, runInWords, tableInWords } from '@/core/exercise/put-in-words';
import { done, type Problem, type Result, sentence } from '@/core/values/result';
import { storeProblem } from '@/store/database';
import { handOut, type KeptExercise, keptExercises, saveExercise } from '@/store/exercises';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { useEditor } from '@/ui/session/editor-context';
import { HANDING_OUT } from '@/ui/session/first-steps';
import { useSession } from '@/ui/session/session-context';
import { FORMS } from './forms';
import { exerciseOf, headingFor, taskOf } from './new-exercise';
import { Ready } from './Ready';
import { placeOfPicture } from './TaskText';
import { TaskWords } from './TaskWords';
import { TellsChoice } from './TellsChoice';

/** From a sheet to an exercise: what is done, the words, what is expected; out as a file or as a link. */
export function HandOut({ onClose }: { onClose: () => void }) {
  const session = useSession();
  const { page } = useEditor();
  useEffect(() => void window.dispatchEvent(new Event(HANDING_OUT)), []);
  const { sheet } = session;
  const { lesson, on } = session.state;
  const { sheets, settings } = lesson;
  const source = useMemo((): SetUpSource => ({ sheet, sheets, settings, on }), [sheet, sheets, settings, on]);
  const [form, setForm] = useState(FORMS[0]!);
  const [drafts, setDrafts] = useState<Readonly<Record<string, unknown>>>(() => ({
    [form.kind]: form.begin(source),
  }));
  const [heading, setHeading] = useState(() => headingFor(sheet.name));
  const [sets, setSets] = useState<readonly KeptExercise[]>([]);
  const [out, setOut] = useState<Exercise | null>(null);
  const [problem, setProblem] = useState('');
  useEffect(() => {
    keptExercises().then(setSets, () => {});
  }, []);
  const fail = (error: unknown) => setProblem(sentence(storeProblem(error)));
  const refuse = ({ code, message }: Problem) =>
    setProblem(code === 'bad-value' ? `${message}.` : sentence({ code, message }));
  const choose = (kind: string) => {
    const chosen = FORMS.find((f) => f.kind === kind)!;
    setForm(chosen);
    setProblem('');
    if (!(kind in drafts)) setDrafts({ ...drafts, [kind]: chosen.begin(source) });
  };

  /** The exercise with the task behind those that are there, or a new one of it alone. */
  const withTask = (to: Exercise | null): Exercise | null => {
    const body = form.finish(source, drafts[form.kind]);
    if (!body.ok) {
      refuse(body.problem);
      return null;
    }
    const title = heading.title.trim();
    const fitted = to ? (form.fit?.(source, body.value, to.tasks) ?? body.value) : body.value;
    const task = taskOf(form.kind, { ...heading, title: title || 'Task' }, fitted, to?.tasks);
    if (!task.ok) {
      refuse(task.problem);
      return null;
    }
    if (to) return { ...to, tasks: [...to.tasks, task.value] };
    const made = exerciseOf(title, [task.value]);
    if (made.ok) return made.value;
    refuse(made.problem);
    return null;
  };
  const make = () => {
    const made = withTask(null);
    if (!made) return;
    setProblem('');
    setOut(made);
    handOut(made).catch(fail);
  };
  const add = (to: Exercise | null) => {
    const made = withTask(to);
    if (!made) return;
    saveExercise(made).then(() => {
      session.say(
        to
          ? `Task ${made.tasks.length} of “${made.title}”. It is on the shelf, among the exercises.`
          : `“${made.title}” is begun. It is on the shelf, among the exercises.`,
      );
      onClose();
    }, fail);
  };

  const { tells } = heading;
  const draft = drafts[form.kind];
  /** The task as far as the filled-in fields allow. */
  const asItIs = useMemo((): Task | null => {
    const body = form.finish(source, draft);
    return body.ok ? { ...headingFor('Task'), id: 'task', kind: form.kind, tells, ...body.value } : null;
  }, [form, source, draft, tells]);

  const put = (text: Result<string>, pictures = heading.pictures) => {
    if (!text.ok) {
      refuse(text.problem);
      return;
    }
    const words = `${heading.words.trimEnd()}\n\n${text.value}\n`.trimStart();
    setHeading({ ...heading, words, pictures });
  };
  const puts = [
    {
      name: 'Picture',
      onPut: () => {
        const picture = { name: sheet.name, circuit: excerptFor(sheet, sheets, settings) };
        put(done(placeOfPicture(picture.name)), [picture]);
      },
    },
    { name: 'Table', onPut: () => put(tableInWords(sheet, sheets)) },
    { name: 'Formulas', onPut: () => put(formulasInWords(sheet, sheets)) },
    { name: 'Run', onPut: () => put(runInWords(source)) },
  ];

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
        >
          <AddTo sets={sets} onAdd={add} />
        </DialogFoot>
      }
    >
      <p className="text-sm text-quiet">
        Only the lesson, without a task?{' '}
        <button
          type="button"
          className="cursor-pointer text-accent underline"
          onClick={() => {
            onClose();
            page.openDialog('link');
          }}
        >
          Give it as a link
        </button>
      </p>
      <label className="flex flex-col gap-1">
        <span className="font-semibold">Title</span>
        <input
          className="field"
          value={heading.title}
          maxLength={120}
          // biome-ignore lint/a11y/noAutofocus: the dialog was opened to type this
          autoFocus
          onFocus={(event) => event.target.select()}
          onChange={(event) => setHeading({ ...heading, title: event.target.value })}
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
      <TaskWords
        words={heading.words}
        pictures={heading.pictures}
        onWords={(words) => setHeading({ ...heading, words })}
        puts={sheet.parts.size > 0 ? puts : []}
      />
      <Form source={source} draft={draft} onDraft={(draft) => setDrafts({ ...drafts, [form.kind]: draft })} />
      {!taskKindOf(form).isMarkedByHand && (
        <TellsChoice
          tells={heading.tells}
          tries={heading.tries}
          task={asItIs}
          onTells={(tells) => setHeading({ ...heading, tells })}
          onTries={(tries) => setHeading({ ...heading, tries })}
        />
      )}
    </Modal>
  );
}

/** The way into a set: the task becomes one of several. */
function AddTo({
  sets,
  onAdd,
}: {
  readonly sets: readonly KeptExercise[];
  readonly onAdd: (to: Exercise | null) => void;
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="button">Add to a set ▾</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu max-h-72 overflow-auto" align="end">
          <DropdownMenu.Item className="menu-item" onSelect={() => onAdd(null)}>
            A new set
          </DropdownMenu.Item>
          {sets.map(({ exercise }) => (
            <DropdownMenu.Item key={exercise.id} className="menu-item" onSelect={() => onAdd(exercise)}>
              <bdi className="truncate">{exercise.title}</bdi>
              <span className="ml-2 text-quiet">{exercise.tasks.length}</span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
