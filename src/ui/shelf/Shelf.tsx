'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { DropdownMenu } from 'radix-ui';
import { useCallback, useEffect, useRef, useState } from 'react';
import { emptyLesson, type Lesson } from '@/core/circuit/lesson';
import { type Result, sentence } from '@/core/values/result';
import { counted, listed } from '@/core/values/wording';
import { load } from '@/loading/load';
import {
  type LessonFileRecord,
  type LessonRecord,
  randomId,
  storeProblem,
  storeReady,
} from '@/store/database';
import { workAt } from '@/store/exercises';
import { eachOnce, filesOfLessons, lessonOfFile } from '@/store/lesson-files';
import { seedShelf } from '@/store/seed';
import { addLesson, deleteLesson, duplicateLesson, renameLesson, shelf } from '@/store/shelf';
import { DropZone } from '@/ui/controls/DropZone';
import { FileButton } from '@/ui/controls/FileButton';
import { holdKeys } from '@/ui/controls/held-keys';
import { Mark } from '@/ui/controls/Mark';
import { Notice, type NoticeProps } from '@/ui/controls/Notice';
import { NotKept } from '@/ui/controls/NotKept';
import { acceptedAt, readContent } from '@/ui/controls/read-content';
import { type ReadFile, readFiles } from '@/ui/controls/read-files';
import { ThemeButton } from '@/ui/controls/ThemeButton';
import { keepEarlyKeys, takeEarlyKeys } from '@/ui/session/early-keys';
import { dragOut, exportLesson, keepHandle, type LaunchQueue, whyNotReadable } from './computer-files';
import { Exercises } from './Exercises';
import { Kept } from './Kept';
import { Picture } from './Picture';
import { RecentFiles } from './RecentFiles';

interface Item {
  readonly record: LessonRecord;
  readonly lesson: Result<Lesson>;
}

type Said = Omit<NoticeProps, 'dismiss'>;

