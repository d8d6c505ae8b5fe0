'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { type Lesson, sheetOf } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import type { Proof, Row } from '@/core/logic/equivalence/prove';
import {
  asGuest,
  calledAs,
  type Pair,
  pairsByName,
  sheetOfFormulas,
  unpaired,
} from '@/core/synthesis/to-compare';
import { plainText } from '@/core/values/markup';
import { sameName } from '@/core/values/names';
import { done, mapped, problemOf, type Result, refusal, refused, sentence } from '@/core/values/result';
import { otherLessons, readLesson } from '@/session/other-lessons';
import { showDifference } from '@/session/show-proof';
import { Marked } from '@/ui/controls/Marked';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { prover } from '@/workers/prove-client';
import { DifferenceTable } from './DifferenceTable';

type Work =
  | { readonly state: 'idle' }
  | { readonly state: 'working'; readonly share: number }
  | { readonly state: 'done'; readonly made: Result<Proof> };

/** The value in the list of sheets that stands for typed formulas. */
const FORMULAS = '';
/** The prefix of entries in that list that are other lessons. */
const LESSON = 'lesson ';

/** Another lesson with the sheet of it that is compared. */
interface Guest {
  readonly lesson: Lesson;
  readonly sheet: string;
}

/** Compares the open sheet with another one, or with formulas: proved the same, or the case that shows that they are not. */
export function CompareDialog({ onClose }: { onClose: () => void }) {
  const session = useSession();
  const lesson = useSessionState((s) => s.lesson);
  const rootId = useSessionState((s) => s.rootId);
  const others = lesson.sheets.filter((s) => s.id !== rootId);
  const [other, setOther] = useState(others[0]?.id ?? FORMULAS);
  const [lessons, setLessons] = useState<readonly { id: string; title: string }[]>([]);
  const [guest, setGuest] = useState<Result<Guest> | null>(null);
  const wanted = useRef(other);
  const [text, setText] = useState('');
  const [byHand, setByHand] = useState<readonly Pair[]>([]);
  const [work, setWork] = useState<Work>({ state: 'idle' });
  const cancel = useRef<(() => void) | null>(null);
  useEffect(() => () => cancel.current?.(), []);
  useEffect(() => void otherLessons(lesson.id).then(setLessons), [lesson.id]);
  const mine = sheetOf(lesson, rootId)!;
  const isHere = other !== FORMULAS && !other.startsWith(LESSON);
  const said = useMemo(() => {
    const { sheets } = lesson;
    if (other === FORMULAS) return mapped(sheetOfFormulas(text, mine), (sheet) => ({ sheet, sheets }));
    if (isHere) return done({ sheet: sheetOf(lesson, other)!, sheets });
    if (guest === null) return refused('still-reading', 'the lesson is being read …');
    return mapped(guest, ({ lesson: from, sheet }) => asGuest(lesson, from, sheet)!);
  }, [other, isHere, text, mine, lesson, guest]);
  const theirs = said.ok ? said.value.sheet : null;
  const byName = useMemo(() => (theirs ? pairsByName(mine, theirs) : []), [mine, theirs]);
  const pairs = byName.map((p) => byHand.find((h) => h.what === p.what && h.mine === p.mine) ?? p);
  const begin = () => {
    if (!theirs || !said.ok) return;
    setWork({ state: 'working', share: 0 });
    const called = calledAs(theirs, pairs);
    const made = prover(mine, called, said.value.sheets, (share) => setWork({ state: 'working', share }));
    cancel.current = made.cancel;
    made.result.then(
      (value) => setWork({ state: 'done', made: value }),
      (error: Error) => setWork({ state: 'done', made: refusal(problemOf(error)) }),
    );
  };
  const choose = (next: string) => {
    setOther(next);
    wanted.current = next;
    setByHand([]);
    stop();
    if (!next.startsWith(LESSON)) return;
    setGuest(null);
    void readLesson(next.slice(LESSON.length)).then((read) => {
      // Meanwhile another one may have been chosen.
      if (wanted.current !== next) return;
      setGuest(mapped(read, (from) => ({ lesson: from, sheet: from.sheets[0]!.id })));
    });
  };
  /** A row by the names that the other sheet has. */
  const calledTheirs = (row: Row): Row =>
    Object.fromEntries(
      Object.entries(row).map(([name, value]) => {
        const pair = pairs.find((p) => p.what === 'input' && sameName(p.mine, name));
        return [pair?.theirs ?? name, value];
      }),
    );
  const stop = () => {
    cancel.current?.();
    setWork({ state: 'idle' });
  };
  return (
    <Modal
      title="The same, or not"
      says="Every case is covered: “the same” is a proof."
      onClose={onClose}
      foot={
        work.state === 'working' ? (
          <DialogFoot onClose={onClose}>
            <button type="button" className="button" onClick={stop}>
              Stop
            </button>
          </DialogFoot>
        ) : (
          <DialogFoot onClose={onClose} main={{ name: 'Compare', onClick: begin, isOff: !theirs }} />
        )
      }
    >
      <label className="flex flex-wrap items-center gap-2">
        <span>
          <b>{mine.name}</b> with
        </span>
        <select className="field max-w-72" value={other} onChange={(event) => choose(event.target.value)}>
          {others.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
          <option value={FORMULAS}>formulas that I type</option>
          {lessons.length > 0 && (
            <optgroup label="Other lessons">
              {lessons.map(({ id, title }) => (
                <option key={id} value={`${LESSON}${id}`}>
                  {title}
                </option>
              ))}
            </optgroup>
          )}
        </select>
      </label>
      {other.startsWith(LESSON) && (
        <GuestSheet
          guest={guest}
          onChange={(sheet) => {
            if (guest?.ok) setGuest(done({ ...guest.value, sheet }));
            setByHand([]);
            stop();
          }}
        />
      )}
      {other === FORMULAS && (
        <div className="flex flex-col gap-1">
          <textarea
            className="field h-24 resize-y py-1.5 font-mono"
            aria-label="Formulas, a line for each output"
            placeholder={byName.length ? undefined : 'Drive = Key Bars Clear'}
            value={text}
            maxLength={20_000}
            spellCheck={false}
            onChange={(event) => {
              setText(event.target.value);
              stop();
            }}
          />
          <p className={`text-sm ${said.ok || text.trim() === '' ? 'text-quiet' : 'text-bad'}`} role="status">
            {said.ok
              ? 'A line for each output, in any notation.'
              : text.trim() === ''
                ? "A line for each output, in any notation: Y = A'B + C."
                : sentence(said.problem)}
          </p>
        </div>
      )}
      {theirs && pairs.some((p) => p.theirs === null || byHand.includes(p)) && (
        <Pairing theirs={theirs} pairs={pairs} byHand={byHand} onChange={setByHand} />
      )}
      {work.state === 'working' && (
        <progress className="w-full" value={work.share} max={1} aria-label="Part of the work that is done" />
      )}
      {work.state === 'done' && !work.made.ok && (
        <p role="alert" className="text-bad">
          They cannot be compared: {work.made.problem.message}.
        </p>
      )}
      {work.state === 'done' && work.made.ok && (
        <Said
          proof={work.made.value}
          names={[mine.name, theirs?.name ?? '']}
          canShowOther={isHere}
          onShow={(rows, at) => {
            if (at === 0) showDifference(session, rootId, rows);
            else showDifference(session, other, rows.map(calledTheirs));
            onClose();
          }}
        />
      )}
    </Modal>
  );
}

/** The choice of a sheet, if the other lesson has several. */
function GuestSheet({ guest, onChange }: { guest: Result<Guest> | null; onChange: (sheet: string) => void }) {
  if (guest === null) return <p className="text-quiet">The lesson is being read …</p>;
  if (!guest.ok)
    return (
      <p role="alert" className="text-bad">
        {sentence(guest.problem)}
      </p>
    );
  if (guest.value.lesson.sheets.length === 1) return null;
  return (
    <label className="flex items-center gap-2">
      its sheet
      <select
        className="field max-w-72"
        value={guest.value.sheet}
        onChange={(event) => onChange(event.target.value)}
      >
        {guest.value.lesson.sheets.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </select>
    </label>
  );
}

interface PairingProps {
  readonly theirs: Sheet;
  readonly pairs: readonly Pair[];
  readonly byHand: readonly Pair[];
  readonly onChange: (byHand: readonly Pair[]) => void;
}

/** Inputs and outputs that have no partner of the same name are given one. */
function Pairing({ theirs, pairs, byHand, onChange }: PairingProps) {
  const shown = pairs.filter((p) => p.theirs === null || byHand.includes(p));
  return (
    <fieldset className="flex flex-col gap-1.5 rounded-lg border border-hairline p-3">
      <legend className="px-1 text-sm">The names differ: which one corresponds to which?</legend>
      {shown.map((pair) => (
        <label key={`${pair.what} ${pair.mine}`} className="flex items-center gap-2">
          <span className="w-40 truncate text-right">
            <span className="text-sm text-quiet">{pair.what}</span> <Marked text={pair.mine} />
          </span>
          <span aria-hidden="true">=</span>
          <select
            className="field h-8 max-w-52"
            value={pair.theirs ?? ''}
            onChange={(event) => {
              const rest = byHand.filter((p) => p.what !== pair.what || p.mine !== pair.mine);
              onChange([...rest, { ...pair, theirs: event.target.value || null }]);
            }}
          >
            <option value="">not there</option>
            {[...(pair.theirs ? [pair.theirs] : []), ...unpaired(theirs, pairs, pair.what)].map((name) => (
              <option key={name} value={name}>
                {plainText(name)}
              </option>
            ))}
          </select>
        </label>
      ))}
    </fieldset>
  );
}

interface SaidProps {
  readonly canShowOther: boolean;
  readonly proof: Proof;
  readonly names: readonly [string, string];
  readonly onShow: (rows: readonly Row[], at: 0 | 1) => void;
}

function Said({ proof, names, canShowOther, onShow }: SaidProps) {
  if (proof.verdict === 'equivalent')
    return (
      <p role="status" className="text-lg">
        <b className="text-good">The same.</b>{' '}
        <span className="text-base text-quiet">Proved by {proof.method}.</span>
      </p>
    );
  if (proof.verdict === 'undecided')
    return (
      <p role="status">
        <b>Not decided.</b> This cannot be proved within the memory limit: {proof.reason}.
      </p>
    );
  const { inputs, outputs } = proof;
  return (
    <div role="status" className="flex flex-col gap-3">
      <DifferenceTable inputs={inputs} names={names} values={[outputs.a, outputs.b]} />
      <div className="flex flex-wrap gap-2">
        {names.slice(0, canShowOther ? 2 : 1).map((name, at) => (
          <button
            key={name}
            type="button"
            className="button small"
            onClick={() => onShow(inputs, at as 0 | 1)}
          >
            Show it on {name}
          </button>
        ))}
      </div>
    </div>
  );
}
