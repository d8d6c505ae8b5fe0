import { wrongRowsText } from '@/core/exercise/check';
import { partsText } from '@/core/formats/marking-csv';
import { hint } from '@/ui/controls/hint';
import type { Row, RowWord } from './marked-row';

interface MarksProps {
  readonly rows: readonly Row[];
  readonly word: RowWord;
  readonly onLook: (key: number) => void;
  readonly onRemove: (key: number) => void;
}

/** The marks of all hand-ins, a line each. */
export function Marks({ rows, word, onLook, onRemove }: MarksProps) {
  const solved = rows.filter((r) => r.check.solved).length;
  return (
    <>
      <p className="mb-2 text-quiet">
        {rows.length} {rows.length === 1 ? 'hand-in' : 'hand-ins'} · {solved} all right
      </p>
      <table className="w-full overflow-hidden rounded-xl border border-hairline bg-raised text-left">
        <thead>
          <tr className="border-b-2 border-ink text-sm">
            {[
              'Name',
              word === 'row' ? 'Rows right' : 'Readings right',
              'Parts used',
              'Complaints',
              'Handed in',
            ].map((h) => (
              <th key={h} scope="col" className="px-4 py-2">
                {h}
              </th>
            ))}
            <th scope="col">
              <span className="sr-only">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ key, handIn, earlier, check: result }) => (
            <tr key={key} className="border-t border-hairline align-top">
              <th scope="row" className="max-w-60 px-4 py-2.5">
                <bdi className="line-clamp-2 wrap-anywhere" {...hint(handIn.name)}>
                  {handIn.name}
                </bdi>
              </th>
              <td
                className={`px-4 py-2.5 font-semibold whitespace-nowrap ${result.right === result.rows ? 'text-good' : 'text-bad'}`}
              >
                {result.right === result.rows ? '✓' : '✗'} {result.right} of {result.rows}
                <WrongRows check={result} word={word} />
              </td>
              <td className="px-4 py-2.5">{partsText(result) || 'none'}</td>
              <td className="max-w-80 px-4 py-2.5 text-sm">
                {result.complaints.length === 0 ? (
                  <span className="text-quiet">none</span>
                ) : (
                  <ul className="wrap-anywhere text-bad">
                    {result.complaints.slice(0, 4).map((c) => (
                      <li key={c}>{c}</li>
                    ))}
                    {result.complaints.length > 4 && (
                      <li className="text-quiet">and {result.complaints.length - 4} more</li>
                    )}
                  </ul>
                )}
              </td>
              <td className="px-4 py-2.5 text-sm whitespace-nowrap">
                {new Date(handIn.handedIn).toLocaleString('en-GB', {
                  dateStyle: 'medium',
                  timeStyle: 'short',
                })}
                {earlier.length > 0 && (
                  <ul aria-label={`Earlier hand-ins of ${handIn.name}`} className="mt-1 text-quiet">
                    {earlier.map((one) => (
                      <li key={one.key}>
                        <button
                          type="button"
                          className="-mx-1 cursor-pointer rounded-md px-1 hover:bg-accent-soft hover:text-accent"
                          onClick={() => onLook(one.key)}
                        >
                          before: {one.check.right} of {one.check.rows},{' '}
                          {new Date(one.handIn.handedIn).toLocaleString('en-GB', {
                            day: 'numeric',
                            month: 'short',
                            hour: '2-digit',
                            minute: '2-digit',
                          })}
                        </button>
                      </li>
                    ))}
                  </ul>
                )}
              </td>
              <td className="px-2 py-1.5 text-right whitespace-nowrap">
                <button type="button" className="button small" onClick={() => onLook(key)}>
                  Open
                </button>
                <button
                  type="button"
                  className="icon-button"
                  aria-label={`Remove the hand-in of ${handIn.name}`}
                  {...hint('Remove')}
                  onClick={() => onRemove(key)}
                >
                  ×
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** The rows that are wrong, and the outputs that are. */
function WrongRows({ check, word }: { check: Row['check']; word: RowWord }) {
  const wrong = wrongRowsText(check, word);
  return wrong && <div className="text-sm font-normal text-quiet">wrong: {wrong}</div>;
}
