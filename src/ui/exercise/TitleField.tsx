'use client';

import { useState } from 'react';

interface Props {
  readonly title: string;
  readonly label: string;
  readonly className: string;
  readonly onTitle: (title: string) => void;
}

/** A title that is typed; an empty one is not taken, and the one before comes back when the field is left. */
export function TitleField({ title, label, className, onTitle }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <input
      className={className}
      value={typed ?? title}
      aria-label={label}
      maxLength={120}
      onChange={(event) => {
        setTyped(event.target.value);
        if (event.target.value.trim()) onTitle(event.target.value);
      }}
      onBlur={() => setTyped(null)}
    />
  );
}
