import { blocksFor } from '@/core/netlist/blocks';
import { PLACEABLE } from '@/core/parts/catalogue';
import type { PartKind } from '@/core/parts/part-kind';
import type { Session } from '@/session/session';
import { isAllowed } from './rules';

/**
 * The parts that can be placed on the open sheet: the catalogue and the lesson's other sheets, as far as an
 * exercise allows.
 */
export function placeable(session: Session): PartKind[] {
  const { lesson, sheetId, rules } = session.state;
  return [...PLACEABLE.filter((k) => isAllowed(rules.parts, k.kind)), ...blocksFor(lesson, sheetId)];
}
