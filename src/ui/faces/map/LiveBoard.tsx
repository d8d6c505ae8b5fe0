import { sheetOf } from '@/core/circuit/lesson';
import type { Formula } from '@/core/logic/expression/forms';
import { DONT_CARE, ON } from '@/core/logic/minimise/cube';
import { goToNamedRow } from '@/session/changes/columns';
import { fillCell } from '@/session/changes/table';
import { told } from '@/session/told';
import { useLiveRow } from '@/ui/derived/useFormulas';
import { Board, type BoardProps } from '@/ui/map-board/Board';
import { highlightIn, useCrossHighlight } from '@/ui/session/cross-highlight';
import { useSession, useSessionState } from '@/ui/session/session-context';

interface Props extends Pick<BoardProps, 'layout' | 'loops' | 'picked' | 'onPick' | 'onSwap' | 'marks'> {
  readonly formula: Formula;
}

/** The map of an output of the open sheet: pressed, it takes the circuit to a row or fills in the table. */
export function LiveBoard({ formula, ...rest }: Props) {
  const session = useSession();
  const { name, names, fn } = formula;
  const live = useLiveRow(names);
  const column = useSessionState(
    (s) => sheetOf(s.lesson, s.rootId)?.plan?.outputs.find((o) => o.name === name)?.rows,
  );
  const canFill = useSessionState((s) => !s.readOnly && s.netlist.storage.length === 0);
  const pointed = useCrossHighlight((p) => p.pointed);
  const fill = (row: number, letter: string) => {
    if (canFill) told(fillCell(session, name, row, letter));
  };
  const letterAt = (row: number) => {
    const value = fn.rows[row];
    return column?.[row] ?? (value === DONT_CARE ? 'x' : value === ON ? '1' : '0');
  };
  return (
    <Board
      {...rest}
      name={name}
      names={names}
      letterAt={letterAt}
      live={live}
      pointed={highlightIn(pointed, name, names)}
      onType={canFill ? fill : undefined}
      hintOfCells={canFill && live >= 0 ? 'Press twice, or type 0, 1 or x, to change it' : undefined}
      onDoublePress={(row) => live >= 0 && fill(row, letterAt(row) === '1' ? '0' : '1')}
      onPress={(row) => {
        const letter = letterAt(row);
        if (live === -1 && column !== undefined) fill(row, letter === '1' ? 'x' : letter === 'x' ? '0' : '1');
        else goToNamedRow(session, names, row);
      }}
    />
  );
}
