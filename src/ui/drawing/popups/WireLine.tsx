'use client';

import { useState } from 'react';
import { spokenName } from '@/core/parts/catalogue';
import type { Session } from '@/session/session';
import { told } from '@/session/told';
import { ComboLine, useMarked } from './ComboLine';
import type { PopoverPlace } from './SheetPopover';
import { choicesForPart, choicesForWires, matches, type WireChoice } from './wire-choices';

interface Props extends PopoverPlace {
  /** A part that is wired to another, or wires one of whose ends is put elsewhere. */
  readonly from: { readonly part: string } | { readonly wires: readonly string[] };
  readonly session: Session;
}

const SHOWN = 7;

/** A line that wires the selected part to another, or moves an end of the selected wires, from the keyboard. */
export function WireLine({ place, from, session, onClose }: Props) {
  const [text, setText] = useState('');
  const [all] = useState(() =>
    'part' in from ? choicesForPart(session.sheet, from.part) : choicesForWires(session.sheet, from.wires),
  );
  const found = all.filter((choice) => matches(choice.words, text));
  const marked = useMarked(found.slice(0, SHOWN));
  const submit = (choice: WireChoice | undefined) => {
    if (!choice) return;
    onClose();
    told(choice.run(session));
  };
  const title =
    'part' in from
      ? `Wire ${spokenName(session.sheet.parts.get(from.part)!)} to`
      : 'Move an end of a wire to';
  const more = found.length - SHOWN;
  return (
    <ComboLine<WireChoice>
      place={place}
      label={title}
      listLabel="Pins"
      placeholder={`${title} …`}
      text={text}
      onText={setText}
      marked={marked}
      keyOf={(choice) => choice.words}
      itemClass="px-2 py-1 text-sm"
      renderItem={(choice) => choice.words}
      onChoose={submit}
      onEnter={() => submit(marked.chosen)}
      message={
        all.length === 0
          ? 'No free pin is left to wire this to.'
          : found.length === 0
            ? `No pin is called “${text.trim()}”.`
            : more > 0
              ? `${more} more: type a name or a pin`
              : 'type a name or a pin · ↑ ↓ · Enter'
      }
      onClose={onClose}
    />
  );
}
