'use client';

import { MOST_LETTERS } from '@/core/exercise/kinds/words';
import { done } from '@/core/values/result';
import { GivenChoice, givenOf } from './GivenChoice';
import type { FormProps, TaskForm } from './task-form';

interface Draft {
  readonly model: string;
  readonly isGiven: boolean;
}

function Form({ source, draft, onDraft }: FormProps<Draft>) {
  return (
    <>
      <GivenChoice
        source={source}
        isGiven={draft.isGiven}
        onGiven={(isGiven) => onDraft({ ...draft, isGiven })}
      />
      <label className="flex flex-col gap-1">
        <span className="font-semibold">
          A good answer <span className="font-normal text-quiet">shown to you when you mark</span>
        </span>
        <textarea
          className="field h-20 resize-y py-2"
          value={draft.model}
          maxLength={MOST_LETTERS}
          onChange={(event) => onDraft({ ...draft, model: event.target.value })}
        />
      </label>
    </>
  );
}

export const wordsForm: TaskForm<Draft> = {
  kind: 'words',
  begin: ({ sheet }) => ({ model: '', isGiven: sheet.parts.size > 0 }),
  Form,
  finish: (source, { model, isGiven }) =>
    done({ given: givenOf(source, isGiven), asked: {}, key: { model: model.trim() } }),
};
