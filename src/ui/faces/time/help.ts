import type { HelpLine } from '../face';

/** The lines of this face on the help page. */
export const HELP: readonly HelpLine[] = [
  ['Drag along the diagram', 'the moment, for all faces; it jumps to edges that are near'],
  ['Click names of lanes · with Shift', 'choose one · all between, to group, search or hide them'],
  ['Drag the name of a lane', 'moves it up or down'],
  ['⋯ at a chosen lane, its right button, or Enter', 'all that can be done with it'],
  ['G · H', 'the chosen lanes as one number · hides them'],
  ['M · W', 'a mark to measure from · why the lane changed'],
  ['Drag on an input’s lane, Stimulus open', 'draws its level'],
];
