import type { Exercise } from '../circuit/exercise';
import type { Lesson } from '../circuit/lesson';
import type { Sheet } from '../circuit/sheet';
import type { HandIn } from '../exercise/hand-in';
import type { Returned } from '../exercise/returned';
import type { Result } from '../values/result';
import type { MarkingFile } from './marking-file';

/** The content of a file. */
export type FileContent =
  | { readonly is: 'lesson'; readonly lesson: Lesson }
  | { readonly is: 'exercise'; readonly exercise: Exercise }
  | { readonly is: 'hand-in'; readonly handIn: HandIn }
  | { readonly is: 'returned'; readonly returned: Returned }
  | { readonly is: 'marking'; readonly marking: MarkingFile };

/** A sheet with the lesson around it. */
export interface Circuit {
  readonly lesson: Lesson;
  readonly sheet: Sheet;
}

export interface ReadOptions {
  /** The name of the file without its ending. */
  readonly title: string;
  /** The module of a file that has several. */
  readonly module?: string | undefined;
  /** Whether sheets without places of their own are laid out, to be looked at. */
  readonly laidOut: boolean;
  /** Whether everything in the file is read, if it holds several circuits. */
  readonly everything?: boolean;
  /** Texts of files that it may include, by their names. */
  readonly includes?: ReadonlyMap<string, string> | undefined;
  /** Receives notes about the result, such as a latch that was inferred. */
  readonly tell?: ((note: string) => void) | undefined;
}

/** Reads the text of a file; JSON comes parsed. */
export type Reader = (content: { text: string; json: unknown }, options: ReadOptions) => Result<FileContent>;
/** The lines of a file, without their ends. */
export type Writer = (circuit: Circuit) => Result<Iterable<string>>;

/** Where files come in: the page of lessons, the pages for an exercise and for marking, the command line. */
export type ReadPlace = 'shelf' | 'exercise page' | 'marking' | 'command line';
/** Where files go out: the menu of a sheet, the command line. */
export type WritePlace = 'sheet' | 'command line';

/** A format of files: everything that the pages and the command line know of it. */
export interface Format {
  /** Stable: `verilog`. */
  readonly id: string;
  /** The noun for a file, as it follows “it is” and “Save as”: `a picture (SVG)`. */
  readonly noun: string;
  /** A common noun for several formats, where a list of all that is accepted would be long: `a netlist`. */
  readonly kin?: string;
  /** Where its files belong, told when they are brought to the wrong place: `drop it on the marking page`. */
  readonly home?: string;
  /** Endings of its files, the first for those that are written. */
  readonly endings: readonly string[];
  readonly mimeType: string;
  /** Whether its text stands for bytes, each as a character (ISO 8859-1). */
  readonly isBinary?: boolean;
  /** The value of `format` at the head of our JSON files; it counts more than the ending. */
  readonly heading?: string;
  readonly read?: {
    readonly at: readonly ReadPlace[];
    /** Whether reading may take long: a page then does it in a worker. */
    readonly isSlow?: boolean;
    load(): Promise<Reader>;
  };
  readonly write?: {
    readonly at: readonly WritePlace[];
    load(): Promise<Writer>;
  };
  /** Where a page offers it that paints it itself, in place of `write`. */
  readonly paintedAt?: readonly WritePlace[];
}

/** The endings of formats, each once, as they are written: `.manege.json`. */
export const endingsOf = (formats: readonly Format[]): readonly string[] => [
  ...new Set(formats.flatMap((format) => format.endings)),
];

export const isReadAt =
  (place: ReadPlace) =>
  ({ read }: Format): boolean =>
    read?.at.includes(place) ?? false;

export const isWrittenAt =
  (place: WritePlace) =>
  ({ write, paintedAt }: Format): boolean =>
    write?.at.includes(place) ?? paintedAt?.includes(place) ?? false;

/** The format with the longest ending that the name of a file has. */
export function formatOfFile(formats: readonly Format[], file: string): Format | undefined {
  const name = file.toLowerCase();
  const longest = (format: Format) =>
    Math.max(0, ...format.endings.filter((ending) => name.endsWith(ending)).map((ending) => ending.length));
  const [best] = [...formats].sort((a, b) => longest(b) - longest(a));
  return best && longest(best) > 0 ? best : undefined;
}
