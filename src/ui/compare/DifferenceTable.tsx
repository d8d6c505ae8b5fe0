import type { Row, Shown } from '@/core/logic/equivalence/prove';
import { Marked } from '@/ui/controls/Marked';

interface Props {
  /** One row, or one a clock from power-up. */
  readonly inputs: readonly Row[];
  /** What each of the circuits is called; the first one is the one whose outputs are listed. */
  readonly names: readonly string[];
  /** The outputs of each of them there, by the names of the first. */
  readonly values: readonly Shown[];
}

/** A case in which two circuits differ: the inputs that lead there, and the outputs of both. */
export function DifferenceTable({ inputs, names, values }: Props) {
  const columns = Object.keys(inputs[0]!);
  const isSequence = inputs.length > 1;
  return (
    <div className="flex flex-col gap-2">
      <p className="text-lg">
        <b className="text-bad">Different</b>{' '}
        {isSequence
          ? `after ${inputs.length - 1} ${inputs.length === 2 ? 'clock' : 'clocks'} from power-up:`
          : 'in this row:'}
      </p>
      {columns.length > 0 && (
        <div className="max-h-80 overflow-auto rounded-lg border border-hairline">
          <table className="w-full text-center font-mono" aria-label="Inputs that show it">
            <thead className="font-sans text-sm">
              <tr>
                {isSequence && <th className="px-2 py-1">clock</th>}
                {columns.map((name) => (
                  <th key={name} className="px-2 py-1">
                    <Marked text={name} />
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {inputs.map((row, i) => (
                <tr key={i} className="border-t border-hairline">
                  {isSequence && <td className="text-quiet">{i + 1}</td>}
                  {columns.map((name) => (
                    <td key={name}>{row[name]}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <table className="w-max font-mono" aria-label="Outputs there">
        <tbody>
          {Object.keys(values[0]!).map((name) => {
            const differs = values.some((shown) => shown[name] !== values[0]![name]);
            return (
              <tr key={name} className={differs ? 'font-bold' : 'text-quiet'}>
                <th scope="row" className="pr-4 text-left font-sans">
                  <Marked text={name} />
                </th>
                {values.map((shown, at) => (
                  <td key={names[at]} className={`pr-4 ${differs && at > 0 ? 'text-bad' : ''}`}>
                    <span className="font-sans text-sm text-quiet">{names[at]}</span> {shown[name]}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
