'use client';

import type { Remark } from '@/core/exercise/teacher-marks';
import { spokenName } from '@/core/parts/catalogue';
import { useSession, useSessionState } from '@/ui/session/session-context';

/** Points as they are written: `+0.5`. */
export const signed = (points: number): string =>
  points > 0 ? `+${points}` : String(points).replace('-', '−');

/** A remark with its points; its part, where it is about one, is selected at a press. */
export function RemarkText({ remark: { text, points, at } }: { readonly remark: Remark }) {
  const session = useSession();
  const sheet = useSessionState((s) => s.lesson.sheets.find(({ id }) => id === s.rootId)!);
  const part = at && 'part' in at ? sheet.parts.get(at.part) : undefined;
  return (
    <>
      {part && (
        <>
          <button
            type="button"
            className="cursor-pointer font-semibold text-accent underline"
            onClick={() => session.select({ parts: new Set([part.id]), wires: new Set() })}
          >
            {spokenName(part)}:
          </button>{' '}
        </>
      )}
      {at && 'row' in at && <b>row {at.row}: </b>}
      {text} {points !== 0 && <b>{signed(points)}</b>}
    </>
  );
}
