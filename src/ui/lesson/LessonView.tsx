'use client';

import { type ReactNode, useCallback, useEffect, useState } from 'react';
import { isMomentary } from '@/core/parts/catalogue';
import { DONE } from '@/core/values/result';
import { renameLesson } from '@/session/changes/lesson';
import type { Step } from '@/session/history';
import { hasClock, isTimed, movesByItself } from '@/session/moment';
import type { Session } from '@/session/session';
import { stepMoment } from '@/session/step';
import { told } from '@/session/transaction';
import { Mark } from '@/ui/controls/Mark';
import { Notice } from '@/ui/controls/Notice';
import { ThemeButton } from '@/ui/controls/ThemeButton';
import { toggleProjector } from '@/ui/controls/theme';
import { freeKeysAfterPresses, takesKeys } from '../session/key-owner';
import { SessionProvider, useSession, useSessionState } from '../session/session-context';
import { Faces } from './Faces';
import { FacesMenu } from './FacesMenu';
import type { Face } from './face';
import { Help } from './Help';
import { MomentBar } from './MomentBar';
import { SheetTabs } from './SheetTabs';

interface Props {
  readonly session: Session;
  /** What stands left of the drawing: the task of an exercise. */
  readonly beside?: ReactNode;
  /** Buttons at the right end of the bar. */
  readonly actions?: ReactNode;
  /** How far what was done is kept, beside the title. */
  readonly saved?: ReactNode;
  /** A line under the bar that must not be missed. */
  readonly banner?: ReactNode;
  /** Where the mark leads. */
  readonly home?: { readonly href: string; readonly label: string };
}

/** One open lesson: the bar with the moment, and the faces. */
export function LessonView({ session, ...rest }: Props) {
  return (
    <SessionProvider value={session}>
      <View {...rest} />
    </SessionProvider>
  );
}

function View({
  beside,
  actions,
  saved,
  banner,
  home = { href: '/', label: 'All lessons' },
}: Omit<Props, 'session'>) {
  const session = useSession();
  const notice = useSessionState((s) => s.notice);
  const open = useOpenFaces();
  useLessonKeys(session);
  useEffect(freeKeysAfterPresses, []);
  useStepEnds(session);
  useErrorsTold(session);
  const canUndo = useSessionState((s) => s.notice !== null && s.history.undo.at(-1)?.id === s.notice.undoes);
  const dismiss = useCallback(() => session.dismissNotice(), [session]);
  const undo = useCallback(() => session.undo(), [session]);
  return (
    <div className="flex h-dvh flex-col gap-1.5 px-2 pb-2">
      <header className="flex h-14 shrink-0 items-center gap-2.5 overflow-hidden px-1.5">
        <a href={home.href} aria-label={home.label} title={home.label} className="shrink-0 rounded-full">
          <Mark />
        </a>
        <Title />
        {saved}
        <SheetTabs />
        <History />
        <div className="ml-auto flex min-w-0 items-center gap-2">
          <MomentBar />
          <FacesMenu open={open.faces} onChange={open.change} />
          {actions}
          <div className="flex shrink-0">
            <Help />
            <ThemeButton />
          </div>
        </div>
      </header>
      {banner}
      <main className="flex min-h-0 flex-1 flex-col">
        <Faces open={open.faces} beside={beside} />
      </main>
      {notice && (
        <Notice text={notice.text} tone={notice.tone} undo={canUndo ? undo : undefined} dismiss={dismiss} />
      )}
    </div>
  );
}

/** A sensible pair is open from the start; what the user opens or closes stays so. */
function useOpenFaces() {
  const timed = useSessionState((s) => isTimed(s.netlist, s.lesson.settings.delays));
  const moves = useSessionState((s) => movesByItself(s.netlist) && s.netlist.storage.length > 0);
  const clocked = useSessionState((s) => hasClock(s.netlist));
  const wantsRun = useSessionState((s) => s.taskNeedsTime);
  const [chosen, setChosen] = useState<Partial<Record<Face, boolean>>>({});
  const usual: Record<Face, boolean> = {
    table: !clocked && !moves && !wantsRun,
    formula: false,
    map: false,
    time: timed || wantsRun,
    states: false,
  };
  const faces = new Set((Object.keys(usual) as Face[]).filter((face) => chosen[face] ?? usual[face]));
  return { faces, change: (face: Face, on: boolean) => setChosen((c) => ({ ...c, [face]: on })) };
}

