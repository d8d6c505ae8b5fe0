import { bench } from './bench';
import { build } from './build';
import { diagram } from './diagram';
import { fault } from './fault';
import { formula } from './formula';
import { map } from './map';
import { number } from './number';
import { table } from './table';
import type { TaskView } from './task-view';
import { words } from './words';

/** The views of all kinds of task. */
export const VIEWS: readonly TaskView[] = [build, bench, table, diagram, fault, formula, map, number, words];

/** The views of a kind. @throws Error for an unknown kind: file readers let none pass. */
export function taskViewOf({ kind }: { readonly kind: string }): TaskView {
  const found = VIEWS.find((view) => view.kind === kind);
  if (!found) throw new Error(`no view of the kind ${kind}`);
  return found;
}
