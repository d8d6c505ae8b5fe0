'use client';

import { type ReactNode, useRef } from 'react';

interface Props {
  readonly children: ReactNode;
  readonly className?: string;
  readonly label: string;
  readonly multiple?: boolean;
  /** Endings of the files that are asked for. */
  readonly accept?: string;
  /** Whether a folder is asked for, with all that is in it. */
  readonly folder?: boolean;
  readonly onFiles: (files: File[]) => void;
}

/** A button that asks for files. */
export function FileButton({ children, className, label, multiple, accept, folder, onFiles }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className={className ?? 'button'} onClick={() => input.current?.click()}>
        {children}
      </button>
      <input
        ref={input}
        type="file"
        className="hidden"
        aria-label={label}
        multiple={multiple}
        {...(folder ? { webkitdirectory: '' } : {})}
        accept={accept}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = '';
          if (files.length > 0) onFiles(files);
        }}
      />
    </>
  );
}
