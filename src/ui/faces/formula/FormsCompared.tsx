import { FORMS, type Formula, sizeOf } from '@/core/logic/expression/forms';
import type { Netlist } from '@/core/netlist/netlist';
import { expressionIn, FORM_NAMES } from './form-names';

/** All forms of one function side by side, with their sizes. */
export function FormsCompared({ formula, netlist }: { formula: Formula; netlist: Netlist }) {
  const rows = FORMS.map((form) => ({ form, expression: expressionIn(formula, form, netlist) }));
  return (
    <table className="mt-2 w-full text-sm">
      <thead>
        <tr className="border-b border-ink text-left text-xs">
          <th className="py-1 font-semibold">Form</th>
          {['terms', 'literals', 'gates', 'levels'].map((word) => (
            <th key={word} className="py-1 text-right font-semibold">
              {word}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ form, expression }) => {
          const size = expression.ok ? sizeOf(expression.value, form) : null;
          return (
            <tr key={form} className="border-b border-hairline last:border-0">
              <th scope="row" className="py-0.5 text-left font-normal">
                {FORM_NAMES[form]}
              </th>
              {[size?.terms, size?.literals, size?.gates, size?.levels].map((n, i) => (
                <td key={i} className="py-0.5 text-right font-mono">
                  {n ?? '–'}
                </td>
              ))}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
