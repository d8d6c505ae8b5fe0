import { type ReactNode, useEffect, useRef, useState } from 'react';
import type { SpecTable } from '@/core/circuit/spec-table';
import { namesLine, specFromNames } from '@/core/logic/specification/spec-edits';
import { specFromText } from '@/core/logic/specification/spec-text';
import { type Result, sentence } from '@/core/values/result';
import { setSpec, specOfCircuit } from '@/session/changes/table';
import { DropZone } from '@/ui/controls/DropZone';
import { FileButton } from '@/ui/controls/FileButton';
import { readFiles } from '@/ui/controls/read-files';
import { useSession } from '@/ui/session/session-context';

interface Props {
  readonly plan: SpecTable | undefined;
  readonly onDone: () => void;
}

/** The line of names that begins a table or changes it. A whole table may come instead, pasted or in a file. */
export function Names({ plan, onDone }: Props) {
  const session = useSession();
  const [drawn] = useState(() => (plan ? null : specOfCircuit(session)));
  const offered = plan ?? drawn;
  const [line, setLine] = useState(offered ? namesLine(offered) : '');
  const [problem, setProblem] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    field.current?.focus();
    field.current?.select();
  }, []);
  const [isOpen, setOpen] = useState(false);
  const [isAsDrawn, setAsDrawn] = useState(false);
  const typed = line
    .split('=')[0]!
    .split(',')
    .map((name) => name.trim());
  const added = plan ? typed.filter((name) => name && !plan.inputs.includes(name)) : [];
  const take = (made: Result<SpecTable>, where = '') => {
    if (!made.ok) {
      setProblem(where ? `${where}${made.problem.message}.` : sentence(made.problem));
      return;
    }
    if (setSpec(session, made.value, plan ? 'change the names of the table' : 'begin a table').ok) onDone();
  };
  const open = async ([file]: File[]) => {
    const [read] = await readFiles([file!]);
    const { name, text } = read!;
    take(text.ok ? specFromText(text.value) : text, `${name}: `);
  };
  return (
    <DropZone className="border-b border-hairline px-3 py-2" hint="A table: CSV or Markdown" onFiles={open}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const old = plan ?? (isAsDrawn ? drawn : null);
          take(specFromNames(line, old, isOpen ? 'open' : 'copied'));
        }}
      >
        <label className="text-sm">
          Inputs = outputs
          <span className="mt-1 flex gap-2">
            <input
              ref={field}
              className="field"
              value={line}
              placeholder="Key, Bars, Clear = Drive, Warn"
              spellCheck={false}
              onChange={(event) => {
                setLine(event.target.value);
                setProblem(null);
              }}
              onPaste={(event) => {
                const text = event.clipboardData.getData('text/plain');
                if (!/[\r\n]/.test(text.trim())) return;
                event.preventDefault();
                take(specFromText(text));
              }}
              onKeyDown={(event) => event.key === 'Escape' && plan && onDone()}
            />
            <button type="submit" className="button main">
              {plan ? 'Change' : 'Begin'}
            </button>
          </span>
        </label>
        {added.length > 0 && (
          <Choice isOn={isOpen} onChange={setOpen}>
            leave open where {added.length === 1 ? `${added[0]} is` : 'one of them is'} 1
          </Choice>
        )}
        {drawn && (
          <Choice isOn={isAsDrawn} onChange={setAsDrawn}>
            starting from what the circuit does
          </Choice>
        )}
        {problem && (
          <p role="alert" className="mt-1 text-sm text-bad">
            {problem}
          </p>
        )}
        {(!problem || !plan) && (
          <p className="mt-1 flex flex-wrap items-center gap-x-1 text-sm text-quiet">
            {hintFor(plan, added, isOpen)}
            {!plan && (
              <FileButton
                label="A table in a file"
                accept=".csv,.tsv,.txt,.md,text/csv,text/plain"
                className="cursor-pointer rounded-md px-1 text-accent hover:bg-accent-soft"
                onFiles={open}
              >
                open a file
              </FileButton>
            )}
          </p>
        )}
      </form>
    </DropZone>
  );
}

function hintFor(plan: SpecTable | undefined, added: readonly string[], isOpen: boolean): string {
  if (!plan) return 'Or paste a whole table from a spreadsheet here, or';
  if (added.length === 0) return 'The filled-in cells stay with their names.';
  const names = added.join(', ');
  return isOpen
    ? `The filled-in cells stay where ${names} ${added.length === 1 ? 'is' : 'are'} 0.`
    : `The filled-in cells stay, and hold for ${names} at 0 and at 1.`;
}

interface ChoiceProps {
  readonly isOn: boolean;
  readonly onChange: (isOn: boolean) => void;
  readonly children: ReactNode;
}

function Choice({ isOn, onChange, children }: ChoiceProps) {
  return (
    <label className="mt-1.5 flex items-center gap-1.5 text-sm">
      <input
        type="checkbox"
        className="accent-accent"
        checked={isOn}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span>{children}</span>
    </label>
  );
}
