'use client';

import { type ReactNode, useCallback, useEffect, useRef, useState } from 'react';
import { createPortal } from 'react-dom';
import type { Paper } from '@/core/paper/paper';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { whenDrawn } from '@/ui/controls/when-drawn';
import { PaperView } from './PaperView';

interface Props {
  /** The worksheet, or the answer sheet. */
  readonly paperOf: (isAnswer: boolean) => Paper;
  /** What is chosen for it. */
  readonly children?: ReactNode;
  readonly onClose: () => void;
}

const SHEETS = [
  { isAnswer: false, name: 'Worksheet' },
  { isAnswer: true, name: 'Answer sheet' },
] as const;

/** A worksheet and its answer sheet: looked at, and printed or kept as PDF by the browser's own dialog. */
export function PaperDialog({ paperOf, children, onClose }: Props) {
  const [isAnswer, setAnswer] = useState(false);
  const [isPrinting, setPrinting] = useState(false);
  const paper = paperOf(isAnswer);
  const onPrinted = useCallback(() => setPrinting(false), []);
  return (
    <Modal
      title="On paper"
      says="For the printer, or as PDF in the browser’s print dialog. Black on white."
      onClose={onClose}
      foot={
        <DialogFoot
          onClose={onClose}
          main={{
            name: isAnswer ? 'Print the answer sheet' : 'Print the worksheet',
            onClick: () => setPrinting(true),
          }}
        />
      }
    >
      {children}
      <div role="radiogroup" aria-label="Which sheet" className="flex gap-4">
        {SHEETS.map((one) => (
          <label key={one.name} className="flex items-center gap-2 font-semibold">
            <input
              type="radio"
              name="sheet"
              checked={one.isAnswer === isAnswer}
              onChange={() => setAnswer(one.isAnswer)}
            />
            {one.name}
          </label>
        ))}
      </div>
      <section className="paper-preview" aria-label="Preview">
        <PaperView paper={paper} isAnswer={isAnswer} />
      </section>
      {isPrinting && <Printed paper={paper} isAnswer={isAnswer} onPrinted={onPrinted} />}
    </Modal>
  );
}

interface PrintedProps {
  readonly paper: Paper;
  readonly isAnswer: boolean;
  readonly onPrinted: () => void;
}

/** The paper by itself, printed as soon as all of it is drawn. */
function Printed({ paper, isAnswer, onPrinted }: PrintedProps) {
  const article = useRef<HTMLElement>(null);
  useEffect(() => {
    const { title } = document;
    // Browsers name the PDF by it.
    document.title = isAnswer ? `${paper.title}, answers` : paper.title;
    let left = false;
    window.addEventListener('afterprint', onPrinted, { once: true });
    void whenDrawn(article.current!).then(() => {
      if (!left) window.print();
    });
    return () => {
      left = true;
      document.title = title;
      window.removeEventListener('afterprint', onPrinted);
    };
  }, [paper.title, isAnswer, onPrinted]);
  return createPortal(
    <article ref={article} className="printed">
      <PaperView paper={paper} isAnswer={isAnswer} />
    </article>,
    document.body,
  );
}
