'use client';

/** A file that was not taken in, and why. */
export interface LeftOut {
  readonly file: string;
  readonly problem: string;
}

interface Props {
  readonly files: readonly LeftOut[];
  readonly onClose: () => void;
}

/** The files that were left out, each with its reason. */
export function LeftOutFiles({ files, onClose }: Props) {
  return (
    <section role="alert" className="rounded-xl border border-bad bg-raised px-4 py-3">
      <div className="flex items-start">
        <h2 className="flex-1 font-semibold text-bad">
          {files.length === 1 ? '1 file was left out' : `${files.length} files were left out`}
        </h2>
        <button type="button" className="icon-button -my-1" aria-label="Close this message" onClick={onClose}>
          ×
        </button>
      </div>
      <ul className="text-sm">
        {files.map((l, i) => (
          <li key={i}>
            <b>{l.file}</b>: {l.problem}.
          </li>
        ))}
      </ul>
    </section>
  );
}
