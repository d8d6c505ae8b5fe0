import { isTimed } from '@/session/moment';
import type { Face } from '../face';

export const TIME_FACE: Face = {
  id: 'time',
  name: 'Time',
  what: 'the timing diagram',
  load: () => import('./TimeFace').then((m) => m.TimeFace),
  opensWhen: ({ netlist, lesson, rules }) => isTimed(netlist, lesson.settings.delays) || rules.needsTime,
  isWide: true,
  loadHelp: () => import('./help').then((m) => m.HELP),
};
