import type { Face } from '../face';

export const BENCH_FACE: Face = {
  id: 'bench',
  name: 'Bench',
  what: 'the wiring board',
  load: () => import('./BenchFace').then((m) => m.BenchFace),
  opensWhen: ({ rules }) => rules.guide !== null,
  isWide: true,
  isWidest: true,
  share: 70,
  loadHelp: () => import('./help').then((m) => m.HELP),
};