/** The shelf: all lessons of this browser, and one large way to begin a new one. */
export function Shelf({ demos }: { demos: readonly string[] }) {
  const router = useRouter();
  const [items, setItems] = useState<readonly Item[] | null>(null);
  const [said, setSaid] = useState<Said | null>(null);
  const dismiss = useCallback(() => setSaid(null), []);
  const fail = useCallback(
    (error: unknown) => setSaid({ text: sentence(storeProblem(error)), tone: 'bad' }),
    [],
  );
  const [files, setFiles] = useState<readonly LessonFileRecord[]>([]);
  const [recent, setRecent] = useState<readonly LessonFileRecord[]>([]);
  const reload = useCallback(async () => {
    const files = await filesOfLessons();
    setFiles(files);
    setRecent(await eachOnce(files, MOST_RECENT));
    setItems(await shelf());
  }, []);

  useEffect(() => {
    storeReady()
      .then(() => seedShelf(demos))
      .then(reload)
      .then(sweepUp)
      .catch((error) => {
        setItems([]);
        fail(error);
      });
  }, [demos, reload, fail]);

  const begin = () => {
    keepEarlyKeys();
    addLesson(emptyLesson(randomId(), 'New lesson')).then(
      (lesson) => router.push(`/lesson?id=${lesson.id}`),
      (error) => {
        takeEarlyKeys();
        fail(error);
      },
    );
  };
  const take = async (files: File[], handles: ReadonlyMap<string, FileSystemFileHandle> = NO_HANDLES) => {
    const problems: string[] = [];
    let taken = 0;
    let open = '';
    const read = await readFiles(files);
    const back = await broughtBack(read);
    if (back) {
      await reload();
      setSaid(back);
      return;
    }
    const notes: string[] = [];
    for (const { file, includes } of await designsAmong(read)) {
      const read = await readContent(file, 'shelf', { includes, notes });
      if (!read.ok) problems.push(`${file.name} was left out: ${read.problem.message}.`);
      else if (read.value.is === 'lesson') {
        const { id } = await addLesson(read.value.lesson);
        await keepHandle(id, handles.get(file.name));
        // What the system was asked to open is opened.
        if (handles.size === 1) open = `/lesson?id=${id}`;
        taken++;
      } else if (read.value.is === 'exercise') {
        const work = await workAt(read.value.exercise);
        if (work.ok) open = `/lesson?id=${work.value.id}`;
      } else if (read.value.is === 'hand-in') {
        const { keepHanded } = await load('the work that was handed in', () => import('@/store/returned'));
        const handed = await keepHanded(read.value.handIn);
        if (handed.ok) open = `/returned?id=${encodeURIComponent(handed.value)}`;
        else problems.push(`${file.name} was left out: ${handed.problem.message}.`);
      } else if (read.value.is === 'returned') {
        const { returned } = read.value;
        const { keepReturned } = await load('the marked work', () => import('@/store/returned'));
        await keepReturned(returned);
        open = `/returned?id=${returned.lesson.exercise!.id}`;
      }
    }
    await reload();
    if (problems.length) setSaid({ text: problems.join(' '), tone: 'bad' });
    else if (open) router.push(open);
    else
      setSaid({
        text: [
          taken === 1 ? 'The lesson is on the shelf.' : `${taken} lessons are on the shelf.`,
          ...notes.slice(0, MOST_NOTES).map((note) => `${note[0]!.toUpperCase()}${note.slice(1)}.`),
        ].join(' '),
        tone: 'calm',
      });
  };
  const onFiles = (files: File[]) => {
    take(files).catch(fail);
  };
  const launch = async (handles: readonly FileSystemFileHandle[]) => {
    const files = await Promise.all(handles.map((handle) => handle.getFile()));
    const known = files.length === 1 ? await lessonOfFile(handles[0]!, files[0]!.lastModified) : null;
    if (known) router.push(`/lesson?id=${known}`);
    else await take(files, new Map(handles.map((handle) => [handle.name, handle])));
  };
  const latest = useRef(launch);
  latest.current = launch;
  const openAgain = async (handle: FileSystemFileHandle) => {
    const why = await whyNotReadable(handle);
    if (why) setSaid({ text: `${handle.name} ${why}. What it held is on the shelf.`, tone: 'bad' });
    else await launch([handle]);
  };
  // Files that were opened with Manege where it is installed.
  useEffect(() => {
    (window as { launchQueue?: LaunchQueue }).launchQueue?.setConsumer(({ files }) => {
      if (files?.length)
        storeReady()
          .then(() => latest.current(files))
          .catch(fail);
    });
  }, [fail]);

  return (
    <DropZone hint="Drop lessons or an exercise here" onFiles={onFiles} className="min-h-dvh">
      <div className="mx-auto flex min-h-dvh max-w-6xl flex-col gap-5 px-6 py-4">
        <header className="flex items-center gap-3">
          <Mark size={34} />
          <div>
            <h1 className="text-xl leading-tight font-bold">Manege</h1>
            <p className="text-sm text-quiet">Circuits that run while you draw them</p>
          </div>
          <div className="ml-auto flex items-center gap-2">
            <FileButton
              label="Lesson, exercise or Verilog files"
              multiple
              accept={`${acceptedAt('shelf')},.zip`}
              onFiles={onFiles}
            >
              Import a file
            </FileButton>
            <RecentFiles files={recent} onOpen={(handle) => void openAgain(handle).catch(fail)} />
            <Link href="/marking" className="button">
              Marking
            </Link>
            <ThemeButton />
          </div>
        </header>
        {items !== null && <NotKept />}
        <main className="flex flex-col gap-8">
          <div className="grid grid-cols-[repeat(auto-fill,minmax(20rem,1fr))] gap-5">
            <button
              type="button"
              onClick={begin}
              className="flex min-h-56 cursor-pointer flex-col items-center justify-center gap-2 rounded-2xl border-2 border-dashed border-accent bg-raised text-accent hover:bg-accent-soft"
            >
              <svg width="56" height="56" viewBox="0 0 56 56" aria-hidden="true">
                <circle cx="28" cy="28" r="26" fill="none" stroke="currentColor" strokeWidth="3" />
                <path d="M28 16v24M16 28h24" stroke="currentColor" strokeWidth="4" strokeLinecap="round" />
              </svg>
              <span className="text-lg font-bold">New lesson</span>
              <span className="text-sm text-quiet">an empty sheet, ready to draw</span>
            </button>
            {items === null && <p className="p-6 text-quiet">Fetching your lessons …</p>}
            {items?.map((item, i) => (
              <Card
                key={item.record.id}
                item={item}
                isFirst={i === 0}
                file={files.find(({ lesson }) => lesson === item.record.id)?.handle.name}
                reload={reload}
                say={setSaid}
                fail={fail}
              />
            ))}
          </div>
          {items !== null && <Exercises say={setSaid} fail={fail} />}
          <HowItGoes />
        </main>
        <Kept say={(text, tone) => setSaid({ text, tone })} />
      </div>
      {said && <Notice {...said} dismiss={dismiss} />}
    </DropZone>
  );
}

