'use client';

import { useState } from 'react';
import type { Part } from '@/core/circuit/sheet';
import { pinsOf } from '@/core/drawing/geometry/placement';
import { spokenName } from '@/core/parts/catalogue';
import { readWord } from '@/core/values/radix';
import { counted } from '@/core/values/wording';
import { useSession } from '@/ui/session/session-context';
import { valueText } from '../canvas/probe-text';
import { Panel } from './Panel';
import type { PopoverPlace } from './SheetPopover';

interface Props extends PopoverPlace {
  readonly part: Part;
}

/** Takes a number in any radix for an input of several bits. */
export function ValueLine({ part, onClose, ...at }: Props) {
  const session = useSession();
  const width = pinsOf(part)[0]!.port.width;
  const now = Array.from({ length: width }, (_, bit) =>
    session.state.on.has(session.keyOf(part.id, bit)) ? (1 as const) : (0 as const),
  );
  const [typed, setTyped] = useState(String(now.reduce<number>((sum, bit, i) => sum + bit * 2 ** i, 0)));
  const bits = readWord(typed, width);
  const fits = bits?.every((b) => b < 2);
  return (
    <Panel
      label={`Value of ${spokenName(part)}`}
      width="w-60"
      {...at}
      onClose={onClose}
      onKey={(key) => {
        if (key !== 'Enter') return false;
        if (fits) {
          session.put(bits!.map((bit, i) => [session.keyOf(part.id, i), bit as 0 | 1] as const));
          onClose();
        }
        return true;
      }}
    >
      <label className="flex items-center gap-2">
        <span className="shrink-0 font-semibold">{spokenName(part)}</span>
        <input
          className="field font-mono"
          value={typed}
          spellCheck={false}
          onChange={(event) => setTyped(event.target.value)}
        />
      </label>
      <p className={`font-mono text-xs ${fits ? 'text-quiet' : 'text-bad'}`} role="status">
        {fits
          ? valueText(bits!)
          : `${counted(width, 'bit')}: from ${-(2 ** (width - 1))} to ${2 ** width - 1}; also 0x1F, 0b101`}
      </p>
    </Panel>
  );
}
