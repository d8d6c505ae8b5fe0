import { isTimed } from '@/session/moment';
import type { Face } from '../face';

export const TIME_FACE: Face = {
  id: 'time',
  name: 'Time',
  what: 'the timing diagram',
  load: () => import('./TimeFace').then((m) => m.TimeFace),
  opensWhen: ({ netlist, lesson, taskNeedsTime }) =>
    isTimed(netlist, lesson.settings.delays) || taskNeedsTime,
  isWide: true,
  help: [
    ['Drag along the diagram', 'the moment, for all faces; it jumps to edges that are near'],
    ['Click names of lanes · with Shift', 'choose one · all between, to group, search or hide them'],
    ['Drag the name of a lane', 'moves it up or down'],
    ['M · W', 'a mark to measure from · why the lane changed'],
    ['Drag on an input’s lane, Stimulus open', 'draws its level'],
  ],
};
