import { useEffect, useRef, useState } from 'react';
import { goToNamedRow } from '@/session/changes/columns';
import { useSession } from '@/ui/session/session-context';
import { HeadButton } from './HeadButton';

/** Between two rows of a walk, in ms. */
const PACES = [200, 700, 2000] as const;

/** Passes through all rows on the live circuit, one after the other, at a pace that can be changed on the way. */
export function Walk({ inputs }: { inputs: readonly string[] }) {
  const session = useSession();
  const [isGoing, setGoing] = useState(false);
  const [pace, setPace] = useState<number>(PACES[1]);
  const next = useRef(0);
  useEffect(() => {
    if (!isGoing) return;
    const step = () => {
      if (next.current >= 2 ** inputs.length) setGoing(false);
      else goToNamedRow(session, inputs, next.current++);
    };
    if (next.current === 0) step();
    const timer = setInterval(step, pace);
    return () => clearInterval(timer);
  }, [isGoing, pace, inputs, session]);
  return (
    <>
      {isGoing && (
        <select
          className="h-6 rounded-md border border-hairline bg-raised px-1"
          aria-label="Pace of the walk"
          value={pace}
          onChange={(event) => setPace(Number(event.target.value))}
        >
          {PACES.map((ms) => (
            <option key={ms} value={ms}>
              {ms / 1000} s a row
            </option>
          ))}
        </select>
      )}
      <HeadButton
        isOn={isGoing}
        onClick={() => {
          next.current = 0;
          setGoing(!isGoing);
        }}
        title="Try all rows on the circuit, one after the other"
      >
        {isGoing ? 'Stop' : 'Try all'}
      </HeadButton>
    </>
  );
}
