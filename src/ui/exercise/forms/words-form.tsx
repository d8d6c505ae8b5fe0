'use client';

import type { Task } from '@/core/circuit/exercise';
import { MOST_LETTERS, type WordsKey } from '@/core/exercise/kinds/words';
import { done } from '@/core/values/result';
import { GivenChoice, givenOf } from './GivenChoice';
import { type FormProps, later, type TaskForm } from './task-form';

interface Draft {
  readonly model: string;
  readonly isGiven: boolean;
}

/** What a good answer says. */
function ModelAnswer({
  model,
  onModel,
}: {
  readonly model: string;
  readonly onModel: (model: string) => void;
}) {
  return (
    <label className="flex flex-col gap-1">
      <span className="font-semibold">
        A good answer <span className="font-normal text-quiet">shown to you when you mark</span>
      </span>
      <textarea
        className="field h-20 resize-y py-2"
        value={model}
        maxLength={MOST_LETTERS}
        onChange={(event) => onModel(event.target.value)}
      />
    </label>
  );
}

function Form({ source, draft, onDraft }: FormProps<Draft>) {
  return (
    <>
      <GivenChoice
        source={source}
        isGiven={draft.isGiven}
        onGiven={(isGiven) => onDraft({ ...draft, isGiven })}
      />
      <ModelAnswer model={draft.model} onModel={(model) => onDraft({ ...draft, model })} />
    </>
  );
}

export const wordsForm: TaskForm<Draft> = {
  kind: 'words',
  begin: ({ sheet }) => ({ model: '', isGiven: sheet.parts.size > 0 }),
  Form,
  Later: later<Task<unknown, WordsKey>>(({ task, onTask }) => (
    <ModelAnswer model={task.key.model} onModel={(model) => onTask({ key: { model } })} />
  )),
  finish: (source, { model, isGiven }) =>
    done({ given: givenOf(source, isGiven), asked: {}, key: { model: model.trim() } }),
};