function Title() {
  const session = useSession();
  const title = useSessionState((s) => s.lesson.title);
  const readOnly = useSessionState((s) => s.readOnly);
  const [typed, setTyped] = useState<string | null>(null);
  if (readOnly) return <h1 className="max-w-52 truncate font-bold">{title}</h1>;
  return (
    <h1 className="min-w-0 shrink-0">
      <input
        className="h-8 max-w-52 truncate rounded-lg border border-transparent bg-transparent px-1.5 font-bold hover:border-hairline focus:bg-raised"
        style={{ width: `${Math.min(26, Math.max(8, (typed ?? title).length + 2))}ch` }}
        value={typed ?? title}
        aria-label="Title of the lesson"
        maxLength={120}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => {
          setTyped(null);
          return typed === null ? DONE : renameLesson(session, typed);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') {
            setTyped(null);
            event.currentTarget.blur();
          }
        }}
      />
    </h1>
  );
}

function History() {
  const session = useSession();
  const { undo, redo } = useSessionState((s) => s.history);
  return (
    <div className="flex shrink-0">
      <button
        type="button"
        className="icon-button"
        disabled={undo.length === 0}
        onClick={() => session.undo()}
        aria-label="Undo"
        title={`${stepName('Undo', undo.at(-1))} (Ctrl Z)`}
      >
        ↶
      </button>
      <button
        type="button"
        className="icon-button"
        disabled={redo.length === 0}
        onClick={() => session.redo()}
        aria-label="Redo"
        title={`${stepName('Redo', redo.at(-1))} (Ctrl Shift Z)`}
      >
        ↷
      </button>
    </div>
  );
}

/** `Undo: move 3 parts`, or the word alone where there is nothing. */
const stepName = (word: string, step: Step | undefined) => (step ? `${word}: ${step.name}` : word);

/** A hand that goes elsewhere ends the step of undo that it was at. */
function useStepEnds(session: Session): void {
  useEffect(() => {
    const end = () => session.endStep();
    window.addEventListener('pointerdown', end, true);
    window.addEventListener('focusin', end, true);
    return () => {
      window.removeEventListener('pointerdown', end, true);
      window.removeEventListener('focusin', end, true);
    };
  }, [session]);
}

/** Tells of an error in the middle of something that was pressed: silence would leave a person waiting. */
function useErrorsTold(session: Session): void {
  useEffect(() => {
    const tell = (error: unknown) => {
      const message = error instanceof Error ? error.message : String(error);
      session.say(`That stopped with an unexpected error (${message}). What you did before is kept.`, 'bad');
    };
    const onError = (event: ErrorEvent) => event.error && tell(event.error);
    const onRejection = (event: PromiseRejectionEvent) => tell(event.reason);
    window.addEventListener('error', onError);
    window.addEventListener('unhandledrejection', onRejection);
    return () => {
      window.removeEventListener('error', onError);
      window.removeEventListener('unhandledrejection', onRejection);
    };
  }, [session]);
}

/** Keys that work wherever the focus is, but for fields: undo, redo, and the arrows that move the moment. */
function useLessonKeys(session: Session): void {
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if (event.defaultPrevented || takesKeys(event.target)) return;
      const command = event.ctrlKey || event.metaKey;
      const bound = command || event.altKey ? null : session.boundTo(event.key);
      if (bound) {
        event.preventDefault();
        if (isMomentary(bound)) session.put([[session.keyOf(bound.id), 1]]);
        else if (!event.repeat) session.flip(bound.id);
        return;
      }
      if (event.key === 'F9') {
        event.preventDefault();
        toggleProjector();
        return;
      }
      const letter = event.key.toLowerCase();
      if (command && letter === 'z') told(event.shiftKey ? session.redo() : session.undo());
      else if (command && letter === 'y') told(session.redo());
      else if (command || event.altKey || event.shiftKey) return;
      else if (event.key === 'ArrowRight') stepMoment(session);
      else if (event.key === 'ArrowLeft') stepMoment(session, true);
      else return;
      event.preventDefault();
    };
    const release = (event: KeyboardEvent) => {
      const bound = session.boundTo(event.key);
      if (bound && isMomentary(bound)) session.put([[session.keyOf(bound.id), 0]]);
    };
    window.addEventListener('keydown', key);
    window.addEventListener('keyup', release);
    return () => {
      window.removeEventListener('keydown', key);
      window.removeEventListener('keyup', release);
    };
  }, [session]);
}
