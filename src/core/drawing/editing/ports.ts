import type { Edit } from '../../circuit/edit';
import type { Sheet } from '../../circuit/sheet';
import { findKind } from '../../parts/catalogue';
import { defaultParams } from '../../parts/params';

const PORT_OF: Readonly<Record<string, 'in' | 'out'>> = { switch: 'in', button: 'in', lamp: 'out' };

/** The edits that make ports of a sheet's switches, buttons and lamps, so that it can be a block. */
export function portsFor(sheet: Sheet): Edit[] {
  const port = findKind('port')!;
  return [...sheet.parts.values()].flatMap((part): Edit[] => {
    const direction = PORT_OF[part.kind];
    if (!direction) return [];
    const params = {
      ...defaultParams(port),
      direction,
      width: (part.params.width as number | undefined) ?? 1,
    };
    return [{ type: 'changePart', sheet: sheet.id, id: part.id, change: { kind: port.kind, params } }];
  });
}
