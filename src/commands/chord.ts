/*
 * A chord is a key with its modifiers as text: `Ctrl+Shift+Z`, `Alt+ArrowLeft`, `F2`, `[`, `Space`. Command stands for
 * Ctrl on keyboards that have it. A sign that is printed counts as the sign, however a keyboard makes it.
 */

/** The facts of a key event that count; it can be kept until the drawing is there to take it. */
export interface KeyPress {
  readonly key: string;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly altKey: boolean;
  readonly shiftKey: boolean;
  /** Whether the key is held down and the keyboard repeats it. */
  readonly isRepeat?: boolean;
  /** Whether another face has the focus: the selection on the sheet is then not the target. */
  readonly elsewhere?: boolean;
}

const isLetter = (key: string) => key.length === 1 && key.toLowerCase() !== key.toUpperCase();

/** The chord of a key press. */
export function chordOf({ key, ctrlKey, metaKey, altKey, shiftKey }: KeyPress): string {
  const isSign = key.length === 1 && key !== ' ';
  // AltGr arrives as Ctrl with Alt: a German keyboard writes [ and | with it.
  const isMade = isSign && !isLetter(key) && ctrlKey && altKey;
  const ctrl = (ctrlKey || metaKey) && !isMade;
  const alt = altKey && !isMade;
  const shift = shiftKey && (!isSign || (ctrl && isLetter(key)));
  const name = key === ' ' ? 'Space' : ctrl && isSign ? key.toUpperCase() : key;
  return [ctrl && 'Ctrl', alt && 'Alt', shift && 'Shift', name].filter(Boolean).join('+');
}

const SHOWN: Readonly<Record<string, string>> = {
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  Escape: 'Esc',
  ContextMenu: 'Menu key',
  '-': '−',
};

/** A chord as it is shown: `Ctrl Shift Z`, `Alt ←`. */
export function chordText(chord: string): string {
  if (chord === '+') return chord;
  return chord
    .split('+')
    .map((key) => SHOWN[key] ?? key)
    .join(' ');
}
