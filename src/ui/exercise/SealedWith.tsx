'use client';

import { useState } from 'react';
import { writeKeys } from '@/core/formats/key-file';
import { sentence } from '@/core/values/result';
import { storeProblem } from '@/store/database';
import { ownKeysMade } from '@/store/keys';
import { saveFile } from '@/ui/controls/save-file';

/** Says that wanted answers are sealed, and saves the key that opens them as a file under a passphrase. */
export function SealedWith() {
  return (
    <div className="flex flex-col gap-2 text-sm">
      <h3 className="text-base font-semibold">Sealed answers</h3>
      <p className="text-quiet">
        Where a check tells nothing, or only “right or not yet”, the wanted answer is sealed: students cannot
        read it from the file, and only the key of this browser opens it. To mark on another computer, take
        the key there as a file.
      </p>
      <SaveKey />
    </div>
  );
}

/** Saves the key of this browser as a file under a passphrase. */
export function SaveKey() {
  const [passphrase, setPassphrase] = useState('');
  const [said, setSaid] = useState('');
  const save = () => {
    if (passphrase.length < 8) {
      setSaid('Write a passphrase of eight letters or more first.');
      return;
    }
    ownKeysMade().then(
      (keys) => {
        saveFile('manege.key.json', writeKeys(keys, passphrase));
        setSaid('Saved as manege.key.json. Without the passphrase it opens nothing.');
      },
      (error) => setSaid(sentence(storeProblem(error))),
    );
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-2">
        <input
          className="field w-64"
          type="password"
          autoComplete="new-password"
          value={passphrase}
          placeholder="a passphrase for the file"
          aria-label="Passphrase for the key file"
          onChange={(event) => setPassphrase(event.target.value)}
        />
        <button type="button" className="button" onClick={save}>
          Save the key
        </button>
      </div>
      <p role="status">{said}</p>
    </>
  );
}
