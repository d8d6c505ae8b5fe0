'use client';

import { useEffect, useMemo, useState } from 'react';
import type { Figure } from '@/core/figure/figure';
import { BLACK_INKS } from '@/core/figure/inks';
import { type OfferedPiece, type Piece, piecesOf, sheetPaper } from '@/core/paper/sheet-paper';
import { hint } from '@/ui/controls/hint';
import { sheetFigureNow } from '@/ui/drawing/canvas/picture';
import { useSession } from '@/ui/session/session-context';
import { PaperDialog } from './PaperDialog';

/** Pieces that are chosen to begin with, where the sheet has them. */
const USUAL: readonly Piece[] = ['drawing', 'table', 'lanes'];
const MOST_LETTERS = 4000;

/** A worksheet that is made from the open sheet, as it stands. */
export function SheetPaperDialog({ onClose }: { readonly onClose: () => void }) {
  const session = useSession();
  // Made once: the circuit may run on behind the dialog.
  const [state] = useState(session.state);
  const [seen, setSeen] = useState<Figure | null>(null);
  const [hasSignals, setSignals] = useState(false);
  const [words, setWords] = useState('');
  const pieces = useMemo(() => {
    const { lesson, rootId, on } = state;
    const sheet = lesson.sheets.find(({ id }) => id === rootId)!;
    return piecesOf(
      { sheet, sheets: lesson.sheets, settings: lesson.settings, on },
      hasSignals ? seen : null,
    );
  }, [state, hasSignals, seen]);
  const [chosen, setChosen] = useState<ReadonlySet<Piece>>(
    () => new Set(pieces.filter(({ piece, whyNot }) => !whyNot && USUAL.includes(piece)).map((p) => p.piece)),
  );
  useEffect(() => {
    let left = false;
    if (hasSignals) void sheetFigureNow(state, BLACK_INKS).then((figure) => !left && setSeen(figure));
    return () => {
      left = true;
    };
  }, [state, hasSignals]);
  const sheet = state.lesson.sheets.find(({ id }) => id === state.rootId)!;
  const { title: lesson, sheets } = state.lesson;
  const title = sheets.length > 1 && sheet.name !== lesson ? `${lesson}: ${sheet.name}` : lesson;
  const taken = pieces.filter(({ piece }) => chosen.has(piece));
  return (
    <PaperDialog paperOf={(isAnswer) => sheetPaper(title, words, taken, isAnswer)} onClose={onClose}>
      <fieldset className="flex flex-wrap gap-x-5 gap-y-1.5">
        <legend className="sr-only">What stands on it</legend>
        {pieces.map((piece) => (
          <PieceChoice
            key={piece.piece}
            piece={piece}
            isChosen={chosen.has(piece.piece)}
            onChoose={(is) => {
              const next = new Set(chosen);
              if (is) next.add(piece.piece);
              else next.delete(piece.piece);
              setChosen(next);
            }}
          />
        ))}
        {chosen.has('drawing') && (
          <label className="flex items-center gap-1.5">
            <input type="checkbox" checked={hasSignals} onChange={() => setSignals(!hasSignals)} />
            with its signals
          </label>
        )}
      </fieldset>
      <label className="flex flex-col gap-1">
        <span className="font-semibold">
          Task <span className="font-normal text-quiet">in words; Markdown</span>
        </span>
        <textarea
          className="field h-16 resize-y py-2"
          value={words}
          maxLength={MOST_LETTERS}
          placeholder="What is to be done?"
          onChange={(event) => setWords(event.target.value)}
        />
      </label>
    </PaperDialog>
  );
}

interface PieceProps {
  readonly piece: OfferedPiece;
  readonly isChosen: boolean;
  readonly onChoose: (is: boolean) => void;
}

function PieceChoice({ piece: { name, whyNot }, isChosen, onChoose }: PieceProps) {
  return (
    <label
      className={`flex items-center gap-1.5 ${whyNot ? 'text-quiet' : ''}`}
      {...hint(whyNot ?? undefined)}
    >
      <input
        type="checkbox"
        checked={isChosen}
        disabled={whyNot !== null}
        onChange={(event) => onChoose(event.target.checked)}
      />
      {name}
    </label>
  );
}
