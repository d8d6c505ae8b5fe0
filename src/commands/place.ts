import type { Point } from '@/core/circuit/geometry';
import type { Params } from '@/core/circuit/sheet';
import { toSheet } from '@/core/drawing/geometry/viewport';
import { defaultParams } from '@/core/parts/params';
import type { PartKind } from '@/core/parts/part-kind';
import type { Result } from '@/core/values/result';
import { place } from '@/session/changes/place';
import { placeable } from '@/session/placeable';
import type { Command } from './command';
import { always, canEdit } from './conditions';
import type { EditorContext } from './context';
import { noteRecent } from './recent-parts';

/** The point of the grid that lies under a pixel. */
export function gridPoint({ drawing }: EditorContext, pixel: Point): Point {
  const { x, y } = toSheet(drawing.view(), pixel.x, pixel.y);
  return { x: Math.round(x), y: Math.round(y) };
}

/** The last pixel pointed at: where the menu is open, or where a key places a part. */
export function pointedPixel({ drawing }: EditorContext): Point {
  const popup = drawing.popup();
  return popup?.is === 'actions' ? popup.at : drawing.spot();
}

/** Opens the ring at the pointer. */
export const openRing = ({ drawing }: EditorContext): void =>
  drawing.open({ is: 'ring', at: drawing.spot(), flick: null, pointed: drawing.isPointed() });

/** Opens the typing line with some text in it. */
export const openTyping = ({ drawing }: EditorContext, first: string): void =>
  drawing.open({
    is: 'typing',
    at: drawing.spot(),
    first,
    pull: [],
    pointed: drawing.isPointed(),
  });

/**
 * Remembers that parts were placed, and offers to place another or to set them.
 * @param asksLabel whether a part that has a label of its own asks for another first.
 */
export function afterPlacing(
  { drawing }: EditorContext,
  kind: PartKind,
  params: Params,
  placed: Result<string[]>,
  asksLabel = false,
): void {
  noteRecent(kind);
  if (!placed.ok) {
    drawing.open(null);
    return;
  }
  const offer = { is: 'placed', kind, params, parts: placed.value } as const;
  const [only] = placed.value;
  drawing.open(asksLabel && kind.labelled && only ? { is: 'label', part: only, placed: offer } : offer);
}

/** Places a part of a kind at a pixel. @param isPointed whether somebody pointed there, so that it is joined. */
export function placeKind(
  context: EditorContext,
  kind: PartKind,
  params: Params = defaultParams(kind),
  pixel: Point = context.drawing.spot(),
  isPointed = context.drawing.isPointed(),
): void {
  const placed = place(context.session, kind, params, [''], gridPoint(context, pixel), isPointed);
  afterPlacing(context, kind, params, placed);
}

/** A letter that no command takes begins the line. */
export const TYPE: Command = {
  id: 'place.type',
  name: 'Type a part or a statement',
  group: 'place',
  words: 'insert add formula drive name',
  when: canEdit,
  run: (context) => openTyping(context, ''),
};

export const PLACE: readonly Command[] = [
  {
    id: 'place.ring',
    name: 'The ring of parts',
    group: 'place',
    keys: ['Space'],
    help: 'the ring of parts, at the pointer',
    words: 'insert add choose',
    isEverywhere: true,
    when: canEdit,
    run: openRing,
  },
  TYPE,
  {
    id: 'place.actions',
    name: 'Actions here',
    group: 'place',
    keys: ['ContextMenu', 'Shift+F10'],
    help: 'all that can be done with the selection',
    words: 'menu actions',
    when: always,
    run: ({ drawing }) => drawing.open({ is: 'actions', at: drawing.spot() }),
  },
];

/** A command for each kind of part that can be placed on the open sheet. */
export const partCommands = (context: EditorContext): readonly Command[] =>
  placeable(context.session).map((kind) => ({
    id: `place.${kind.typed[0]}`,
    name: kind.name,
    group: 'place',
    words: `${kind.typed.join(' ')} ${kind.says} place part`,
    undoName: 'place',
    when: canEdit,
    run: () => placeKind(context, kind),
  }));
