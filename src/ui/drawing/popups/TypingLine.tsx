'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { compatibleParts, type PinRequirement } from '@/core/drawing/editing/compatible-parts';
import { defaultParams } from '@/core/parts/params';
import type { PartKind } from '@/core/parts/part-kind';
import { readTyped, suggestions, type TypedPart } from '@/core/parts/typed';
import { isStatement } from '@/core/synthesis/statement';
import { type Result, sentence } from '@/core/values/result';
import { SHEET } from '@/session/changes/statement';
import { placeable } from '@/session/placeable';
import type { Session } from '@/session/session';
import { SymbolPicture } from '../canvas/SymbolPicture';
import { OwnTableOfKind } from './OwnTablePanel';

interface Props {
  readonly x: number;
  readonly y: number;
  /** What was typed before the line was there, and whether Enter followed. */
  readonly first: string;
  readonly entered: boolean;
  readonly session: Session;
  /** What the wire needs that was let go here; all kinds are offered without one. */
  readonly wanted: PinRequirement | null;
  readonly onPlace: (typed: TypedPart) => void;
  /** Draws a statement, or says what is wrong with it. */
  readonly onStatement: (text: string) => Result<undefined>;
  readonly onClose: () => void;
}

const SHOWN = 6;

/** A line at the pointer that takes the name of a part: `nand 3`, `sw Key, Bars, Clear`, `clock 4 Hz`. */
export function TypingLine({ x, y, first, entered, session, wanted, onPlace, onStatement, onClose }: Props) {
  const [text, setText] = useState(first);
  const [at, setAt] = useState(0);
  const [problem, setProblem] = useState('');
  /** Whether the part that is marked can be tried before it is placed. */
  const [trying, setTrying] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const kinds = useMemo(() => {
    const all = placeable(session);
    return wanted ? compatibleParts(all, wanted).map((fit) => fit.kind) : all;
  }, [session, wanted]);
  const statement = isLine(text, kinds);
  const list = statement ? [] : suggestions(text, kinds).slice(0, SHOWN);
  const chosen = list[Math.min(at, list.length - 1)];

  useEffect(() => {
    const field = input.current!;
    field.focus();
    field.setSelectionRange(field.value.length, field.value.length);
  }, []);

  const submit = (typed: string) => {
    if (isLine(typed, kinds)) {
      const drawn = onStatement(typed);
      setProblem(drawn.ok ? '' : sentence(drawn.problem));
      return;
    }
    const read = readTyped(typed, kinds);
    if (read.ok) onPlace(read.value);
    else setProblem(sentence(read.problem));
  };
  /** What was typed, with its first word completed to the suggestion that is marked. */
  const completed = (given: string) => {
    if (isLine(given, kinds)) return given;
    const [best] = suggestions(given, kinds);
    const meant = given === text ? chosen : best;
    if (!meant) return given;
    const [word = '', ...rest] = given.trim().split(/\s+/);
    if (meant.typed.includes(word.toLowerCase())) return given;
    const known = meant.typed.find((name) => given.trim().toLowerCase().startsWith(name));
    return known ? given : [meant.typed[0], ...rest].join(' ');
  };

  const read = text.trim() && !statement ? readTyped(completed(text), kinds) : null;
  const understood = read?.ok ? read.value : null;

  // Keys may still have come while the line was being fetched and mounted.
  useEffect(() => setText(first), [first]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only Enter that was pressed ahead counts here
  useEffect(() => {
    if (entered) submit(completed(first));
  }, [entered]);

  return (
    <div
      className="absolute z-30 w-72 rounded-xl border border-hairline bg-raised shadow-lg"
      style={{ left: x, top: y }}
      onPointerDown={(event) => event.stopPropagation()}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) onClose();
      }}
    >
      <input
        ref={input}
        className="w-full rounded-t-xl bg-transparent px-3 py-2 text-base font-semibold outline-none"
        value={text}
        role="combobox"
        aria-label="Name of a part"
        aria-expanded="true"
        aria-controls="typed-parts"
        aria-activedescendant={chosen ? `typed-${list.indexOf(chosen)}` : undefined}
        aria-describedby="typed-problem"
        spellCheck={false}
        autoComplete="off"
        maxLength={200}
        onChange={(event) => {
          setText(event.target.value);
          setAt(0);
          setProblem('');
        }}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Escape') onClose();
          else if (event.key === 'Enter') submit(completed(text));
          else if (event.key === 'Tab') setText(`${completed(text).trimEnd()} `);
          else if (event.key === 'ArrowRight' && atEnd(event.currentTarget)) setTrying(true);
          else if (event.key === 'ArrowDown') setAt((i) => Math.min(i + 1, list.length - 1));
          else if (event.key === 'ArrowUp') setAt((i) => Math.max(i - 1, 0));
          else return;
          event.preventDefault();
        }}
      />
      <div id="typed-parts" role="listbox" aria-label="Parts" className="border-t border-hairline p-1">
        {list.map((kind, i) => (
          <div
            key={kind.name}
            id={`typed-${i}`}
            role="option"
            aria-selected={kind === chosen}
            tabIndex={-1}
            className={`flex h-9 cursor-pointer items-center gap-2.5 rounded-lg px-2 ${kind === chosen ? 'bg-accent-soft' : ''}`}
            onPointerDown={(event) => {
              event.preventDefault();
              submit(understood?.kind === kind ? completed(text) : kind.typed[0]!);
            }}
          >
            <span className="flex w-10 justify-center">
              <SymbolPicture
                kind={kind}
                height={26}
                params={understood?.kind === kind ? understood.params : undefined}
              />
            </span>
            <span className="font-semibold">{kind.name}</span>
            <span className="ml-auto font-mono text-xs text-quiet">{kind.typed[0]}</span>
          </div>
        ))}
      </div>
      {chosen && (
        <button
          type="button"
          tabIndex={-1}
          className="mx-2 mb-1 cursor-pointer rounded-md border border-hairline px-2 py-0.5 text-xs hover:bg-accent-soft"
          onPointerDown={(event) => {
            event.preventDefault();
            setTrying((now) => !now);
          }}
        >
          {trying ? 'Hide its table' : `Try ${chosen.name} first`} <span className="text-quiet">→</span>
        </button>
      )}
      {trying && chosen && (
        <div
          className={`absolute top-0 flex max-h-96 w-72 flex-col gap-2 overflow-y-auto rounded-xl border border-hairline bg-raised p-3 text-sm shadow-lg ${x > 300 ? 'right-full mr-2' : 'left-full ml-2'}`}
        >
          <OwnTableOfKind
            key={chosen.name}
            kind={chosen}
            params={understood?.kind === chosen ? understood.params : defaultParams(chosen)}
          />
        </div>
      )}
      <p
        id="typed-problem"
        className={`px-3 pb-2 text-xs ${problem ? 'text-bad' : 'text-quiet'}`}
        aria-live="polite"
      >
        {problem ||
          (statement
            ? isStatement(text)
              ? 'Enter draws it as it is written · names are labels · S, C = half adder(A, B) uses a sheet'
              : 'Enter begins another sheet of that name'
            : list.length === 0
              ? `No part is called “${text.trim()}”.`
              : understood
                ? meaning(understood)
                : wanted
                  ? 'what fits this wire · Enter takes the first'
                  : 'nand 3 · sw Key, Bars · clock 4 Hz · Drive = Key and Bars')}
      </p>
    </div>
  );
}

/** Whether a text is more than the name of a part: a statement, or another sheet where no part is called so. */
function isLine(text: string, kinds: readonly PartKind[]): boolean {
  const said = text.trim().toLowerCase();
  return isStatement(text) || (SHEET.test(said) && !kinds.some((k) => k.typed.includes(said)));
}

/** Whether the caret stands behind all that was typed. */
const atEnd = (field: HTMLInputElement) => field.selectionStart === field.value.length;

/** What will be placed, in words: `three-input NAND`, `2 switches: Key, Bars`. */
function meaning({ kind, params, labels }: TypedPart): string {
  const named = labels.filter(Boolean);
  const said = kind.spoken(params);
  if (named.length > 1) return `${named.length} × ${said}: ${named.join(', ')}`;
  return named.length ? `${said}, ${named[0]}` : said;
}
