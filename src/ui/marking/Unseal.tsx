'use client';

import { useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import { unsealedExercise } from '@/core/exercise/sealing';
import { readKeys } from '@/core/formats/key-file';
import type { KeyPair } from '@/core/sealing/seal';
import { sentence } from '@/core/values/result';
import { storeProblem } from '@/store/database';
import { keepExercise } from '@/store/exercises';
import { ownKeys, takeKeys } from '@/store/keys';
import { FileButton } from '@/ui/controls/FileButton';
import { readFiles } from '@/ui/controls/read-files';

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
  const open = async (keys: KeyPair): Promise<string> => {
    const opened = unsealedExercise(exercise, keys);
    if (!opened.ok) return sentence(opened.problem);
    await takeKeys(keys);
    await keepExercise(opened.value);
    onOpened();
    return '';
  };
  return (
    <KeyFile
      says="The wanted answers of some tasks are sealed to another key. Write its passphrase and open its file."
      onKeys={open}
    />
  );
}

interface KeyFileProps {
  /** What the key is asked for. */
  readonly says: string;
  /** @returns why they do not open it; empty where they do. */
  readonly onKeys: (keys: KeyPair) => Promise<string>;
}

/** Asks for a key: its passphrase, and its file. */
export function KeyFile({ says, onKeys }: KeyFileProps) {
  const [passphrase, setPassphrase] = useState('');
  const [problem, setProblem] = useState('');
  const take = async (files: File[]) => {
    const [file] = await readFiles(files.slice(0, 1));
    if (!file?.text.ok) return;
    const keys = readKeys(file.text.value, passphrase);
    setProblem(keys.ok ? await onKeys(keys.value) : sentence(keys.problem));
  };
  return (
    <section className="flex flex-wrap items-center gap-2 rounded-xl border border-hairline bg-raised px-4 py-3">
      <p className="mr-auto">{says}</p>
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
