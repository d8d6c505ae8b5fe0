import type { PinEnd } from '../circuit/sheet';

/** A problem of a circuit, or a note: a stable code, a sentence for a student, and its place. */
export interface Diagnostic {
  readonly code:
    | 'loose-input'
    | 'undriven'
    | 'outputs-tied'
    | 'width-mismatch'
    | 'conflict'
    | 'unsettled'
    | 'clock-unknown'
    | 'loop'
    | 'missing-port'
    | 'duplicate-name'
    | 'unknown-block'
    | 'recursion'
    | 'gated-clock';
  /** A note is not wrong: a latch of two gates is a loop too. */
  readonly severity: 'problem' | 'note';
  readonly message: string;
  /** Pins on the compiled sheet, or on `inside` if given. */
  readonly pins: readonly PinEnd[];
  /** Id of the block's sheet that contains it. */
  readonly inside?: string;
}

/** Whether it says only that something is not wired yet, and nothing contradicts anything. */
export const isUnfinished = ({ code }: Diagnostic): boolean => code === 'loose-input' || code === 'undriven';
