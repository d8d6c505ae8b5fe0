import { inputAt } from '@/core/logic/table/truth-table';
import { rowNow } from '@/session/moment';
import { Marked } from '@/ui/controls/Marked';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { rowLook } from './useRows';

/** The rows that were tried, where a task tells no others: in their order, the live one marked. */
export function TriedRows() {
  const session = useSession();
  const netlist = useSessionState((s) => s.netlist);
  const tried = useSessionState((s) => s.tried);
  const live = useSessionState((s) => rowNow(s.netlist, s.values));
  const { inputColumns: inputs, outputColumns: outputs } = netlist;
  const rows = [...tried].sort(([a], [b]) => a - b);
  if (rows.length === 0)
    return (
      <p className="p-5 text-quiet">Nothing is tried yet. Set the switches, or step from row to row above.</p>
    );
  return (
    <div className="min-h-0 flex-1 overflow-auto">
      <table className="w-full text-center" aria-label="Tried rows">
        <thead className="text-sm">
          <tr className="border-b-2 border-ink">
            <th className="px-2 py-1.5 text-xs font-normal text-quiet">row</th>
            {[...inputs, ...outputs].map((column, i) => (
              <th
                key={i < inputs.length ? `in ${column.name}` : `out ${column.name}`}
                className={`px-2 ${i === inputs.length ? 'border-l border-hairline' : ''}`}
              >
                <Marked text={column.name} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([row, letters], at) => (
            <tr key={row} className={`h-8 ${rowLook(at, row === live, false)}`}>
              <th scope="row" className="font-normal">
                <button
                  type="button"
                  className="w-full cursor-pointer font-mono text-xs text-quiet underline"
                  onClick={() => session.goToRow(row)}
                >
                  {row}
                </button>
              </th>
              {inputs.map(({ name }, i) => (
                <td key={name} className="value-text">
                  {inputAt(inputs.length, i, row)}
                </td>
              ))}
              {outputs.map(({ name }, o) => (
                <td
                  key={name}
                  className={`value-text ${o === 0 ? 'border-l border-hairline' : ''} ${letters[o] === '1' ? 'font-bold' : ''}`}
                >
                  {letters[o]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
