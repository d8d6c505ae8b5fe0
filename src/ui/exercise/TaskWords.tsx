'use client';

import type { TaskPicture } from '@/core/circuit/exercise';
import { TaskText } from './TaskText';

interface Props {
  readonly words: string;
  readonly onWords: (words: string) => void;
  readonly pictures?: readonly TaskPicture[] | undefined;
  /** What can be put into the words, where there is a sheet: its picture, its table. */
  readonly puts?: readonly { readonly name: string; readonly onPut: () => void }[];
}

/** The words of a task, beside what the student sees of them. */
export function TaskWords({ words, onWords, pictures, puts = [] }: Props) {
  return (
    <div className="flex flex-col gap-1.5">
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
            onChange={(event) => onWords(event.target.value)}
          />
        </label>
        <div className="flex min-w-0 flex-col gap-1">
          <span className="font-semibold">As the student sees it</span>
          <div className="h-32 overflow-auto rounded-lg border border-hairline bg-raised px-3 py-2">
            {words ? (
              <TaskText text={words} pictures={pictures} />
            ) : (
              <span className="text-quiet">The task appears here.</span>
            )}
          </div>
        </div>
      </div>
      {puts.length > 0 && (
        <div className="flex flex-wrap items-center gap-2 text-sm">
          <span className="text-quiet">Put in, from this sheet:</span>
          {puts.map(({ name, onPut }) => (
            <button key={name} type="button" className="button small" onClick={onPut}>
              {name}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}
