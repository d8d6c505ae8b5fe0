'use client';

import { useState } from 'react';
import type { Part } from '@/core/circuit/sheet';
import { kindOf, spokenName } from '@/core/parts/catalogue';
import { relabel } from '@/session/changes/parts';
import { told } from '@/session/told';
import { useSession } from '@/ui/session/session-context';
import { type PopoverPlace, SheetPopover } from './SheetPopover';

interface Props extends PopoverPlace {
  readonly part: Part;
  /** A key has ended it: what comes next. */
  readonly onNext: (next: 'another' | 'settings' | 'ring') => void;
}

/** Takes the label of a part that has just been placed; a press elsewhere keeps what is typed and goes on. */
export function LabelLine({ part, place, onClose, onNext }: Props) {
  const session = useSession();
  const [label, setLabel] = useState(part.label);
  const isUntouched = label === part.label;
  const keep = () => {
    if (label.trim()) told(relabel(session, part.id, label));
  };
  return (
    <SheetPopover
      place={place}
      label={`Label of ${spokenName(part)}`}
      className="w-52 p-2 text-sm"
      onClose={() => {
        onClose();
        keep();
      }}
      onEscape={onClose}
      onOpen={(content) => {
        const field = content.querySelector('input')!;
        field.focus();
        field.select();
      }}
      onKeyDown={(event) => {
        const isUndo = isUntouched && event.key.toLowerCase() === 'z' && (event.ctrlKey || event.metaKey);
        if (isUndo) {
          onClose();
          told(session.undo());
        } else if (event.key === ' ' && isUntouched) onNext('ring');
        else if (event.key === 'Enter' || event.key === 'Tab') {
          keep();
          onNext(event.key === 'Tab' && kindOf(part).settings ? 'settings' : 'another');
        } else return;
        event.preventDefault();
      }}
    >
      <label className="flex items-center gap-2">
        Label
        <input
          className="field"
          value={label}
          maxLength={40}
          spellCheck={false}
          autoComplete="off"
          onChange={(event) => setLabel(event.target.value)}
        />
      </label>
      <p className="mt-1 text-xs text-quiet">Type it, or go on. Tab: settings</p>
    </SheetPopover>
  );
}
