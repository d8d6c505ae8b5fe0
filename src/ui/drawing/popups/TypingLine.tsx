'use client';

import { useMemo, useState } from 'react';
import { lastPlacedFirst } from '@/commands/recent-parts';
import { compatibleParts, type PinRequirement } from '@/core/drawing/editing/compatible-parts';
import { defaultParams } from '@/core/parts/params';
import type { PartKind } from '@/core/parts/part-kind';
import { kindNamed, readTyped, suggestions, type TypedPart } from '@/core/parts/typed';
import { callHint } from '@/core/synthesis/call';
import { namedPart } from '@/core/synthesis/named-part';
import { isStatement } from '@/core/synthesis/statement';
import { withName } from '@/core/synthesis/unnamed-formula';
import { type Result, sentence } from '@/core/values/result';
import { SHEET } from '@/session/changes/statement';
import { placeable } from '@/session/placeable';
import type { Session } from '@/session/session';
import { SymbolPicture } from '../canvas/SymbolPicture';
import { ComboLine, useMarked } from './ComboLine';
import { OwnTableOfKind } from './OwnTablePanel';
import type { PopoverPlace } from './SheetPopover';

interface Props extends PopoverPlace {
  /** The text with which it begins. */
  readonly first: string;
  readonly session: Session;
  /** The requirement of the wire that was dropped here; all kinds are offered without one. */
  readonly wanted: PinRequirement | null;
  readonly onPlace: (typed: TypedPart) => void;
  /** Draws a statement, or refuses it. */
  readonly onStatement: (text: string) => Result<undefined>;
}

