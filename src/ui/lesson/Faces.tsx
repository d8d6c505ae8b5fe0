'use client';

import type { ReactNode } from 'react';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { type Pane, Split } from '@/ui/controls/Split';
import { Drawing } from '@/ui/drawing/Drawing';
import { FaceBoundary } from './FaceBoundary';
import type { Face } from './face';

/** Faces are fetched when they are first opened. */
const loading = <section className="pane" aria-busy="true" />;
const TruthTableFace = lazyComponent(
  'the truth table',
  () => import('@/ui/faces/table/TruthTableFace').then((m) => m.TruthTableFace),
  loading,
);
const FormulaFace = lazyComponent(
  'the formula',
  () => import('@/ui/faces/formula/FormulaFace').then((m) => m.FormulaFace),
  loading,
);
const MapFace = lazyComponent(
  'the map',
  () => import('@/ui/faces/map/MapFace').then((m) => m.MapFace),
  loading,
);
const StatesFace = lazyComponent(
  'the states',
  () => import('@/ui/faces/states/StatesFace').then((m) => m.StatesFace),
  loading,
);
const TimeFace = lazyComponent(
  'the timing diagram',
  () => import('@/ui/faces/time/TimeFace').then((m) => m.TimeFace),
  loading,
);

/** Faces that need more room across. */
const WIDER: readonly Face[] = ['time', 'formula', 'map', 'states'];

/** The drawing with the other faces stacked at its right, resized by dragging what is between them. */
export function Faces({ open, beside }: { open: ReadonlySet<Face>; beside?: ReactNode }) {
  const faces: Pane[] = [];
  if (open.has('table'))
    faces.push({
      key: 'table',
      node: (
        <FaceBoundary name="Truth table">
          <TruthTableFace />
        </FaceBoundary>
      ),
    });
  if (open.has('formula'))
    faces.push({
      key: 'formula',
      node: (
        <FaceBoundary name="Formula">
          <FormulaFace />
        </FaceBoundary>
      ),
      share: open.size > 1 ? 26 : undefined,
    });
  if (open.has('map'))
    faces.push({
      key: 'map',
      node: (
        <FaceBoundary name="Map">
          <MapFace />
        </FaceBoundary>
      ),
    });
  if (open.has('time'))
    faces.push({
      key: 'time',
      node: (
        <FaceBoundary name="Time">
          <TimeFace />
        </FaceBoundary>
      ),
    });
  if (open.has('states'))
    faces.push({
      key: 'states',
      node: (
        <FaceBoundary name="States">
          <StatesFace />
        </FaceBoundary>
      ),
    });
  const panes: Pane[] = [];
  if (beside)
    panes.push({ key: 'beside', node: <FaceBoundary name="Task">{beside}</FaceBoundary>, share: 28 });
  panes.push({
    key: 'drawing',
    node: (
      <FaceBoundary name="Drawing">
        <Drawing />
      </FaceBoundary>
    ),
  });
  if (faces.length > 0)
    panes.push({
      key: 'faces',
      node: <Split across={false} panes={faces} />,
      share: beside ? 27 : WIDER.some((face) => open.has(face)) ? 42 : 34,
    });
  return <Split across panes={panes} />;
}
