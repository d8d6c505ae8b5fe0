'use client';

import dynamic from 'next/dynamic';
import type { ReactNode } from 'react';
import { Panel, PanelGroup, PanelResizeHandle } from 'react-resizable-panels';
import { Drawing } from '@/ui/drawing/Drawing';
import type { Face } from './face';

/** Faces are fetched when they are first opened. */
const loading = () => <section className="pane" aria-busy="true" />;
const TruthTableFace = dynamic(() => import('@/ui/table/TruthTableFace').then((m) => m.TruthTableFace), {
  loading,
});
const TimeFace = dynamic(() => import('@/ui/time/TimeFace').then((m) => m.TimeFace), { loading });

function Divider({ upright }: { upright: boolean }) {
  return (
    <PanelResizeHandle
      aria-label="Resize"
      className={`rounded-full outline-offset-[-2px] hover:bg-hairline data-[resize-handle-state=drag]:bg-accent ${upright ? 'mx-[3px] w-1' : 'my-[3px] h-1'}`}
    />
  );
}

/** The drawing with the other faces stacked at its right, resized by dragging what is between them. */
export function Faces({ open, beside }: { open: ReadonlySet<Face>; beside?: ReactNode }) {
  return (
    <PanelGroup direction="horizontal" className="min-h-0 flex-1">
      {beside && (
        <>
          <Panel id="beside" order={1} defaultSize={28} minSize={15}>
            {beside}
          </Panel>
          <Divider upright />
        </>
      )}
      <Panel id="drawing" order={2} minSize={25}>
        <Drawing />
      </Panel>
      {open.size > 0 && (
        <>
          <Divider upright />
          <Panel id="faces" order={3} defaultSize={beside ? 27 : open.has('time') ? 42 : 34} minSize={15}>
            <PanelGroup direction="vertical" className="h-full">
              {open.has('table') && (
                <Panel id="table" order={1} minSize={15}>
                  <TruthTableFace />
                </Panel>
              )}
              {open.size > 1 && <Divider upright={false} />}
              {open.has('time') && (
                <Panel id="time" order={2} minSize={15}>
                  <TimeFace />
                </Panel>
              )}
            </PanelGroup>
          </Panel>
        </>
      )}
    </PanelGroup>
  );
}
