import { type ReactNode, useEffect, useRef, useState } from 'react';
import type { SpecTable } from '@/core/circuit/spec-table';
import { precedenceWords, readFormulas } from '@/core/logic/expression/typed-formulas';
import { type Result, sentence } from '@/core/values/result';
import { Grouped } from './Typeset';

interface Props {
  /** The text before the field. */
  readonly before?: ReactNode;
  readonly label: string;
  readonly initial?: string;
  readonly placeholder: string;
  readonly button: string;
  /** Names that may stand in the formula. */
  readonly inputs: readonly string[];
  readonly read: (text: string) => Result<SpecTable>;
  readonly onTake: (plan: SpecTable) => void;
  /** Called where the field is left without a change; a field that can be left is typed into at once. */
  readonly onLeave?: () => void;
}

/**
 * A line in which a formula is typed. Where precedence alone decides, the reading is told; an error is told
 * below, and the character at which it occurs is selected.
 */
export function FormulaField({
  before,
  label,
  initial = '',
  placeholder,
  button,
  inputs,
  read,
  onTake,
  onLeave,
}: Props) {
  const [text, setText] = useState(initial);
  const [problem, setProblem] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const isOpened = useRef(onLeave !== undefined);
  useEffect(() => {
    if (!isOpened.current) return;
    field.current?.focus();
    field.current?.select();
  }, []);
  // While one types it is only read; the table is made when it is taken.
  const said = readFormulas(text, inputs);
  const doubtful = said.ok ? said.value.filter((f) => f.decided.length > 0) : [];
  const take = () => {
    const now = read(text);
    if (now.ok) {
      onTake(now.value);
      if (!onLeave) setText('');
      return;
    }
    const { place } = now.problem;
    setProblem(sentence(now.problem));
    field.current?.focus();
    if (place?.offset !== undefined)
      field.current?.setSelectionRange(place.offset, Math.min(text.length, place.offset + 1));
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        take();
      }}
    >
      <div className="flex items-center gap-2">
        {before}
        <input
          ref={field}
          className="field h-8 min-w-0"
          aria-label={label}
          aria-invalid={problem !== null}
          value={text}
          maxLength={20_000}
          spellCheck={false}
          autoComplete="off"
          placeholder={placeholder}
          onChange={(event) => {
            setText(event.target.value);
            setProblem(null);
          }}
          onKeyDown={(event) => {
            if (event.key !== 'Escape' || !onLeave) return;
            event.stopPropagation();
            onLeave();
          }}
        />
        <button type="submit" className="button small">
          {button}
        </button>
        {onLeave && (
          <button type="button" className="button small" onClick={onLeave}>
            Cancel
          </button>
        )}
      </div>
      {problem && (
        <p role="alert" className="mt-1 text-sm text-bad">
          {problem}
        </p>
      )}
      {!problem &&
        doubtful.map((formula) => (
          <p key={formula.from} role="status" className="mt-1 text-sm text-quiet">
            Read as <Grouped expression={formula.expression} />, {precedenceWords(formula.decided)}.
            Parentheses say it otherwise.
          </p>
        ))}
    </form>
  );
}
