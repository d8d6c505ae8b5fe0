'use client';

import type { ReactNode } from 'react';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { Drawing } from '@/ui/drawing/Drawing';
import { TruthTableFace } from '@/ui/table/TruthTableFace';
import { TimeFace } from '@/ui/time/TimeFace';
import type { Face } from './FacesMenu';

function Divider({ upright }: { upright: boolean }) {
  return (
    <Separator
      aria-label="Resize"
      className={`rounded-full outline-offset-[-2px] hover:bg-hairline data-[separator=active]:bg-accent ${upright ? 'mx-[3px] w-1' : 'my-[3px] h-1'}`}
    />
  );
}

/** The faces beside and below each other, resized by dragging what is between them. */
export function Faces({ open, beside }: { open: ReadonlySet<Face>; beside?: ReactNode }) {
  return (
    <Group orientation="vertical" className="min-h-0 flex-1">
      <Panel id="upper" minSize="30%">
        <Group orientation="horizontal" className="h-full">
          {beside && (
            <>
              <Panel id="beside" defaultSize="28%" minSize="15%">
                {beside}
              </Panel>
              <Divider upright />
            </>
          )}
          <Panel id="drawing" minSize="25%">
            <Drawing />
          </Panel>
          {open.has('table') && (
            <>
              <Divider upright />
              <Panel id="table" defaultSize={beside ? '27%' : '34%'} minSize="15%">
                <TruthTableFace />
              </Panel>
            </>
          )}
        </Group>
      </Panel>
      {open.has('time') && (
        <>
          <Divider upright={false} />
          <Panel id="time" defaultSize="42%" minSize="15%">
            <TimeFace />
          </Panel>
        </>
      )}
    </Group>
  );
}
