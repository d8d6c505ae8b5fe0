'use client';

import { useMemo, useState } from 'react';
import type { Flick } from '@/commands/popup';
import { recentKinds } from '@/commands/recent-parts';
import type { Point } from '@/core/circuit/geometry';
import type { Params } from '@/core/circuit/sheet';
import { families } from '@/core/parts/catalogue';
import { defaultParams } from '@/core/parts/params';
import type { PartKind } from '@/core/parts/part-kind';
import { placeable } from '@/session/placeable';
import type { Session } from '@/session/session';
import { type RingGroup, type RingItem, RingMenu } from '@/ui/controls/ring/RingMenu';
import { useByFinger } from '@/ui/controls/useMedia';
import { SymbolPicture } from '../canvas/SymbolPicture';

interface Props {
  /** Pixel within the drawing at which the ring opens. */
  readonly x: number;
  readonly y: number;
  /** Pixel of the press that opened it. */
  readonly press: Point;
  readonly session: Session;
  readonly flick: Flick | null;
  readonly onPlace: (kind: PartKind, params: Params) => void;
  readonly onClose: () => void;
  /** A letter was typed instead. */
  readonly onType: (letter: string) => void;
}

interface PartItem extends RingItem {
  readonly kind: PartKind;
}

const itemOf = (kind: PartKind): PartItem => ({
  kind,
  name: kind.name,
  says: kind.says,
  picture: (width, height) => <SymbolPicture kind={kind} height={height} width={width} />,
});

/** Inputs of a gate that can be chosen in the ring. */
const FEWEST_INPUTS = 2;
const MOST_INPUTS = 9;

const takesInputs = ({ settings }: PartKind) => settings?.some(({ param }) => param === 'inputs') ?? false;
const hasInputs = ({ items }: RingGroup<PartItem>) => items.some(({ kind }) => takesInputs(kind));

/** The ring of the parts that can be placed: a family on each side, and the parts placed last around the hub. */
export function Ring({ session, onPlace, ...shown }: Props) {
  const kinds = useMemo(() => placeable(session), [session]);
  const groups = useMemo(
    () => families(kinds).map(({ family, kinds: own }) => ({ name: family, items: own.map(itemOf) })),
    [kinds],
  );
  const recent = useMemo(() => recentKinds(kinds).map((kind) => kind && itemOf(kind)), [kinds]);
  const [inputs, setInputs] = useState(FEWEST_INPUTS);
  const isByFinger = useByFinger();
  return (
    <RingMenu
      {...shown}
      groups={groups}
      recent={recent}
      hub={(group) => (hasInputs(group) ? `${inputs} in` : '')}
      idle={(group) =>
        hasInputs(group)
          ? `${isByFinger ? 'tap the middle' : 'keys 2 to 9, or a click on the middle'}: number of inputs`
          : 'press a part to place it'
      }
      onChoose={({ kind }) =>
        onPlace(kind, { ...defaultParams(kind), ...(takesInputs(kind) ? { inputs } : {}) })
      }
      onDigit={setInputs}
      onHub={() => setInputs(inputs < MOST_INPUTS ? inputs + 1 : FEWEST_INPUTS)}
    />
  );
}
