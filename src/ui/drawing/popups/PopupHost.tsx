'use client';

import type { RefObject } from 'react';
import { afterPlacing, gridPoint, openTyping } from '@/commands/place';
import type { Popup } from '@/commands/popup';
import { boundingBox, grown, type Point } from '@/core/circuit/geometry';
import type { Params, Part, Sheet } from '@/core/circuit/lesson';
import { requirementAt } from '@/core/drawing/editing/compatible-parts';
import { bodyOf, courseOf } from '@/core/drawing/geometry/placement';
import { toScreen } from '@/core/drawing/geometry/viewport';
import { kindOf } from '@/core/parts/catalogue';
import type { PartKind } from '@/core/parts/part-kind';
import type { Result } from '@/core/values/result';
import { place, placeFrom } from '@/session/changes/place';
import { typedLine } from '@/session/changes/statement';
import { within } from '@/ui/controls/within';
import { useEditor } from '@/ui/session/editor-context';
import { useSessionState } from '@/ui/session/session-context';
import { ActionMenu } from './ActionMenu';
import { OwnTableOfPart } from './OwnTablePanel';
import { PartSettings } from './PartSettings';
import { ProblemPanel, UnequalWidths } from './ProblemPanel';
import { RepeatPanel } from './RepeatPanel';
import { Ring } from './Ring';
import { OUTER } from './ring-size';
import { TypingLine } from './TypingLine';
import { ValueLine } from './ValueLine';
import { WireLine } from './WireLine';

interface Props {
  readonly opened: Popup;
  readonly sheet: Sheet;
  /** Pixels of the drawing. */
  readonly size: RefObject<{ readonly width: number; readonly height: number }>;
  /** Closes what is open and takes the focus back to the sheet. */
  readonly close: () => void;
}

/** What opens over the sheet, where it opens: the ring, the typing line, settings, and what can be done. */
export function PopupHost({ opened, sheet, size, close }: Props) {
  const editor = useEditor();
  const { session, drawing } = editor;
  const selection = useSessionState((s) => s.selection.parts);
  const { width, height } = size.current;
  const placed = (kind: PartKind, params: Params, made: Result<string[]>) => {
    close();
    afterPlacing(editor, kind, params, made);
  };
  const onSheet = (pixel: Point) => gridPoint(editor, pixel);
  const beside = (parts: readonly Part[], tall: number) => {
    const body = grown(boundingBox(parts.map(bodyOf))!, 1);
    const p = toScreen(drawing.view(), { x: body.x1, y: body.y0 });
    const y = within(p.y, 4, Math.max(4, height - tall - 12));
    return { x: within(p.x, 4, width - 300), y, room: height - y - 8 };
  };
  const chosen = () =>
    [...selection].map((id) => sheet.parts.get(id)).filter((p): p is Part => p !== undefined);
  switch (opened.is) {
    case 'ring':
      return (
        <Ring
          x={within(opened.at.x, OUTER + 4, width - OUTER - 4)}
          y={within(opened.at.y, OUTER + 4, height - OUTER - 26)}
          flick={opened.flick}
          session={session}
          onClose={close}
          onPlace={(kind, params) =>
            placed(kind, params, place(session, kind, params, [''], onSheet(opened.at), opened.pointed))
          }
          onType={(letter) => openTyping(editor, letter)}
        />
      );
    case 'typing':
      return (
        <TypingLine
          x={within(opened.at.x, 4, width - 296)}
          y={within(opened.at.y, 4, height - 300)}
          first={opened.first}
          entered={opened.entered}
          session={session}
          wanted={opened.pull[0] ? requirementAt(session.sheet, opened.pull[0]) : null}
          onClose={close}
          onStatement={(text) => {
            const drawn = typedLine(session, text, onSheet(opened.at));
            if (drawn.ok) close();
            if (drawn.ok && opened.next) openTyping(editor, opened.next);
            return drawn;
          }}
          onPlace={({ kind, params, labels }) => {
            const at = onSheet(opened.at);
            const made =
              opened.pull.length > 0
                ? placeFrom(session, opened.pull, kind, params, labels[0]!, at)
                : place(session, kind, params, labels, at, opened.pointed);
            placed(kind, params, made);
            if (opened.next) openTyping(editor, opened.next);
          }}
        />
      );
    case 'settings': {
      const parts = opened.parts.map((id) => sheet.parts.get(id)).filter((p): p is Part => p !== undefined);
      if (parts.length === 0) return null;
      // About as tall as what can be set: never past the lower edge, and scrolled where it has no room.
      const at = beside(parts, 190 + 46 * (kindOf(parts[0]!).settings?.length ?? 0));
      return <PartSettings key={opened.parts.join()} parts={parts} at={opened.at} {...at} onClose={close} />;
    }
    case 'actions':
    case 'repeat': {
      const y = within(opened.at.y, 4, Math.max(4, height - 420));
      const Open = opened.is === 'actions' ? ActionMenu : RepeatPanel;
      return <Open x={within(opened.at.x, 4, width - 264)} y={y} room={height - y - 8} onClose={close} />;
    }
    case 'wire': {
      const part = sheet.parts.get(opened.part);
      if (!part) return null;
      const { x, y } = beside([part], 300);
      return <WireLine x={x} y={y} from={{ part: part.id }} session={session} onClose={close} />;
    }
    case 'ends': {
      const wire = sheet.wires.get(opened.wires[0]!);
      if (!wire) return null;
      const points = courseOf(sheet, wire);
      const { x, y } = toScreen(drawing.view(), points[points.length - 1]!);
      return (
        <WireLine
          x={within(x, 4, width - 292)}
          y={within(y, 4, height - 300)}
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
      return <Open {...beside([part], opened.is === 'value' ? 110 : 320)} part={part} onClose={close} />;
    }
    case 'problem': {
      const parts = (session.state.diagnostics[opened.index]?.pins ?? [])
        .map((pin) => sheet.parts.get(pin.part))
        .filter((p): p is Part => p !== undefined);
      if (parts.length === 0) return null;
      return (
        <ProblemPanel
          {...beside(parts.slice(0, 1), 220)}
          index={opened.index}
          onGo={drawing.goToProblem}
          onClose={close}
        />
      );
    }
    case 'widths': {
      const y = within(opened.at.y, 4, Math.max(4, height - 220));
      return (
        <UnequalWidths
          x={within(opened.at.x, 4, width - 300)}
          y={y}
          room={height - y - 8}
          from={opened.from}
          to={opened.to}
          onClose={close}
        />
      );
    }
    case 'placed': {
      const parts = chosen();
      if (parts.length === 0) return null;
      const body = boundingBox(parts.map(bodyOf))!;
      const p = toScreen(drawing.view(), { x: body.x0, y: body.y1 + 0.8 });
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
