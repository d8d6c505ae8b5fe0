'use client';

import { type ReactNode, useRef, useState } from 'react';
import { droppedFiles } from './dropped-files';

interface Props {
  readonly children: ReactNode;
  readonly className?: string;
  readonly hint: string;
  readonly onFiles: (files: File[]) => void;
}

const carriesFiles = (event: React.DragEvent) => event.dataTransfer.types.includes('Files');

/** A place onto which files can be dropped; it says so while some are held above it. */
export function DropZone({ children, className, hint, onFiles }: Props) {
  const depth = useRef(0);
  const [over, setOver] = useState(false);
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: files are dropped here; a button beside it opens them too
    <div
      className={`relative ${className ?? ''}`}
      onDragEnter={(event) => {
        if (!carriesFiles(event)) return;
        depth.current++;
        setOver(true);
      }}
      onDragLeave={(event) => {
        if (carriesFiles(event) && --depth.current <= 0) setOver(false);
      }}
      onDragOver={(event) => {
        if (carriesFiles(event)) event.preventDefault();
      }}
      onDrop={(event) => {
        if (!carriesFiles(event)) return;
        event.preventDefault();
        depth.current = 0;
        setOver(false);
        void droppedFiles(event.dataTransfer).then(onFiles);
      }}
    >
      {children}
      {over && (
        <div className="pointer-events-none absolute inset-2 z-40 flex items-center justify-center rounded-2xl border-2 border-dashed border-accent bg-accent-soft/90 text-lg font-semibold text-accent">
          {hint}
        </div>
      )}
    </div>
  );
}
