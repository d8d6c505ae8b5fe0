import { ClassMarks } from '../exercise/teacher-marks';
import { type KeyPair, seal, unseal } from '../sealing/seal';
import { done, located, type Result, refusal, refused } from '../values/result';
import { firstIssue, text, title, z } from '../values/schema';
import { headingProblem, readJson } from './read-json';

export const MARKING_VERSION = 1;

const Content = z.object({
  exercise: z.object({ id: text(64), title: title(120) }),
  /** All that was given, where the file stays with its teacher. */
  marks: z.optional(ClassMarks),
  /** The same sealed to the teacher's key, where it is handed on. */
  sealed: z.optional(z.object({ to: text(100), box: text(20_000_000) })),
});

/** What a teacher gave for a class, as a file: open, or sealed to the teacher's key. */
export interface MarkingFile {
  readonly exercise: { readonly id: string; readonly title: string };
  readonly marks: ClassMarks | null;
  readonly sealed: { readonly to: string; readonly box: string } | null;
}

const written = (content: object): string =>
  `${JSON.stringify({ format: 'manege-marking', version: MARKING_VERSION, ...content }, null, 2)}\n`;

/** The marks as a file that anyone can read who has it. */
export const writeMarking = (exercise: MarkingFile['exercise'], marks: ClassMarks): string =>
  written({ exercise: { id: exercise.id, title: exercise.title }, marks });

/** The marks as a file that only the teacher's key opens. */
export const writeSealedMarking = (
  { id, title: name }: MarkingFile['exercise'],
  marks: ClassMarks,
  publicKey: string,
): string =>
  written({
    exercise: { id, title: name },
    sealed: { to: publicKey, box: seal(JSON.stringify(marks), publicKey) },
  });

export function markingFromJson(value: unknown): Result<MarkingFile> {
  const heading = headingProblem(value, 'manege-marking', MARKING_VERSION);
  if (heading) return refusal(heading);
  const parsed = Content.safeParse(value);
  if (!parsed.success) return refusal(located(firstIssue(parsed.error)));
  const { exercise, marks = null, sealed = null } = parsed.data;
  if ((marks === null) === (sealed === null))
    return refused('no-marks', 'it holds no marks, or holds them twice');
  return done({ exercise, marks, sealed });
}

export function readMarking(content: string): Result<MarkingFile> {
  const json = readJson(content);
  return json.ok ? markingFromJson(json.value) : json;
}

/** The marks in a file, opened with the teacher's keys where they are sealed. */
export function marksIn({ marks, sealed }: MarkingFile, keys: KeyPair | null): Result<ClassMarks> {
  if (marks) return done(marks);
  if (!keys) return refused('other-key', 'it is sealed to a key that is not here: open its key file first');
  const opened = unseal(sealed!.box, keys);
  if (!opened.ok) return opened;
  try {
    const read = ClassMarks.safeParse(JSON.parse(opened.value));
    return read.success ? done(read.data) : refusal(located(firstIssue(read.error)));
  } catch {
    return refused('damaged', 'what is sealed in it is damaged');
  }
}
