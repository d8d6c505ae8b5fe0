'use client';

import { PickedNames } from './PickedNames';

interface Props {
  readonly title: string;
  readonly names: readonly string[];
  readonly asked: ReadonlySet<string>;
  readonly onAsked: (asked: ReadonlySet<string>) => void;
  /** Whether the given circuit stands still until the answer is there; null without a circuit. */
  readonly predicted: { readonly is: boolean; readonly onIs: (is: boolean) => void } | null;
}

/** Which of the columns or lanes of a task are asked for, and whether its circuit stands still meanwhile. */
export function AskedLater({ title, names, asked, onAsked, predicted }: Props) {
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 font-semibold">
        {title} <span className="font-normal text-quiet">one at least</span>
      </legend>
      <PickedNames names={names} picked={asked} onPicked={onAsked} />
      {predicted && (
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={predicted.is}
            onChange={(event) => predicted.onIs(event.target.checked)}
          />
          The circuit stands still until then: predict first, then observe
        </label>
      )}
    </fieldset>
  );
}
