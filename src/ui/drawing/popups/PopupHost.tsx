'use client';

import type { RefObject } from 'react';
import { afterPlacing, gridPoint, openRing, openTyping } from '@/commands/place';
import type { Popup } from '@/commands/popup';
import { type Box, boundingBox, type Point } from '@/core/circuit/geometry';
import type { Params, Part, Sheet } from '@/core/circuit/sheet';
import { requirementAt } from '@/core/drawing/editing/compatible-parts';
import { courseOf, footprintOf } from '@/core/drawing/geometry/placement';
import { toScreen } from '@/core/drawing/geometry/viewport';
import type { PartKind } from '@/core/parts/part-kind';
import type { Result } from '@/core/values/result';
import { changeInto } from '@/session/changes/parts';
import { place, placeFrom, spotOnWire } from '@/session/changes/place';
import { typedLine } from '@/session/changes/statement';
import { told } from '@/session/told';
import { OUTER } from '@/ui/controls/ring/ring-size';
import { within } from '@/ui/controls/within';
import { useEditor } from '@/ui/session/editor-context';
import { useSessionState } from '@/ui/session/session-context';
import { ActionMenu } from './ActionMenu';
import { LabelLine } from './LabelLine';
import { OwnTableOfPart } from './OwnTablePanel';
import { PartSettings } from './PartSettings';
import { ProblemPanel, UnequalWidths } from './ProblemPanel';
import { RepeatPanel } from './RepeatPanel';
import { Ring } from './Ring';
import { type PixelBox, pointBox } from './SheetPopover';
import { TypingLine } from './TypingLine';
import { ValueLine } from './ValueLine';
import { WireLine } from './WireLine';

interface Props {
  readonly opened: Popup;
  readonly sheet: Sheet;
  /** Pixels of the drawing. */
  readonly size: RefObject<{ readonly width: number; readonly height: number }>;
  /** Closes the popup and takes the focus back to the sheet. */
  readonly close: () => void;
}

