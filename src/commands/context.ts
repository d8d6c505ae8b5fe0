import type { Point } from '@/core/circuit/geometry';
import type { View } from '@/core/drawing/geometry/viewport';
import type { Session } from '@/session/session';
import type { Popup } from './popup';

/** All that a command or a gesture acts on: the open lesson, its drawing, and the page around both. */
export interface EditorContext {
  readonly session: Session;
  readonly drawing: DrawingContext;
  readonly page: PageContext;
}

/** The drawing face. Points are pixels from its upper left corner. */
export interface DrawingContext {
  /** The popup that is open over the sheet. */
  popup(): Popup | null;
  open(next: Popup | null): void;
  /** Where a key places things: at the pointer, or in the middle. */
  spot(): Point;
  /** Whether the pointer is over the sheet. */
  isPointed(): boolean;
  view(): View;
  /** Shows another part of the sheet. */
  setView(next: View): void;
  repaint(): void;
  showAll(): void;
  /** Leads to a problem of the sheet, by its index in the session's diagnostics. */
  goToProblem(index: number): void;
  /** Gives up the gesture that is under way. @returns whether there was one. */
  cancelGesture(): boolean;
}

/** The dialogs of the page. */
export type Dialog = 'help' | 'commands' | 'compare' | 'link' | 'figure' | 'paper' | 'rename-sheet';

/** A face as commands see it. */
export interface FaceEntry {
  readonly id: string;
  readonly name: string;
  readonly isOpen: boolean;
}

/** The page around the faces. */
export interface PageContext {
  /** The faces that can stand beside the drawing, in their order. */
  faces(): readonly FaceEntry[];
  showFace(id: string, open: boolean): void;
  openDialog(dialog: Dialog): void;
  /** Larger for a projector, and from the largest back to the usual size. */
  nextProjectorSize(): void;
  toggleTheme(): void;
  /** Writes the open sheet as a file. @param format the id of a format that is written at sheets. */
  saveAs(format: string): void;
  print(): void;
  /** Saves the lesson to the file that it has, or as a download. */
  saveFile(): void;
  /** Asks for a file and saves the lesson to it, now and from then on; null if the browser cannot. */
  readonly saveToChosenFile: (() => void) | null;
}
