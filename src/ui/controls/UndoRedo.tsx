import { hint } from './hint';
import type { Steps } from './steps-back';

interface Props<T> {
  readonly steps: Steps<T>;
  readonly onUndo: () => void;
  readonly onRedo: () => void;
  /** What is undone, where a page has several: `what was given`. */
  readonly what?: string;
}

/** The two buttons that go back and forward among the steps of a page. */
export function UndoRedo<T>({ steps, onUndo, onRedo, what = '' }: Props<T>) {
  const button = (name: string, sign: string, keys: string, isOff: boolean, onClick: () => void) => (
    <button
      type="button"
      className="icon-button"
      aria-label={what ? `${name} ${what}` : name}
      disabled={isOff}
      onClick={onClick}
      {...hint(`${name} (${keys})`)}
    >
      {sign}
    </button>
  );
  return (
    <>
      {button('Undo', '↶', 'Ctrl+Z', steps.past.length === 0, onUndo)}
      {button('Redo', '↷', 'Ctrl+Shift+Z', steps.future.length === 0, onRedo)}
    </>
  );
}
