'use client';

import { useEffect, useMemo, useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import { isSealed, isToSeal } from '@/core/exercise/sealed';
import { exerciseToFragment, LONGEST_LINK, writeExercise } from '@/core/formats/exercise-file';
import { problemOf, sentence } from '@/core/values/result';
import { load } from '@/loading/load';
import { remember, remembered } from '@/loading/page-memory';
import { copyText } from '@/session/page-clipboard';
import { fileName, saveFile } from '@/ui/controls/files';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { DialogFoot, Modal } from '@/ui/controls/Modal';

const SealedWith = lazyComponent('the key', () => import('./SealedWith').then((m) => m.SealedWith));
const QrCode = lazyComponent('the QR code', () => import('./QrCode').then((m) => m.QrCode));

interface ReadyProps {
  readonly exercise: Exercise;
  readonly problem: string;
  readonly onBack: () => void;
  readonly onClose: () => void;
}

const ADDRESS_KEY = 'manege-address';

/** An address without what stands behind its host; null where it is none. */
function addressOf(text: string): string | null {
  try {
    const { protocol, origin } = new URL(text.trim());
    return protocol === 'http:' || protocol === 'https:' ? origin : null;
  } catch {
    return null;
  }
}

/** Whether an address leads to the computer on which it is opened. */
const isOwnComputer = (address: string): boolean =>
  /^(localhost|127\.\d+\.\d+\.\d+|\[::1\])$/.test(new URL(address).hostname);

/** An exercise that is made: its file and its link. */
export function Ready(props: ReadyProps) {
  const { exercise } = props;
  const [sealed, setSealed] = useState<Exercise | null>(() =>
    exercise.tasks.some(isToSeal) ? null : exercise,
  );
  const [failed, setFailed] = useState('');
  useEffect(() => {
    if (sealed) return;
    Promise.all([
      load('what seals answers', () => import('@/store/keys')),
      load('what seals answers', () => import('@/core/exercise/sealing')),
    ])
      .then(async ([keys, sealing]) => sealing.sealedExercise(exercise, (await keys.ownKeysMade()).publicKey))
      .then(setSealed, (error) => setFailed(sentence(problemOf(error))));
  }, [exercise, sealed]);
  if (!sealed)
    return (
      <Modal
        title={`“${exercise.title}”`}
        says={failed || 'Sealing the wanted answers …'}
        onClose={props.onClose}
        foot={<DialogFoot onClose={props.onClose} />}
      >
        {null}
      </Modal>
    );
  return <Out {...props} exercise={sealed} />;
}

function Out({ exercise, problem, onBack, onClose }: ReadyProps) {
  const [address, setAddress] = useState(() => remembered(ADDRESS_KEY) ?? '');
  const base = addressOf(address) ?? location.origin;
  const link = useMemo(() => `${base}/exercise#${exerciseToFragment(exercise)}`, [base, exercise]);
  const long = link.length > LONGEST_LINK;
  const [copied, setCopied] = useState('');
  const [isCode, setCode] = useState(false);
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
        <Address
          base={base}
          address={address}
          onAddress={(text) => {
            setAddress(text);
            remember(ADDRESS_KEY, text);
          }}
        />
        <div className="flex items-center gap-3">
          <button
            type="button"
            className="button"
            onClick={() =>
              copyText(link).then((isTaken) =>
                setCopied(
                  isTaken
                    ? 'Copied.'
                    : 'This browser does not let pages copy: select the link and copy it by hand.',
                ),
              )
            }
          >
            Copy the link
          </button>
          {!long && (
            <button type="button" className="button" aria-expanded={isCode} onClick={() => setCode(!isCode)}>
              QR code
            </button>
          )}
          <span className="text-sm text-quiet" role="status">
            {copied || `${link.length.toLocaleString('en')} characters`}
          </span>
        </div>
      </div>
      {exercise.tasks.some(isSealed) && <SealedWith />}
      {isCode && !long && <QrCode text={link} />}
      <p className="text-sm text-quiet">
        What comes back are files: drop them on the marking page, all at once. The exercise stays listed there
        in this browser.
      </p>
    </Modal>
  );
}

interface AddressProps {
  readonly base: string;
  readonly address: string;
  readonly onAddress: (text: string) => void;
}

/** The address under which students find Manege: to be set once where this page is served to this computer alone. */
function Address({ base, address, onAddress }: AddressProps) {
  const isOwn = isOwnComputer(base);
  if (!isOwn && !address) return null;
  return (
    <label className="flex flex-col gap-1 text-sm">
      {isOwn ? (
        <span className="text-bad">
          This link works on this computer only. Write the address under which your students open Manege; it
          is remembered.
        </span>
      ) : (
        <span>The address under which your students open Manege</span>
      )}
      <input
        className="field max-w-96"
        value={address}
        placeholder="such as http://room12.school:3000"
        onChange={(event) => onAddress(event.target.value)}
      />
      {address.trim() !== '' && addressOf(address) === null && (
        <span role="alert" className="text-bad">
          An address begins with http:// or https://.
        </span>
      )}
    </label>
  );
}
