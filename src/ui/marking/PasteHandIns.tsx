'use client';

import { useState } from 'react';
import type { HandIn } from '@/core/exercise/hand-in';
import { handInsInText } from '@/core/formats/hand-in-file';
import { sentence } from '@/core/values/result';
import { DialogFoot, Modal } from '@/ui/controls/Modal';

interface Props {
  readonly onTake: (handIns: readonly HandIn[]) => void;
  readonly onClose: () => void;
}

/** Takes hand-ins that came as text, among whatever other words. */
export function PasteHandIns({ onTake, onClose }: Props) {
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  const take = () => {
    const read = handInsInText(text);
    const bad = read.find((one) => !one.ok);
    if (read.length === 0) setProblem('There is no hand-in in it: each begins with “manege-hand-in:”.');
    else if (bad && !bad.ok) setProblem(sentence(bad.problem));
    else onTake(read.flatMap((one) => (one.ok ? [one.value] : [])));
  };
  return (
    <Modal
      title="Paste hand-ins"
      says="Paste one message, or many at once; what is not a hand-in is passed over."
      onClose={onClose}
      foot={
        <DialogFoot
          onClose={onClose}
          close="Cancel"
          problem={problem}
          main={{ name: 'Take them', onClick: take }}
        />
      }
    >
      <textarea
        className="field h-56 resize-none py-2 font-mono text-xs break-all"
        aria-label="Text with hand-ins"
        value={text}
        // biome-ignore lint/a11y/noAutofocus: the dialog was opened to paste here
        autoFocus
        onChange={(event) => setText(event.target.value)}
      />
    </Modal>
  );
}
