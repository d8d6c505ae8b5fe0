'use client';

import { useEffect, useRef } from 'react';
import { type Box, boundingBox } from '@/core/circuit/geometry';
import type { Lesson } from '@/core/circuit/lesson';
import { footprintOf } from '@/core/drawing/geometry/placement';
import { fitted } from '@/core/drawing/geometry/viewport';
import { unfoldedParts } from '@/core/netlist/blocks';
import { compileOnce } from '@/core/netlist/compile';
import { Run } from '@/core/simulate/run';
import type { Steps } from '@/core/values/steps';
import { readPalette } from '@/ui/controls/palette';
import { useTheme } from '@/ui/controls/theme';
import { paint } from '@/ui/drawing/canvas/painter';
import { PLAIN } from '@/ui/drawing/canvas/scene';
import { overviewSteps } from './overview';
import { paintSoon } from './picture-queue';

/** Parts of a circuit, its blocks unfolded, that is compiled for its picture; larger ones are shown from far away. */
const MOST_UNFOLDED = 2000;

/** Parts that are measured in one step. */
const A_STEP = 1000;

/** A small picture of a lesson's first sheet, at rest with all switches at 0. */
export function Picture({ lesson }: { lesson: Lesson }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  // biome-ignore lint/correctness/useExhaustiveDependencies: another theme has other colours
  useEffect(() => {
    let left = false;
    let takeBack = () => {};
    function* paintSteps(): Steps<void> {
      const element = canvas.current;
      const g = element?.getContext('2d');
      if (!element || !g) return;
      const { width, height } = element.getBoundingClientRect();
      const ratio = window.devicePixelRatio || 1;
      element.width = width * ratio;
      element.height = height * ratio;
      g.setTransform(ratio, 0, 0, ratio, 0, 0);
      const sheet = lesson.sheets[0]!;
      const boxes: Box[] = [];
      for (const part of sheet.parts.values()) {
        boxes.push(footprintOf(part));
        if (boxes.length % A_STEP === 0) yield;
      }
      const view = fitted(boundingBox(boxes), width, height, 0.9);
      if (unfoldedParts(lesson.sheets, sheet) > MOST_UNFOLDED) {
        yield* overviewSteps(g, sheet, view, readPalette());
        return;
      }
      const netlist = compileOnce(sheet, lesson.sheets);
      const { values } = new Run(netlist, { delays: 'zero' });
      const { symbols: standard, crossings } = lesson.settings;
      paint(
        g,
        { width, height },
        view,
        { sheet, netlist, values, conflicts: new Set(), standard, crossings, on: new Set() },
        PLAIN,
        readPalette(),
      );
    }
    document.fonts.ready.then(() => {
      if (!left) takeBack = paintSoon(paintSteps());
    });
    return () => {
      left = true;
      takeBack();
    };
  }, [lesson, theme]);
  // biome-ignore lint/a11y/noAriaHiddenOnFocusable: a canvas without a tabindex takes no focus
  return <canvas ref={canvas} className="h-40 w-full" aria-hidden="true" />;
}