/** The open popup at its place over the sheet: the ring, the typing line, settings, actions. */
export function PopupHost({ opened, sheet, size, close }: Props) {
  const editor = useEditor();
  const { session, drawing } = editor;
  const selection = useSessionState((s) => s.selection.parts);
  const { width, height } = size.current;
  const placed = (kind: PartKind, params: Params, made: Result<string[]>, asksLabel = false) => {
    close();
    afterPlacing(editor, kind, params, made, asksLabel);
  };
  const onSheet = (pixel: Point) => gridPoint(editor, pixel);
  const boxOf = (box: Box): PixelBox => {
    const [first, last] = [
      toScreen(drawing.view(), { x: box.x0, y: box.y0 }),
      toScreen(drawing.view(), { x: box.x1, y: box.y1 }),
    ];
    return { left: first.x, top: first.y, width: last.x - first.x, height: last.y - first.y };
  };
  const beside = (...parts: readonly Part[]) => boxOf(boundingBox(parts.map(footprintOf))!);
  const chosen = () =>
    [...selection].map((id) => sheet.parts.get(id)).filter((p): p is Part => p !== undefined);
  switch (opened.is) {
    case 'ring':
      return (
        <Ring
          x={within(opened.at.x, OUTER + 4, width - OUTER - 4)}
          y={within(opened.at.y, OUTER + 4, height - OUTER - 26)}
          press={opened.at}
          flick={opened.flick}
          session={session}
          onClose={close}
          onPlace={(kind, params) =>
            placed(kind, params, place(session, kind, params, [''], onSheet(opened.at), opened.pointed), true)
          }
          onType={(letter) => openTyping(editor, letter)}
        />
      );
    case 'typing':
      return (
        <TypingLine
          place={pointBox(opened.at)}
          first={opened.first}
          session={session}
          wanted={opened.pull[0] ? requirementAt(session.sheet, opened.pull[0]) : null}
          onClose={close}
          onStatement={(text) => {
            const drawn = typedLine(session, text, onSheet(opened.at));
            if (drawn.ok) close();
            return drawn;
          }}
          onPlace={({ kind, params, labels }) => {
            if (opened.change) {
              close();
              told(changeInto(session, opened.change, kind, params));
              return;
            }
            const into = opened.pull.length === 0 ? spotOnWire(session, kind, params) : null;
            const at = into ?? onSheet(opened.at);
            const made =
              opened.pull.length > 0
                ? placeFrom(session, opened.pull, kind, params, labels[0]!, at)
                : place(session, kind, params, labels, at, into !== null || opened.pointed);
            placed(kind, params, made, opened.pull.length > 0 && !labels[0]);
          }}
        />
      );
    case 'label': {
      const part = sheet.parts.get(opened.part);
      if (!part) return null;
      return (
        <LabelLine
          place={beside(part)}
          part={part}
          onClose={close}
          onNext={(next) => {
            close();
            if (next === 'ring') openRing(editor);
            else
              drawing.open(
                next === 'settings' ? { is: 'settings', parts: [part.id], at: 'parameter' } : opened.placed,
              );
          }}
        />
      );
    }
    case 'settings': {
      const parts = opened.parts.map((id) => sheet.parts.get(id)).filter((p): p is Part => p !== undefined);
      if (parts.length === 0) return null;
      return (
        <PartSettings
          key={opened.parts.join()}
          parts={parts}
          at={opened.at}
          place={beside(...parts)}
          onClose={close}
        />
      );
    }
    case 'actions': {
      const y = within(opened.at.y, 4, Math.max(4, height - 420));
      return (
        <ActionMenu x={within(opened.at.x, 4, width - 264)} y={y} room={height - y - 8} onClose={close} />
      );
    }
    case 'repeat':
      return <RepeatPanel place={pointBox(opened.at)} onClose={close} />;
    case 'wire': {
      const part = sheet.parts.get(opened.part);
      if (!part) return null;
      return <WireLine place={beside(part)} from={{ part: part.id }} session={session} onClose={close} />;
    }
    case 'ends': {
      const wire = sheet.wires.get(opened.wires[0]!);
      if (!wire) return null;
      const points = courseOf(sheet, wire);
      return (
        <WireLine
          place={pointBox(toScreen(drawing.view(), points.at(-1)!))}
          from={{ wires: opened.wires }}
          session={session}
          onClose={close}
        />
      );
    }
    case 'value':
    case 'own': {
      const part = sheet.parts.get(opened.part);
      if (!part) return null;
      const Open = opened.is === 'value' ? ValueLine : OwnTableOfPart;
      return <Open place={beside(part)} part={part} onClose={close} />;
    }
    case 'problem': {
      const parts = (session.state.diagnostics[opened.index]?.pins ?? [])
        .map((pin) => sheet.parts.get(pin.part))
        .filter((p): p is Part => p !== undefined);
      if (parts.length === 0) return null;
      return (
        <ProblemPanel
          place={beside(parts[0]!)}
          index={opened.index}
          onGo={drawing.goToProblem}
          onClose={close}
        />
      );
    }
    case 'widths':
      return <UnequalWidths place={pointBox(opened.at)} from={opened.from} to={opened.to} onClose={close} />;
    case 'selecting':
      return (
        <p
          className="pointer-events-none absolute top-2 left-1/2 z-20 w-max -translate-x-1/2 rounded-lg bg-raised/90 px-2.5 py-1 text-sm shadow"
          role="status"
        >
          Drag a box round parts, or press them one by one. Escape ends it.
        </p>
      );
    case 'placed': {
      const parts = chosen();
      if (parts.length === 0) return null;
      const body = boundingBox(parts.map(footprintOf))!;
      const p = toScreen(drawing.view(), { x: body.x0, y: body.y1 + 0.4 });
      const first = opened.kind.settings?.[0];
      return (
        <p
          className="pointer-events-none absolute z-20 w-max rounded-lg bg-raised/90 px-2 py-0.5 text-xs text-quiet shadow"
          style={{ left: within(p.x, 4, width - 200), top: within(p.y, 4, height - 26) }}
        >
          Enter: another{first ? ` · Tab: ${first.label.toLowerCase()}` : ''}
        </p>
      );
    }
  }
}
