import { Popover } from 'radix-ui';
import type { TextFormat } from '@/core/logic/table/table-text';
import { copyAndSay } from '@/session/page-clipboard';
import { saveFile } from '@/ui/controls/save-file';
import { useSession } from '@/ui/session/session-context';

/** Most rows that are put on the clipboard. */
const MOST_COPIED = 65_536;

const COPIES: readonly [TextFormat, string, string][] = [
  ['tsv', 'For a spreadsheet', 'with tabs between the cells'],
  ['csv', 'CSV', 'with commas'],
  ['md', 'Markdown', 'a table for a text'],
  ['latex', 'LaTeX', 'an array for a formula'],
];
const ITEM = 'flex cursor-pointer items-baseline gap-2 rounded-lg px-2 py-1 text-left hover:bg-accent-soft';

export interface TakeAwayProps {
  /** Rows that are taken. */
  readonly count: number;
  readonly lines: (format: TextFormat) => Iterable<string>;
  /** Name of the file, with its ending. */
  readonly fileName: string;
}

/** A table as text: onto the clipboard in four formats, or into a file. */
export function TakeAway({ count, lines, fileName }: TakeAwayProps) {
  const session = useSession();
  const copy = (format: TextFormat) =>
    copyAndSay(
      session,
      [...lines(format)].join('\n'),
      `${count === 1 ? 'One row is' : `${count} rows are`} on the clipboard.`,
    );
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="mb-1 font-semibold">Copy</legend>
      {count > MOST_COPIED ? (
        <p className="text-quiet">
          {count} rows are too many for the clipboard: {MOST_COPIED} are the most. Show fewer of them, or use
          the command line.
        </p>
      ) : (
        <>
          {COPIES.map(([format, name, words]) => (
            <button key={format} type="button" className={ITEM} onClick={() => void copy(format)}>
              {name} <span className="text-xs text-quiet">{words}</span>
            </button>
          ))}
          <button
            type="button"
            className={ITEM}
            onClick={() => saveFile(fileName, `${[...lines('csv')].join('\r\n')}\r\n`, 'text/csv')}
          >
            Save as a file <span className="text-xs text-quiet">{fileName}</span>
          </button>
        </>
      )}
    </fieldset>
  );
}

/** A menu of that alone. */
export function TakeAwayMenu(props: TakeAwayProps & { readonly className: string }) {
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger className={props.className}>Copy</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="menu w-80 p-3 text-sm" sideOffset={4} align="end">
          <TakeAway {...props} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