/** Removes the remains of deleted lessons; if that fails, the next visit tries again. */
async function sweepUp(): Promise<void> {
  const { sweep } = await load('what sweeps', () => import('@/store/everything'));
  await sweep(Date.now()).catch(() => {});
}

const NO_HANDLES: ReadonlyMap<string, FileSystemFileHandle> = new Map();

/** Files that are offered to be opened again. */
const MOST_RECENT = 8;

/** What is told of lessons that were made of files, at most. */
const MOST_NOTES = 3;

/** Files with those that belong to them: a design in Verilog may have several, which came together. */
async function designsAmong(
  files: readonly ReadFile[],
): Promise<{ readonly file: ReadFile; readonly includes?: ReadonlyMap<string, string> }[]> {
  const isVerilog = ({ name }: ReadFile) => name.toLowerCase().endsWith('.v');
  if (files.length < 2 || !files.some(isVerilog)) return files.map((file) => ({ file }));
  const { mainFiles, filesNamed } = await load(
    'the reader of Verilog',
    () => import('@/core/formats/verilog/several-files'),
  );
  const texts = files.flatMap(({ name, text }) => (text.ok ? [{ name, text: text.value }] : []));
  const includes = new Map(texts.map(({ name, text }) => [name, text]));
  const main = new Set(mainFiles(texts.filter(({ name }) => name.toLowerCase().endsWith('.v'))));
  const named = new Set(texts.flatMap(({ text }) => filesNamed(text)));
  return files
    .filter((file) => (isVerilog(file) ? !file.text.ok || main.has(file.name) : !named.has(file.name)))
    .map((file) => ({ file, includes }));
}

/** Brings everything back from a file of `Save everything`; null where the files are none of these. */
async function broughtBack(read: readonly ReadFile[]): Promise<Said | null> {
  if (!read.some(({ name }) => name.endsWith('manege-everything.json'))) return null;
  const { bringBack } = await load('what brings everything back', () => import('@/store/everything'));
  const files = read.flatMap(({ name, text }) => (text.ok ? [{ name, text: text.value }] : []));
  const { lessons, exercises, handIns, markings, returned, known, problems } = await bringBack(files);
  const counts = [
    counted(lessons, 'lesson'),
    counted(exercises, 'exercise'),
    counted(handIns, 'hand-in'),
    ...(markings > 0 ? [counted(markings, 'marking')] : []),
    ...(returned > 0 ? [counted(returned, 'marked work', 'marked works')] : []),
  ];
  return {
    text: [
      `${listed(counts)} brought back${known > 0 ? `; ${known} ${known === 1 ? 'was' : 'were'} here already` : ''}.`,
      ...problems.slice(0, 5),
    ].join(' '),
    tone: problems.length > 0 ? 'bad' : 'calm',
  };
}

const STEPS = [
  ['Draw', 'Place parts from the ring or by typing their names, and drag from pin to pin.'],
  ['Try', 'Flip switches, walk the truth table row by row, let a clock run and go back in time.'],
  ['Hand out', 'Make an exercise of a sheet: a link or a file with the task and the expected function.'],
  ['Mark', 'Drop the files that come back on the marking page: each row is checked.'],
] as const;

function HowItGoes() {
  return (
    <ol className="mt-3 grid grid-cols-4 gap-5 max-md:grid-cols-2" aria-label="How it goes">
      {STEPS.map(([title, text], i) => (
        <li key={title} className="flex gap-3">
          <span
            className="flex size-8 shrink-0 items-center justify-center rounded-full border-2 border-accent font-bold text-accent"
            aria-hidden="true"
          >
            {i + 1}
          </span>
          <div>
            <h2 className="leading-8 font-bold">{title}</h2>
            <p className="text-sm text-quiet">{text}</p>
          </div>
        </li>
      ))}
    </ol>
  );
}

interface CardProps {
  readonly item: Item;
  readonly isFirst: boolean;
  /** The name of the file that it is saved to. */
  readonly file: string | undefined;
  readonly reload: () => Promise<void>;
  readonly say: (said: Said) => void;
  readonly fail: (error: unknown) => void;
}

