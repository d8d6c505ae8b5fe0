'use client';

import { useEffect, useRef, useState } from 'react';
import type { Figure } from '@/core/figure/figure';
import { figureSvg } from '@/core/figure/figure-svg';
import { figureTikz } from '@/core/figure/figure-tikz';
import { copyPicture, copyText } from '@/session/page-clipboard';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { fileName, saveFile } from '@/ui/controls/save-file';
import { sheetFigureNow } from '@/ui/drawing/canvas/picture';
import { faceFigure, INKS, type Ink } from '@/ui/figure/face-figure';
import { figurePng, paintFigure, sharpness } from '@/ui/figure/paint-figure';
import { useEditor } from '@/ui/session/editor-context';

const KINDS = [
  { id: 'png', name: 'PNG', says: 'pixels' },
  { id: 'svg', name: 'SVG', says: 'lines, sharp at any size' },
  { id: 'tikz', name: 'LaTeX', says: 'TikZ, plain paths' },
] as const;
type Kind = (typeof KINDS)[number]['id'];

const SCALES = ['1 ×', '2 ×', '3 ×', '4 ×', '6 ×'];
const INK_NAMES: readonly Ink[] = ['in colour', 'black'];
const DRAWING = 'Drawing';

/** The panes of the faces that are open, by their names. */
const paneOf = (name: string): HTMLElement | null =>
  document.querySelector<HTMLElement>(`.pane[aria-label="${CSS.escape(name)}"]`);

/** A face as a figure for a text: looked at, copied, or saved. */
export function FigureDialog({ onClose }: { readonly onClose: () => void }) {
  const { session, page } = useEditor();
  const [faces] = useState(() => [
    DRAWING,
    ...page.faces().flatMap(({ name, isOpen }) => (isOpen && paneOf(name) ? [name] : [])),
  ]);
  const [face, setFace] = useState(DRAWING);
  const [kind, setKind] = useState<Kind>('png');
  const [scale, setScale] = useState(2);
  const [ink, setInk] = useState<Ink>('in colour');
  const [isClear, setClear] = useState(false);
  const [said, setSaid] = useState<{ readonly text: string; readonly isBad?: boolean } | null>(null);
  const [seen, setSeen] = useState<Figure | null>(null);
  const { lesson, rootId } = session.state;
  const sheet = lesson.sheets.find((one) => one.id === rootId)!;

  useEffect(() => {
    let left = false;
    const pane = face === DRAWING ? null : paneOf(face);
    const title = `${sheet.name}: ${face}`;
    const made = pane ? faceFigure(pane, title, ink) : sheetFigureNow(session.state, INKS[ink]);
    void Promise.resolve(made).then((figure) => !left && setSeen(figure));
    return () => {
      left = true;
    };
  }, [session, sheet.name, face, ink]);

  const figure = seen && { ...seen, ground: isClear ? null : seen.ground };
  const file = fileName(
    face === DRAWING ? sheet.name : `${sheet.name} ${face}`,
    { png: '.png', svg: '.svg', tikz: '.tex' }[kind],
  );
  const text = (of: Figure) => (kind === 'svg' ? figureSvg(of) : figureTikz(of));
  const copy = async (of: Figure) => {
    const isTaken = kind === 'png' ? await copyPicture(figurePng(of, scale)) : await copyText(text(of));
    const what = {
      png: 'The picture is on the clipboard.',
      svg: 'The SVG is on the clipboard.',
      tikz: 'The LaTeX is on the clipboard.',
    };
    if (isTaken) setSaid({ text: what[kind] });
    else setSaid({ text: 'This browser does not take that on its clipboard: save it instead.', isBad: true });
  };
  const save = async (of: Figure) => {
    if (kind === 'png') saveFile(file, await figurePng(of, scale), 'image/png');
    else saveFile(file, text(of), kind === 'svg' ? 'image/svg+xml' : 'text/x-tex');
    setSaid({ text: `${file} is saved.` });
  };
  const failed = (error: Error) => setSaid({ text: `That did not work: ${error.message}.`, isBad: true });
  return (
    <Modal
      title="Figure for a text"
      says="A face as it is seen now, with its signals. A table shows the rows that are in sight."
      onClose={onClose}
      foot={
        <DialogFoot
          onClose={onClose}
          main={{ name: 'Save', isOff: !figure, onClick: () => figure && void save(figure).catch(failed) }}
        >
          <p
            role="status"
            className={`mr-auto order-first text-sm ${said?.isBad ? 'text-bad' : 'text-quiet'}`}
          >
            {said?.text}
          </p>
          <button
            type="button"
            className="button"
            disabled={!figure}
            onClick={() => figure && void copy(figure).catch(failed)}
          >
            Copy
          </button>
        </DialogFoot>
      }
    >
      <div className="flex flex-wrap gap-x-8 gap-y-4">
        <Choice name="Face" value={face} all={faces} onChange={setFace} />
        <Choice name="Ink" value={ink} all={INK_NAMES} onChange={(next) => setInk(next as Ink)} />
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={isClear} onChange={() => setClear(!isClear)} />
          Transparent ground
        </label>
      </div>
      <fieldset className="flex flex-wrap items-baseline gap-x-6 gap-y-1.5">
        <legend className="sr-only">Kind of file</legend>
        {KINDS.map(({ id, name, says }) => (
          <label key={id} className="flex items-baseline gap-2">
            <input type="radio" name="kind" checked={kind === id} onChange={() => setKind(id)} />
            <span>
              <b className="font-semibold">{name}</b> <span className="text-sm text-quiet">{says}</span>
            </span>
          </label>
        ))}
      </fieldset>
      {kind === 'png' && figure && (
        <p className="flex items-center gap-2">
          <Choice
            name="Scale"
            value={`${scale} ×`}
            all={SCALES}
            onChange={(next) => setScale(Number.parseInt(next, 10))}
          />
          <span className="text-sm text-quiet tabular-nums">{pixels(figure, scale)}</span>
        </p>
      )}
      {figure ? (
        <Preview figure={figure} />
      ) : (
        <p role="status" className="h-56 text-quiet">
          Drawing …
        </p>
      )}
    </Modal>
  );
}

