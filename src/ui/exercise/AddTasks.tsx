'use client';

import { useEffect, useState } from 'react';
import type { Task } from '@/core/circuit/exercise';
import type { Lesson } from '@/core/circuit/lesson';
import { taskKindOf } from '@/core/exercise/kinds';
import { sentence } from '@/core/values/result';
import { storeProblem } from '@/store/database';
import { shelf } from '@/store/shelf';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { FORMS } from './forms';
import { headingFor, taskOf } from './new-exercise';

interface Props {
  /** Tasks that are there already. */
  readonly among: readonly Task[];
  readonly onAdd: (tasks: readonly Task[]) => void;
  readonly onClose: () => void;
}

const NONE: ReadonlySet<string> = new Set();

/** Makes a task of each chosen sheet of a lesson, set up as is usual for its kind. */
export function AddTasks({ among, onAdd, onClose }: Props) {
  const [lessons, setLessons] = useState<readonly Lesson[] | null>(null);
  const [chosen, setChosen] = useState('');
  const [sheets, setSheets] = useState(NONE);
  const [kind, setKind] = useState('build');
  const [problem, setProblem] = useState('');
  useEffect(() => {
    shelf().then(
      (items) =>
        setLessons(
          items.flatMap(({ lesson }) => (lesson.ok && !lesson.value.exercise ? [lesson.value] : [])),
        ),
      (error) => setProblem(sentence(storeProblem(error))),
    );
  }, []);
  const lesson = lessons?.find(({ id }) => id === chosen) ?? lessons?.[0];
  const form = FORMS.find((f) => f.kind === kind)!;
  const add = () => {
    const made: Task[] = [];
    for (const sheet of lesson?.sheets ?? []) {
      if (!sheets.has(sheet.id)) continue;
      const source = { sheet, sheets: lesson!.sheets, settings: lesson!.settings, on: NONE };
      const body = form.finish(source, form.begin(source));
      const earlier = [...among, ...made];
      const fitted = body.ok ? (form.fit?.(source, body.value, earlier) ?? body.value) : null;
      const task = body.ok ? taskOf(kind, headingFor(sheet.name), fitted!, earlier) : body;
      if (!task.ok) {
        setProblem(`“${sheet.name}”: ${task.problem.message}.`);
        return;
      }
      made.push(task.value);
    }
    if (made.length === 0) setProblem('Choose a sheet first.');
    else onAdd(made);
  };
  return (
    <Modal
      title="Add tasks"
      says="Each sheet that you choose becomes a task, set up as is usual; change its words and what a check tells afterwards."
      onClose={onClose}
      foot={
        <DialogFoot onClose={onClose} close="Cancel" problem={problem} main={{ name: 'Add', onClick: add }} />
      }
    >
      {lessons?.length === 0 && <p className="text-quiet">There is no lesson on the shelf yet.</p>}
      {lesson && (
        <>
          <label className="flex flex-col gap-1">
            <span className="font-semibold">Lesson</span>
            <select
              className="field"
              value={lesson.id}
              onChange={(event) => {
                setChosen(event.target.value);
                setSheets(NONE);
              }}
            >
              {lessons!.map(({ id, title }) => (
                <option key={id} value={id}>
                  {title}
                </option>
              ))}
            </select>
          </label>
          <label className="flex flex-col gap-1">
            <span className="font-semibold">What students do</span>
            <select className="field" value={kind} onChange={(event) => setKind(event.target.value)}>
              {FORMS.map((f) => (
                <option key={f.kind} value={f.kind}>
                  {taskKindOf(f).name}
                </option>
              ))}
            </select>
          </label>
          <fieldset>
            <legend className="mb-1 font-semibold">Sheets</legend>
            <div className="flex flex-col gap-1">
              {lesson.sheets.map(({ id, name, parts }) => (
                <label key={id} className="flex items-center gap-1.5">
                  <input
                    type="checkbox"
                    checked={sheets.has(id)}
                    disabled={parts.size === 0}
                    onChange={() => {
                      const next = new Set(sheets);
                      if (!next.delete(id)) next.add(id);
                      setSheets(next);
                    }}
                  />
                  {name}
                  {parts.size === 0 && <span className="text-quiet">empty</span>}
                </label>
              ))}
            </div>
          </fieldset>
        </>
      )}
    </Modal>
  );
}