function Card({ item, isFirst, file, reload, say, fail }: CardProps) {
  const { record, lesson } = item;
  const [renaming, setRenaming] = useState(false);
  const wantsName = useRef(false);
  const title = lesson.ok ? lesson.value.title : record.title;
  const rename = (text: string) => {
    setRenaming(false);
    if (text.trim() && text.trim() !== title) renameLesson(record.id, text.trim()).then(reload, fail);
  };
  const remove = () =>
    deleteLesson(record.id).then((putBack) => {
      say({
        text: `“${title}” deleted.`,
        tone: 'calm',
        offer: { label: 'Undo', run: () => putBack().then(reload, fail) },
      });
      return reload();
    }, fail);
  return (
    <article className="relative flex flex-col overflow-hidden rounded-2xl border border-hairline bg-raised hover:border-quiet">
      {lesson.ok ? (
        <Link
          href={`/lesson?id=${record.id}`}
          // All cards lead to one page: fetching it ahead for one of them serves all.
          prefetch={isFirst ? null : false}
          aria-label={`Open ${title}`}
          // All of the card leads there, but for what lies above the link.
          className="bg-paper after:absolute after:inset-0"
          onClick={({ ctrlKey, metaKey, shiftKey }) => !ctrlKey && !metaKey && !shiftKey && keepEarlyKeys()}
          onDragStart={(event) => dragOut(event.dataTransfer, lesson.value)}
        >
          <Picture lesson={lesson.value} />
        </Link>
      ) : (
        <p className="h-40 p-4 text-sm text-bad">This lesson cannot be read: {lesson.problem.message}.</p>
      )}
      <div className="flex items-center gap-2 border-t border-hairline px-4 py-2.5">
        <div className="min-w-0 flex-1">
          {renaming ? (
            <input
              className="field relative z-10 h-8 font-bold"
              defaultValue={title}
              aria-label="Title of the lesson"
              maxLength={120}
              // biome-ignore lint/a11y/noAutofocus: “Rename” was pressed
              autoFocus
              onFocus={(event) => event.target.select()}
              onBlur={(event) => rename(event.target.value)}
              onKeyDown={(event) => {
                if (event.key === 'Enter') event.currentTarget.blur();
                if (event.key === 'Escape') setRenaming(false);
              }}
            />
          ) : (
            <h2 className="truncate font-bold">
              <bdi>{title}</bdi>
            </h2>
          )}
          <p className="truncate text-sm text-quiet">
            {lesson.ok ? [summary(lesson.value), ...(file ? [file] : [])].join(' · ') : 'damaged'}
          </p>
        </div>
        <DropdownMenu.Root>
          <DropdownMenu.Trigger className="icon-button relative z-10" aria-label={`More about ${title}`}>
            ⋯
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content
              className="menu"
              align="end"
              onCloseAutoFocus={(event) => {
                event.preventDefault();
                // The field comes when the menu no longer keeps the focus.
                if (wantsName.current) setRenaming(true);
                wantsName.current = false;
              }}
            >
              <DropdownMenu.Item
                className="menu-item"
                disabled={!lesson.ok}
                onSelect={() => {
                  wantsName.current = true;
                  holdKeys()();
                }}
              >
                Rename
              </DropdownMenu.Item>
              <DropdownMenu.Item
                className="menu-item"
                disabled={!lesson.ok}
                onSelect={() => duplicateLesson(record.id).then(reload, fail)}
              >
                Duplicate
              </DropdownMenu.Item>
              <DropdownMenu.Item
                className="menu-item"
                disabled={!lesson.ok}
                onSelect={() => lesson.ok && exportLesson(lesson.value)}
              >
                Export as a file
              </DropdownMenu.Item>
              <DropdownMenu.Item className="menu-item text-bad" onSelect={remove}>
                Delete
              </DropdownMenu.Item>
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </div>
    </article>
  );
}

/** How many tasks of an exercise are solved, where there are several. */
function progress({ exercise, work }: Lesson): string[] {
  const tasks = exercise?.tasks ?? [];
  if (tasks.length < 2) return [];
  return [`${tasks.filter(({ id }) => work?.checks[id]?.solved).length} of ${tasks.length} solved`];
}

function summary(lesson: Lesson): string {
  const parts = lesson.sheets.reduce((sum, s) => sum + s.parts.size, 0);
  const words = [parts === 0 ? 'empty' : parts === 1 ? '1 part' : `${parts} parts`];
  if (lesson.sheets.length > 1) words.push(`${lesson.sheets.length} sheets`);
  if (lesson.exercise) words.unshift('your work at an exercise', ...progress(lesson));
  return words.join(' · ');
}
