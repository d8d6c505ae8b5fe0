import { sheetOf } from '@/core/circuit/lesson';
import { timeText } from '@/core/values/time';
import { load } from '@/loading/load';
import { forgetExpected, keepExpected } from '@/session/changes/time';
import { FileButton } from '@/ui/controls/FileButton';
import { hint } from '@/ui/controls/hint';
import { readFiles } from '@/ui/controls/read-files';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { dumpOf } from '@/workers/vcd-client';
import type { Elsewhere, LaneBeside } from '../beside';

interface Props {
  readonly other: Elsewhere | null;
  readonly beside: readonly LaneBeside[];
  /** Whether the run beside this one was read from a file. */
  readonly isDump: boolean;
  readonly onDump: (dump: Elsewhere | null) => void;
}

const SMALL = 'cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft';
/** Differences of a lane that are named. */
const NAMED = 6;

/** Another run beside this one: a dump, or the expected outputs of a stimulus. */
export function BesideRun({ other, beside, isDump, onDump }: Props) {
  const session = useSession();
  const driven = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.time?.driven ?? '');
  const readOnly = useSessionState((s) => s.readOnly);
  const now = useSessionState((s) => (s.playing ? 0 : s.now));
  const read = async (files: File[]) => {
    const [file] = await readFiles(files.slice(0, 1));
    if (!file) return;
    const { name, text } = file;
    if (!text.ok) {
      session.say(`${name} was not read: ${text.problem.message}.`, 'bad');
      return;
    }
    const { lesson, rootId, netlist } = session.state;
    const { signalsOf } = await load('the VCD reader', () => import('@/core/formats/vcd'));
    const made = await dumpOf(text.value, signalsOf(netlist, sheetOf(lesson, rootId)!, lesson.sheets));
    if (!made.ok) session.say(`${name} was not read: ${made.problem.message}.`, 'bad');
    else if (made.value.size === 0)
      session.say(`${name} has no signal with the name of one on this sheet.`, 'bad');
    else
      onDump({ name: 'file', until: Number.POSITIVE_INFINITY, at: null, ofOutputs: false, nets: made.value });
  };
  const wrong = beside.filter((b) => b.differs.length > 0);
  const first = Math.min(...wrong.map((b) => b.differs[0]!.from));
  return (
    <div className="flex flex-col gap-1.5">
      <p className="flex flex-wrap items-center gap-2">
        <FileButton
          className={SMALL}
          label="Value change dump to lay beside the run"
          accept=".vcd"
          onFiles={(f) => void read(f)}
        >
          Read a VCD …
        </FileButton>
        {driven !== '' && !readOnly && now > 0 && (
          <button
            type="button"
            className={SMALL}
            {...hint(
              'What the outputs did up to now is kept with the stimulus; later runs are held against it',
            )}
            onClick={() => keepExpected(session)}
          >
            Keep this run as expected
          </button>
        )}
        {isDump && (
          <button type="button" className={SMALL} onClick={() => onDump(null)}>
            Take the file away
          </button>
        )}
        {!isDump && other && !readOnly && (
          <button type="button" className={SMALL} onClick={() => forgetExpected(session)}>
            Expect nothing
          </button>
        )}
      </p>
      {!other && (
        <p className="text-quiet">
          Another run is drawn below this one, with a bar where the two differ: a value change dump, or what
          the outputs are expected to do under a stimulus.
        </p>
      )}
      {other && beside.length === 0 && (
        <p>It has no signal of a lane that is shown. Lanes are matched by the names of inputs and outputs.</p>
      )}
      {beside.length > 0 && (
        <p role="status">
          {wrong.length === 0 ? (
            <b className="text-good">
              {now === 0
                ? 'Nothing has run yet.'
                : `The same up to ${timeText(Math.min(now, other!.until))}.`}
            </b>
          ) : (
            <>
              <b className="text-bad">Not alike</b>, first at {timeText(first)}.
            </>
          )}{' '}
          <span className="text-quiet">
            {beside.length === 1 ? 'One lane is' : `${beside.length} lanes are`} compared
            {isDump ? ' with the file' : ' with what is expected'}.
          </span>
        </p>
      )}
      <ul>
        {wrong.map(({ lane, differs }) => (
          <li key={lane.key} className="flex flex-wrap items-baseline gap-x-2">
            <b>{lane.name}</b>
            {differs.slice(0, NAMED).map(({ from, to }) => (
              <button
                key={from}
                type="button"
                className={SMALL}
                onClick={() => session.time.goToTime(other?.at ? to - 1 : from)}
              >
                {timeText(from)} to {timeText(to)}
              </button>
            ))}
            {differs.length > NAMED && <span className="text-quiet">and {differs.length - NAMED} more</span>}
          </li>
        ))}
      </ul>
    </div>
  );
}