interface ChoiceProps {
  readonly name: string;
  readonly value: string;
  readonly all: readonly string[];
  readonly onChange: (value: string) => void;
}

function Choice({ name, value, all, onChange }: ChoiceProps) {
  return (
    <label className="flex items-center gap-2">
      <span className="font-semibold">{name}</span>
      <select
        aria-label={name}
        className="h-9 rounded-lg border border-hairline bg-raised px-2"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      >
        {all.map((one) => (
          <option key={one}>{one}</option>
        ))}
      </select>
    </label>
  );
}

/** `1240 × 820 pixels`. */
function pixels(figure: Figure, scale: number): string {
  const ratio = sharpness(figure, scale);
  const size = `${Math.ceil(figure.width * ratio)} × ${Math.ceil(figure.height * ratio)} pixels`;
  return ratio < scale ? `${size}, the most that browsers paint` : size;
}

/** Room of the picture in the dialog, in pixels. */
const ROOM = { width: 640, height: 280 };

function Preview({ figure }: { readonly figure: Figure }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const fit = Math.min(1.5, ROOM.width / figure.width, ROOM.height / figure.height);
  const [width, height] = [figure.width * fit, figure.height * fit];
  useEffect(() => {
    const g = canvas.current?.getContext('2d');
    if (!g || !canvas.current) return;
    const ratio = window.devicePixelRatio || 1;
    canvas.current.width = Math.ceil(width * ratio);
    canvas.current.height = Math.ceil(height * ratio);
    g.setTransform(ratio * fit, 0, 0, ratio * fit, 0, 0);
    paintFigure(g, figure);
  }, [figure, fit, width, height]);
  return (
    <div className="flex justify-center rounded-lg border border-hairline bg-ground p-3">
      <canvas
        ref={canvas}
        role="img"
        aria-label={figure.title}
        style={{ width, height, background: figure.ground ? undefined : CHEQUERS }}
      />
    </div>
  );
}

/** A transparent ground shows as squares. */
const CHEQUERS = 'repeating-conic-gradient(#ffffff 0 25%, #e8e4ee 0 50%) 0 0 / 16px 16px';
