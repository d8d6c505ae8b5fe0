import { sheetOf } from '@/core/circuit/lesson';
import { specFromFormulas } from '@/core/logic/specification/spec-formulas';
import { setSpec, specInHand } from '@/session/changes/table';
import { Marked } from '@/ui/controls/Marked';
import { FormulaField } from '@/ui/formula-text/FormulaField';
import { useSession, useSessionState } from '@/ui/session/session-context';

/** A line in which a formula is typed: its table is filled by it, whatever else is filled in stays. */
export function TypedFormula({
  placeholder,
  of,
  initial,
  onLeave,
}: {
  placeholder: string;
  /** The output for which it is; any output without it. */
  of?: string;
  initial?: string;
  onLeave?: () => void;
}) {
  const session = useSession();
  const planned = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.plan?.inputs);
  const drawn = useSessionState((s) => s.netlist.inputColumns);
  return (
    <FormulaField
      before={
        of && (
          <span className="shrink-0 font-semibold">
            <Marked text={of} /> =
          </span>
        )
      }
      label={of ? `Formula of ${of}` : 'Formula of another output'}
      placeholder={placeholder}
      initial={initial}
      button="Fill"
      inputs={planned ?? drawn.map((c) => c.name)}
      read={(text) => specFromFormulas(specInHand(session), text, of)}
      onTake={(plan) => {
        if (setSpec(session, plan, 'change the formula').ok) onLeave?.();
      }}
      onLeave={onLeave}
    />
  );
}
