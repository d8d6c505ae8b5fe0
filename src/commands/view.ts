import { zoomed } from '@/core/drawing/geometry/viewport';
import { NOTHING } from '@/session/state';
import type { Command } from './command';
import { always, someOnSheet } from './conditions';
import type { EditorContext } from './context';

const ZOOM_STEP = 1.2;

function zoom({ drawing }: EditorContext, factor: number): void {
  const at = drawing.spot();
  drawing.setView(zoomed(drawing.view(), factor, at.x, at.y));
}

const ZOOM_HELP = 'closer · farther';

export const PROJECTOR: Command = {
  id: 'view.projector',
  name: 'Large, for a projector',
  group: 'view',
  keys: ['F9'],
  help: 'large for a projector, larger, and back',
  words: 'beamer class big',
  isEverywhere: true,
  when: always,
  run: ({ page }) => page.nextProjectorSize(),
};

/** Commands that change only the view. */
export const VIEW: readonly Command[] = [
  {
    id: 'view.all',
    name: 'Show everything',
    group: 'view',
    keys: ['0'],
    words: 'fit zoom whole sheet',
    when: always,
    run: ({ drawing }) => drawing.showAll(),
  },
  {
    id: 'view.closer',
    name: 'Closer',
    group: 'view',
    keys: ['+', '='],
    help: ZOOM_HELP,
    words: 'zoom in larger',
    when: always,
    run: (context) => zoom(context, ZOOM_STEP),
  },
  {
    id: 'view.farther',
    name: 'Farther',
    group: 'view',
    keys: ['-'],
    help: ZOOM_HELP,
    words: 'zoom out smaller',
    when: always,
    run: (context) => zoom(context, 1 / ZOOM_STEP),
  },
  PROJECTOR,
  {
    id: 'view.theme',
    name: 'Light, or dark',
    group: 'view',
    words: 'theme colours night',
    when: always,
    run: ({ page }) => page.toggleTheme(),
  },
  {
    id: 'view.problem',
    name: 'Next problem or open input',
    group: 'view',
    keys: ['F8'],
    help: 'the next problem or open input, with its remedies',
    words: 'problem error loose unwired wrong',
    isEverywhere: true,
    when: always,
    run: ({ session, drawing }) => {
      const count = session.state.diagnostics.length;
      const shown = drawing.popup();
      if (count > 0) drawing.goToProblem(shown?.is === 'problem' ? (shown.index + 1) % count : 0);
      else session.say('Every input is wired, and nothing is wrong.');
    },
  },
  {
    id: 'view.select-all',
    name: 'Select everything',
    group: 'sheet',
    keys: ['Ctrl+A'],
    when: someOnSheet,
    run: ({ session }) => {
      const { parts, wires } = session.sheet;
      session.select({ parts: new Set(parts.keys()), wires: new Set(wires.keys()) });
    },
  },
  {
    id: 'view.select-several',
    name: 'Select several',
    group: 'sheet',
    words: 'box rubber band marquee choose parts',
    when: someOnSheet,
    run: ({ drawing }) => drawing.open({ is: 'selecting' }),
  },
  {
    id: 'view.cancel',
    name: 'Cancel, or select nothing',
    group: 'view',
    keys: ['Escape'],
    help: 'gives up a gesture, and selects nothing',
    words: 'cancel deselect',
    when: always,
    run: ({ session, drawing }) => {
      if (drawing.cancelGesture()) return;
      if (drawing.popup()?.is === 'selecting') drawing.open(null);
      else session.select(NOTHING);
    },
  },
];
