'use client';

import { type ReactNode, useCallback, useEffect, useMemo, useState } from 'react';
import { chordText } from '@/commands/chord';
import { type Command, nameOf } from '@/commands/command';
import { REDO, UNDO } from '@/commands/history';
import { DONE } from '@/core/values/result';
import { renameLesson } from '@/session/changes/lesson';
import type { Session } from '@/session/session';
import { Bar, Fold } from '@/ui/controls/Bar';
import { HomeLink } from '@/ui/controls/HomeLink';
import { hint } from '@/ui/controls/hint';
import { Mark } from '@/ui/controls/Mark';
import { Notice } from '@/ui/controls/Notice';
import { ThemeButton } from '@/ui/controls/ThemeButton';
import { useNarrow } from '@/ui/controls/useMedia';
import { Editor, EditorProvider, useEditor } from '@/ui/session/editor-context';
import { freeKeysAfterPresses } from '@/ui/session/key-owner';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { Dialogs } from './Dialogs';
import { Faces } from './Faces';
import { FacesMenu } from './FacesMenu';
import { Help } from './Help';
import { MomentBar } from './MomentBar';
import { SheetTabs } from './SheetTabs';
import { type Page, usePage } from './usePage';

interface Props {
  readonly session: Session;
  /** The ids of the faces that are open at the beginning; without it, a sensible pair. */
  readonly faces?: readonly string[] | undefined;
  /** The pane left of the drawing: the task of an exercise. */
  readonly beside?: ReactNode;
  /** The main button at the right end of the bar, and those beside it that give way where there is little room. */
  readonly actions?: ReactNode;
  readonly more?: ReactNode;
  /** How far the work is kept, beside the title. */
  readonly saved?: ReactNode;
  /** A line under the bar that must not be missed. */
  readonly banner?: ReactNode;
  /** Where the mark leads. */
  readonly home?: { readonly href: string; readonly label: string };
}

/** One open lesson: the bar with the moment, and the faces. */
export function LessonView({ session, faces, ...rest }: Props) {
  const page = usePage(session, faces);
  const editor = useMemo(() => new Editor(session, page.context), [session, page.context]);
  return (
    <EditorProvider value={editor}>
      <View page={page} {...rest} />
    </EditorProvider>
  );
}

interface ViewProps extends Omit<Props, 'session' | 'faces'> {
  readonly page: Page;
}

function View({
  page,
  beside,
  actions,
  more,
  saved,
  banner,
  home = { href: '/', label: 'All lessons' },
}: ViewProps) {
  const session = useSession();
  const isNarrow = useNarrow();
  const notice = useSessionState((s) => s.notice);
  useEffect(freeKeysAfterPresses, []);
  useStepEnds(session);
  useErrorsTold(session);
  const canUndo = useSessionState((s) => s.notice !== null && s.history.undo.at(-1)?.id === s.notice.undoes);
  const dismiss = useCallback(() => session.dismissNotice(), [session]);
  const offers = {
    undo: { label: 'Undo', run: () => session.undo() },
    'power-up': { label: 'Back to power-up', run: () => session.time.restart() },
  };
  const offer = canUndo ? offers.undo : notice?.offers && offers[notice.offers];
  return (
    <div className="flex h-dvh flex-col gap-1.5 px-2 pb-2">
      <Bar className="flex h-14 shrink-0 items-center gap-2.5 px-1.5">
        <HomeLink href={home.href} aria-label={home.label} {...hint(home.label)} className="rounded-full">
          <Mark />
        </HomeLink>
        <Title />
        {saved}
        <SheetTabs isRenaming={page.dialog === 'rename-sheet'} onRenamed={page.closeDialog} />
        <History />
        <span className="ml-auto" />
        {!isNarrow && <MomentBar />}
        <Fold way={5} label="More for the lesson">
          <FacesMenu open={page.faces} />
          <Fold way={4} label="More for the lesson">
            {more}
            <div className="order-2 flex">
              <Help />
              <ThemeButton />
            </div>
          </Fold>
        </Fold>
        {actions && <div className="order-1">{actions}</div>}
      </Bar>
      {isNarrow && (
        <Bar className="flex shrink-0 items-center">
          <MomentBar />
        </Bar>
      )}
      {banner}
      <main className="flex min-h-0 flex-1 flex-col">
        <Faces open={page.faces} beside={beside} />
      </main>
      <Dialogs open={page.dialog} onClose={page.closeDialog} />
      {notice && <Notice text={notice.text} tone={notice.tone} offer={offer} dismiss={dismiss} />}
    </div>
  );
}

function Title() {
  const session = useSession();
  const title = useSessionState((s) => s.lesson.title);
  const readOnly = useSessionState((s) => s.readOnly);
  const [typed, setTyped] = useState<string | null>(null);
  if (readOnly)
    return (
      <h1 className="max-w-52 truncate font-bold" data-way={5}>
        {title}
      </h1>
    );
  return (
    <h1 data-way={5}>
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
  return (
    <div className="flex" data-way={7}>
      <HistoryButton command={UNDO} sign="↶" />
      <HistoryButton command={REDO} sign="↷" />
    </div>
  );
}

function HistoryButton({ command, sign }: { command: Command; sign: string }) {
  const editor = useEditor();
  useSessionState((s) => s.history);
  useSessionState((s) => s.readOnly);
  return (
    <button
      type="button"
      className="icon-button"
      disabled={!command.when(editor).ok}
      onClick={() => command.run(editor)}
      aria-label={command.name}
      {...hint(`${nameOf(command, editor)} (${chordText(command.keys![0]!)})`)}
    >
      {sign}
    </button>
  );
}

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