/** A line at the pointer that takes the name of a part: `nand 3`, `sw Key, Bars, Clear`, `clock 4 Hz`. */
export function TypingLine({ place, first, session, wanted, onPlace, onStatement, onClose }: Props) {
  const [text, setText] = useState(first);
  const [problem, setProblem] = useState('');
  /** Whether the part that is marked can be tried before it is placed. */
  const [isTrying, setTrying] = useState(false);
  const kinds = useMemo(() => {
    const all = placeable(session);
    return wanted ? lastPlacedFirst(compatibleParts(all, wanted).map((fit) => fit.kind)) : all;
  }, [session, wanted]);
  const namedIn = (typed: string) => namedPart(session.state.lesson, session.state.sheetId, typed, kinds);
  const named = namedIn(text);
  const namedKind = named?.ok ? [named.value.kind] : [];
  const statement = !named && isLine(text, kinds);
  const marked = useMarked(named || statement ? namedKind : suggestions(text, kinds));
  const { chosen } = marked;

  /** An unnamed formula, given a name. */
  const nameOfFormula = (typed: string) => withName(session.state.lesson, session.state.sheetId, typed);
  const submit = (typed: string) => {
    const part = namedIn(typed);
    if (part) {
      if (part.ok) onPlace(part.value);
      else setProblem(sentence(part.problem));
      return;
    }
    if (isLine(typed, kinds)) {
      const drawn = onStatement(typed);
      setProblem(drawn.ok ? '' : sentence(drawn.problem));
      return;
    }
    const read = readTyped(typed, kinds);
    if (read.ok) onPlace(read.value);
    else {
      const formula = nameOfFormula(typed);
      if (formula) setText(formula);
      else setProblem(sentence(read.problem));
    }
  };
  /** The typed text, with its first word completed to the marked suggestion. */
  const completed = (given: string) => {
    if (isLine(given, kinds)) return given;
    const [best] = suggestions(given, kinds);
    const meant = given === text ? chosen : best;
    if (!meant || kindNamed(given, kinds) === meant || nameOfFormula(given)) return given;
    const [word = '', ...rest] = given.trim().split(/\s+/);
    if (meant.typed.includes(word.toLowerCase())) return given;
    const known = meant.typed.find((name) => given.trim().toLowerCase().startsWith(name));
    // With something behind it only a part's own name: `to 4 decoder` does not begin with a toggle.
    const isBegun = meant.typed.some((name) => name.startsWith(word.toLowerCase()));
    return known || (rest.length > 0 && !isBegun) ? given : [meant.typed[0], ...rest].join(' ');
  };

  /** The text that places a part of a kind: for a wire that was dropped, with as many inputs as the last one of it has. */
  const typedFor = (kind: PartKind) => {
    const [name] = kind.typed;
    const last = wanted && [...session.sheet.parts.values()].findLast((part) => part.kind === kind.kind);
    const inputs = last?.params.inputs;
    return inputs === undefined || inputs === defaultParams(kind).inputs ? name! : `${name} ${inputs}`;
  };

  const read = named ?? (text.trim() && !statement ? readTyped(completed(text), kinds) : null);
  const understood = read?.ok ? read.value : null;
  const formula = understood || statement ? null : nameOfFormula(text);

  /** The meaning of the text, or how to go on. */
  const advice = () => {
    if (statement && !isStatement(text)) return 'Enter begins another sheet of that name';
    if (statement) {
      const call = callHint(session.state.lesson, session.state.sheetId, text);
      return call
        ? `${call} · buses make a row of it: A[7:0]; C = 0 leads the output C on to the next`
        : 'Enter draws it as it is written · names are labels · S, C = half adder(A, B) uses a sheet';
    }
    if (formula) return `A formula needs a name: ${formula}? · Enter gives it that name`;
    if (marked.list.length === 0)
      return read && !read.ok ? sentence(read.problem) : `No part is called “${text.trim()}”.`;
    if (understood) return meaning(understood);
    if (read && !read.ok && kindNamed(completed(text), kinds)) return sentence(read.problem);
    if (wanted && !text.trim()) return 'what fits this wire, the last placed first · Enter takes the first';
    return 'nand 3 · sw Key, Bars · clock 4 Hz · Drive = Key and Bars';
  };

  return (
    <ComboLine
      place={place}
      label="Name of a part"
      listLabel="Parts"
      isAtList={wanted !== null}
      text={text}
      onText={(next) => {
        setText(next);
        setProblem('');
      }}
      maxLength={1000}
      marked={marked}
      keyOf={(kind) => kind.name}
      itemClass="flex h-9 items-center gap-2.5 px-2"
      renderItem={(kind) => (
        <>
          <span className="flex w-10 justify-center">
            <SymbolPicture
              kind={kind}
              height={26}
              params={understood?.kind === kind ? understood.params : undefined}
            />
          </span>
          <span className="font-semibold">{kind.name}</span>
          <span className="ml-auto font-mono text-xs text-quiet">{typedFor(kind)}</span>
        </>
      )}
      onChoose={(kind) => submit(understood?.kind === kind ? completed(text) : typedFor(kind))}
      onEnter={() => submit(text.trim() || !chosen ? completed(text) : typedFor(chosen))}
      onKey={({ key, currentTarget }) => {
        if (key === 'Tab') setText(`${completed(text).trimEnd()} `);
        else if (key === 'ArrowRight' && atEnd(currentTarget)) setTrying(true);
        else return false;
        return true;
      }}
      message={problem || advice()}
      isProblem={problem !== ''}
      onClose={onClose}
    >
      {chosen && (
        <button
          type="button"
          tabIndex={-1}
          className="mx-2 mb-1 cursor-pointer self-start rounded-md border border-hairline px-2 py-0.5 text-xs hover:bg-accent-soft"
          onPointerDown={(event) => {
            event.preventDefault();
            setTrying((now) => !now);
          }}
        >
          {isTrying ? 'Hide its table' : `Try ${chosen.name} first`} <span className="text-quiet">→</span>
        </button>
      )}
      {isTrying && chosen && (
        <div
          className={`absolute top-0 flex max-h-96 w-72 flex-col gap-2 overflow-y-auto rounded-xl border border-hairline bg-raised p-3 text-sm shadow-lg ${place.left > 300 ? 'right-full mr-2' : 'left-full ml-2'}`}
        >
          <OwnTableOfKind
            key={chosen.name}
            kind={chosen}
            params={understood?.kind === chosen ? understood.params : defaultParams(chosen)}
          />
        </div>
      )}
    </ComboLine>
  );
}

/** Whether a text is more than the name of a part: a statement, or another sheet where no part is called so. */
function isLine(text: string, kinds: readonly PartKind[]): boolean {
  const said = text.trim().toLowerCase();
  return isStatement(text) || (SHEET.test(said) && !kinds.some((k) => k.typed.includes(said)));
}

/** Whether the caret stands behind all that was typed. */
const atEnd = (field: HTMLInputElement) => field.selectionStart === field.value.length;

/** The parts to be placed, in words: `three-input NAND`, `2 switches: Key, Bars`. */
function meaning({ kind, params, labels }: TypedPart): string {
  const named = labels.filter(Boolean);
  const said = kind.spoken(params);
  if (named.length > 1) return `${named.length} × ${said}: ${named.join(', ')}`;
  return named.length ? `${said}, ${named[0]}` : said;
}
