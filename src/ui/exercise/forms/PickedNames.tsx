'use client';

interface Props {
  readonly names: readonly string[];
  readonly picked: ReadonlySet<string>;
  readonly onPicked: (picked: ReadonlySet<string>) => void;
}

/** A box to tick for each name, such as those of lanes or columns. */
export const PickedNames = ({ names, picked, onPicked }: Props) => (
  <div className="flex flex-wrap gap-x-4 gap-y-1">
    {names.map((name) => (
      <label key={name} className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={picked.has(name)}
          onChange={(event) =>
            onPicked(
              new Set(event.target.checked ? [...picked, name] : [...picked].filter((n) => n !== name)),
            )
          }
        />
        {name}
      </label>
    ))}
  </div>
);
