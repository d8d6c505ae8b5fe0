'use client';

import { create } from 'qrcode';
import { useMemo } from 'react';

/** Clear modules around the code (ISO/IEC 18004 asks for four). */
const QUIET = 4;

/** A text as a QR code, black on white in both themes so that every camera reads it. */
export function QrCode({ text }: { readonly text: string }) {
  const { size, path } = useMemo(() => {
    const { modules } = create(text, { errorCorrectionLevel: 'L' });
    let d = '';
    for (let y = 0; y < modules.size; y++)
      for (let x = 0; x < modules.size; x++) if (modules.get(y, x)) d += `M${x + QUIET} ${y + QUIET}h1v1h-1z`;
    return { size: modules.size + 2 * QUIET, path: d };
  }, [text]);
  return (
    <svg
      viewBox={`0 0 ${size} ${size}`}
      className="w-full max-w-96 shrink-0 self-center rounded-lg bg-white"
      role="img"
      aria-label="QR code of the link"
      shapeRendering="crispEdges"
    >
      <path d={path} fill="black" />
    </svg>
  );
}
