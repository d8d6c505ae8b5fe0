import { DONE, refused } from '@/core/values/result';
import { isTimed } from '@/session/moment';
import { stepMoment } from '@/session/step';
import type { Command } from './command';
import { all, always } from './conditions';
import type { EditorContext } from './context';

const timed = ({ session }: EditorContext) => {
  const { netlist, lesson } = session.state;
  return isTimed(netlist, lesson.settings.delays)
    ? DONE
    : refused('not-timed', 'nothing on this sheet takes time: there is no clock and no delay');
};

const HELP = 'next row or step of time, and back, with nothing selected';

/** Commands that move the moment: a row, or a time. */
export const MOMENT: readonly Command[] = [
  {
    id: 'moment.forward',
    name: 'Step forward',
    group: 'moment',
    keys: ['ArrowRight'],
    help: HELP,
    words: 'next row time half period event',
    isEverywhere: true,
    when: always,
    run: ({ session }) => stepMoment(session),
  },
  {
    id: 'moment.back',
    name: 'Step back',
    group: 'moment',
    keys: ['ArrowLeft'],
    help: HELP,
    words: 'previous row time half period event',
    isEverywhere: true,
    when: always,
    run: ({ session }) => stepMoment(session, true),
  },
  {
    id: 'moment.run',
    name: 'Run, or pause',
    group: 'moment',
    words: 'play stop time simulate',
    when: timed,
    isOn: ({ session }) => session.state.playing,
    run: ({ session }) => session.time.play(!session.state.playing),
  },
  {
    id: 'moment.now',
    name: 'Back to now',
    group: 'moment',
    words: 'cursor time present',
    when: all(timed, ({ session }) =>
      session.state.cursor === null ? refused('is-now', 'the moment is now already') : DONE,
    ),
    run: ({ session }) => session.time.goToTime(session.state.now),
  },
  {
    id: 'moment.restart',
    name: 'Back to power-up',
    group: 'moment',
    words: 'reset restart beginning time 0',
    when: timed,
    run: ({ session }) => session.time.restart(),
  },
];
