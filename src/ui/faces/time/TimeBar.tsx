import type { ReactNode } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import { DELAYS, type Delays } from '@/core/circuit/time-setup';
import { driveThroughAll, setDelays, setTimeSetup } from '@/session/changes/time';
import { Bar, Fold } from '@/ui/controls/Bar';
import { hint } from '@/ui/controls/hint';
import { useSession, useSessionState } from '@/ui/session/session-context';

/** The panel under the diagram. */
export type Beneath = 'stimulus' | 'findings' | null;

interface Props {
  readonly timed: boolean;
  readonly beneath: Beneath;
  readonly onBeneath: (beneath: Beneath) => void;
  readonly onFit: () => void;
  readonly onZoom: (factor: number) => void;
  readonly children: ReactNode;
}

const WORDS: Record<Delays, string> = { zero: 'no delays', unit: '1 ns a part', parts: 'own delays' };
const FIELD = 'h-7 min-w-20 rounded-lg border border-hairline bg-raised px-1';
const SMALL = 'cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft';

/** The value in the list that stands for driving everything by hand. */
const BY_HAND = '';

/** The stimulus, the delays, and the view of the diagram. */
export function TimeBar({ timed, beneath, onBeneath, onFit, onZoom, children }: Props) {
  const session = useSession();
  const delays = useSessionState((s) => s.lesson.settings.delays);
  const time = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.time);
  const readOnly = useSessionState((s) => s.readOnly);
  const inputs = useSessionState((s) => s.netlist.inputColumns.length);
  const toggle = (which: Beneath) => onBeneath(beneath === which ? null : which);
  return (
    <Bar className="pane-head">
      <h2 className="font-semibold" data-way={3}>
        Time
      </h2>
      {time && time.stimuli.length > 0 && (
        <select
          className={FIELD}
          aria-label="Stimulus"
          {...hint('What drives the inputs')}
          value={time?.driven ?? BY_HAND}
          disabled={readOnly}
          onChange={({ target: { value } }) =>
            setTimeSetup(session, { driven: value }, 'choose the stimulus')
          }
        >
          <option value={BY_HAND}>by hand</option>
          {time?.stimuli.map((s) => (
            <option key={s.name} value={s.name}>
              {s.name}
            </option>
          ))}
        </select>
      )}
      {!readOnly && (
        <button
          type="button"
          className={SMALL}
          aria-expanded={beneath === 'stimulus'}
          onClick={() => toggle('stimulus')}
        >
          Stimulus
        </button>
      )}
      <button
        type="button"
        className={SMALL}
        aria-expanded={beneath === 'findings'}
        onClick={() => toggle('findings')}
      >
        Find out
      </button>
      <Fold way={4} label="More for the time">
        <select
          className={FIELD}
          aria-label="Delays"
          {...hint('Delays of the parts: none, 1 ns each, or the part’s own')}
          value={delays}
          disabled={readOnly}
          onChange={({ target: { value } }) => setDelays(session, value as Delays)}
        >
          {DELAYS.map((one) => (
            <option key={one} value={one}>
              {WORDS[one]}
            </option>
          ))}
        </select>
        <Fold way={2} label="More for the time">
          {children}
          {!readOnly && inputs > 0 && inputs <= 8 && !timed && (
            <button
              type="button"
              className={SMALL}
              {...hint('Lets the inputs count through all rows, and shows them side by side')}
              onClick={() => driveThroughAll(session, 10_000)}
            >
              All rows
            </button>
          )}
          <span className="ml-auto" />
          <Fold way={1} label="The stretch of time">
            <button type="button" className={SMALL} onClick={onFit} {...hint('All that has happened (0)')}>
              Fit
            </button>
            <button
              type="button"
              className="icon-button size-7"
              onClick={() => onZoom(1 / 1.5)}
              aria-label="Shorter stretch of time"
              {...hint('Closer (+)')}
            >
              +
            </button>
            <button
              type="button"
              className="icon-button size-7"
              onClick={() => onZoom(1.5)}
              aria-label="Longer stretch of time"
              {...hint('Farther (-)')}
            >
              −
            </button>
          </Fold>
        </Fold>
      </Fold>
    </Bar>
  );
}
