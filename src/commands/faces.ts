import type { Command } from './command';
import { always } from './conditions';
import type { EditorContext } from './context';

/** A command for each face: it opens it, or closes it. */
export const faceCommands = ({ page }: EditorContext): readonly Command[] =>
  page.faces().map(({ id, name, isOpen }) => ({
    id: `face.${id}`,
    name,
    group: 'face',
    words: 'show hide open close pane',
    isOn: () => isOpen,
    when: always,
    run: () => page.showFace(id, !isOpen),
  }));
