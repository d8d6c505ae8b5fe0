'use client';

import { useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import { unsealedExercise } from '@/core/exercise/sealing';
import { readKeys } from '@/core/formats/key-file';
import { sentence } from '@/core/values/result';
import { storeProblem } from '@/store/database';
import { keepExercise } from '@/store/exercises';
import { ownKeys, takeKeys } from '@/store/keys';
import { FileButton } from '@/ui/controls/FileButton';
import { readFiles } from '@/ui/controls/files';

/** The exercise with its sealed answers open, by the key of this browser; as it is where that does not open them. */
export async function openedHere(exercise: Exercise): Promise<Exercise> {
  const keys = await ownKeys();
  const opened = keys && unsealedExercise(exercise, keys);
  return opened?.ok ? opened.value : exercise;
}

interface Props {
  readonly exercise: Exercise;
  readonly onOpened: () => void;
}

/** Asks for the key of an exercise that was sealed on another computer. */
export function Unseal({ exercise, onOpened }: Props) {
  const [passphrase, setPassphrase] = useState('');
  const [problem, setProblem] = useState('');
  const take = async (files: File[]) => {
    const [file] = await readFiles(files.slice(0, 1));
    if (!file?.text.ok) return;
    const keys = readKeys(file.text.value, passphrase);
    if (!keys.ok) {
      setProblem(sentence(keys.problem));
      return;
    }
    const opened = unsealedExercise(exercise, keys.value);
    if (!opened.ok) {
      setProblem(sentence(opened.problem));
      return;
    }
    await takeKeys(keys.value);
    await keepExercise(opened.value);
    onOpened();
  };
  return (
    <section className="flex flex-wrap items-center gap-2 rounded-xl border border-hairline bg-raised px-4 py-3">
      <p className="mr-auto">
        The wanted answers of some tasks are sealed to another key. Write its passphrase and open its file.
      </p>
      <input
        className="field w-56"
        type="password"
        autoComplete="off"
        value={passphrase}
        placeholder="passphrase"
        aria-label="Passphrase of the key file"
        onChange={(event) => setPassphrase(event.target.value)}
      />
      <FileButton
        className="button"
        label="Key file"
        accept=".json"
        onFiles={(files) => void take(files).catch((error) => setProblem(sentence(storeProblem(error))))}
      >
        Open the key file
      </FileButton>
      {problem && (
        <p role="alert" className="w-full text-bad">
          {problem}
        </p>
      )}
    </section>
  );
}
