import type { PinEnd } from '../circuit/lesson';

/** What is wrong with a circuit: a stable code, a sentence for a student, and where it is on the sheet. */
export interface Diagnostic {
  readonly code: 'loose-input' | 'undriven' | 'outputs-tied' | 'width-mismatch' | 'unsettled';
  readonly message: string;
  readonly pins: readonly PinEnd[];
}
