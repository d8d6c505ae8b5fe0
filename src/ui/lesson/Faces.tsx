'use client';

import type { ComponentType, ReactNode } from 'react';
import { sentence } from '@/core/values/result';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { type Pane, Split } from '@/ui/controls/Split';
import { useNarrow, useUpright } from '@/ui/controls/useMedia';
import { Drawing } from '@/ui/drawing/Drawing';
import { FACES } from '@/ui/faces';
import type { Face } from '@/ui/faces/face';
import { useSessionState } from '@/ui/session/session-context';
import { FaceBoundary } from './FaceBoundary';

/** Faces are fetched when they are first opened. */
const LAZY = new Map<string, ComponentType>(
  FACES.map(({ id, what, load }) => [
    id,
    lazyComponent(what, load, <section className="pane" aria-busy="true" />),
  ]),
);

const Tabs = lazyComponent('one face at a time', () => import('./Tabs').then((m) => m.Tabs));

/** Shares in per cent of the panes with the drawing: of the width where they lie beside each other, else of the height. */
const TASK_SHARE = { usual: 28, besideWidest: 20 };
const FACES_SHARE = { besideTask: 27, widestBesideTask: 60, widest: 64, wide: 42, narrow: 34 };
const UPRIGHT_SHARE = { besideTask: 30, widestBesideTask: 50, widest: 60, wide: 42, narrow: 42 };

/** In place of the faces, as they would give away what is to be found out. */
const standingStill = (why: string): Pane => ({
  key: 'still',
  name: 'Standing still',
  node: (
    <section className="pane" aria-label="Standing still">
      <p className="p-4 text-quiet">{sentence({ code: '', message: why })}</p>
    </section>
  ),
  share: undefined,
});

/**
 * The drawing with the open faces stacked at its right, or on a page that stands upright beside each other below it; resized by
 * dragging the borders between them.
 */
export function Faces({ open, beside }: { open: ReadonlySet<string>; beside?: ReactNode }) {
  const still = useSessionState((s) => s.rules.still);
  const shown = FACES.filter((face) => open.has(face.id));
  const faces = still
    ? [standingStill(still)]
    : shown.map(({ id, name, share }): Pane => {
        const Shown = LAZY.get(id)!;
        return {
          key: id,
          name,
          node: (
            <FaceBoundary key={id} name={name}>
              <Shown />
            </FaceBoundary>
          ),
          share: shown.length > 1 ? share : undefined,
        };
      });
  const isNarrow = useNarrow();
  const isUpright = useUpright();
  const isWidest = shown.some((face) => face.isWidest);
  const panes: Pane[] = [];
  if (beside)
    panes.push({
      key: 'beside',
      name: 'Task',
      node: <FaceBoundary name="Task">{beside}</FaceBoundary>,
      share: isWidest ? TASK_SHARE.besideWidest : TASK_SHARE.usual,
    });
  panes.push({
    key: 'drawing',
    name: 'Drawing',
    node: (
      <FaceBoundary name="Drawing">
        <Drawing />
      </FaceBoundary>
    ),
  });
  const upright = isUpright ? 'upright' : '';
  if (isNarrow) return <Tabs panes={[...panes, ...faces]} />;
  if (faces.length > 0)
    panes.push({
      key: 'faces',
      name: 'Faces',
      node: <Split name="faces" across={isUpright} panes={faces} arrangement={upright} />,
      share: (isUpright ? UPRIGHT_SHARE : FACES_SHARE)[sizeOf(shown, beside !== undefined)],
    });
  const arrangement = [isWidest && 'bench', upright].filter(Boolean).join('-');
  return <Split name="page" across={!isUpright} panes={panes} arrangement={arrangement} />;
}

/** How much room the faces need beside the drawing. */
function sizeOf(shown: readonly Face[], isBesideTask: boolean): keyof typeof FACES_SHARE {
  const isWidest = shown.some((face) => face.isWidest);
  if (isBesideTask) return isWidest ? 'widestBesideTask' : 'besideTask';
  if (isWidest) return 'widest';
  return shown.some((face) => face.isWide) ? 'wide' : 'narrow';
}
