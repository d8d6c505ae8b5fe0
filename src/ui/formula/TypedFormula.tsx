import { sheetOf } from '@/core/circuit/lesson';
import { plannedBy } from '@/core/logic/plan-formulas';
import { plainText } from '@/core/values/markup';
import { planInHand, setPlan } from '@/session/changes/table';
import { useSession, useSessionState } from '@/ui/lesson/session-context';
import { FormulaField } from './FormulaField';

/** A line in which a formula is typed: its table is filled by it, whatever else is filled in stays. */
export function TypedFormula({
  placeholder,
  of,
  initial,
  onLeave,
}: {
  placeholder: string;
  /** The output that it is for; any without it. */
  of?: string;
  initial?: string;
  onLeave?: () => void;
}) {
  const session = useSession();
  const planned = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.plan?.inputs);
  const drawn = useSessionState((s) => s.netlist.inputColumns);
  return (
    <FormulaField
      before={of && <span className="shrink-0 font-semibold">{plainText(of)} =</span>}
      label={of ? `Formula of ${of}` : 'Formula of another output'}
      placeholder={placeholder}
      initial={initial}
      button="Fill"
      inputs={planned ?? drawn.map((c) => c.name)}
      read={(text) => plannedBy(planInHand(session), text, of)}
      onTake={(plan) => {
        if (setPlan(session, plan, 'change the formula').ok) onLeave?.();
      }}
      onLeave={onLeave}
    />
  );
}
