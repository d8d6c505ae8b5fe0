'use client';

import { type KeyboardEvent, type ReactNode, useId, useRef, useState } from 'react';
import { type PopoverPlace, SheetPopover } from './SheetPopover';

/** A short list with one marked item. */
export interface Marked<T> {
  readonly list: readonly T[];
  /** Undefined where the list is empty. */
  readonly chosen: T | undefined;
  /** Marks the item so many places further on; stays within the list. */
  move(by: number): void;
  /** Marks the first item. */
  reset(): void;
}

export function useMarked<T>(list: readonly T[]): Marked<T> {
  const [at, setAt] = useState(0);
  const last = list.length - 1;
  return {
    list,
    chosen: list[Math.min(at, last)],
    move: (by) => setAt((i) => Math.max(0, Math.min(i + by, last))),
    reset: () => setAt(0),
  };
}

interface Props<T> extends PopoverPlace {
  /** Whether the first item is to lie under the pointer, for a press to take it. */
  readonly isAtList?: boolean;
  /** The name of the field, and that of its list. */
  readonly label: string;
  readonly listLabel: string;
  readonly placeholder?: string;
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly maxLength?: number;
  readonly marked: Marked<T>;
  keyOf(item: T): string;
  readonly itemClass: string;
  renderItem(item: T): ReactNode;
  /** An item was pressed. */
  onChoose(item: T): void;
  onEnter(): void;
  /** Handles another key. @returns whether it did. */
  onKey?(event: KeyboardEvent<HTMLInputElement>): boolean;
  /** What to know, or the error in the text, below the list. */
  readonly message: string;
  readonly isProblem?: boolean;
  /** Between the list and the message. */
  readonly children?: ReactNode;
}

/** The pixels by which the first item of the list stands below the upper edge, and the hand within it. */
const AT_LIST = { gap: -64, along: -28, staysBelow: true };

/** A field over the sheet with a list of matches below it (combobox of WAI-ARIA): arrow keys, Enter, Escape. */
const seen = (item: HTMLElement | null) => item?.scrollIntoView({ block: 'nearest' });

export function ComboLine<T>(props: Props<T>) {
  const { place, label, listLabel, placeholder, text, onText, maxLength = 100, marked, onClose } = props;
  const { list, chosen } = marked;
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  return (
    <SheetPopover
      place={place}
      onClose={onClose}
      label={label}
      {...(props.isAtList ? AT_LIST : { gap: 0 })}
      className="flex w-72 flex-col"
      onOpen={() => {
        const field = input.current!;
        field.focus();
        field.setSelectionRange(field.value.length, field.value.length);
      }}
    >
      <input
        ref={input}
        className="w-full rounded-t-xl bg-transparent px-3 py-2 text-base font-semibold outline-none"
        placeholder={placeholder}
        value={text}
        role="combobox"
        aria-label={label}
        aria-expanded="true"
        aria-controls={`${id}list`}
        aria-activedescendant={chosen === undefined ? undefined : `${id}${list.indexOf(chosen)}`}
        aria-describedby={`${id}message`}
        spellCheck={false}
        autoComplete="off"
        maxLength={maxLength}
        onChange={(event) => {
          onText(event.target.value);
          marked.reset();
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') props.onEnter();
          else if (event.key === 'ArrowDown') marked.move(1);
          else if (event.key === 'ArrowUp') marked.move(-1);
          else if (!props.onKey?.(event)) return;
          event.preventDefault();
        }}
      />
      <div
        id={`${id}list`}
        role="listbox"
        aria-label={listLabel}
        className="max-h-72 min-h-2 overflow-y-auto border-t border-hairline p-1"
      >
        {list.map((item, i) => (
          <div
            key={props.keyOf(item)}
            ref={item === chosen ? seen : undefined}
            id={`${id}${i}`}
            role="option"
            aria-selected={item === chosen}
            tabIndex={-1}
            className={`cursor-pointer rounded-lg ${props.itemClass} ${item === chosen ? 'bg-accent-soft' : ''}`}
            onPointerDown={(event) => {
              event.preventDefault();
              props.onChoose(item);
            }}
          >
            {props.renderItem(item)}
          </div>
        ))}
      </div>
      {props.children}
      <p
        id={`${id}message`}
        className={`px-3 pb-2 text-xs ${props.isProblem ? 'text-bad' : 'text-quiet'}`}
        aria-live="polite"
      >
        {props.message}
      </p>
    </SheetPopover>
  );
}
