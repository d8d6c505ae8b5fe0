import { renderToStaticMarkup } from 'react-dom/server';
import { begunWork } from '@/core/exercise/begin';
import { diagram as kind } from '@/core/exercise/kinds/diagram';
import { buildTask, exerciseOf } from '@/core/testing/exercises';
import { diagram } from './diagram';

const task = {
  ...buildTask({ kind: 'table' }, []),
  kind: 'diagram',
  asked: {
    cell: 10,
    cells: 4,
    lanes: [
      { name: 'Q0', levels: null },
      { name: 'Q1', levels: null },
    ],
    isPredicted: false,
  },
  key: { lanes: ['0110', '1001'] },
};
const sheet = begunWork(exerciseOf([task]), 'work').sheets[0]!;

test('of a cell that is not drawn a check tells nothing', () => {
  const answer = { kind: 'diagram' as const, lanes: ['01..', '....'], isFinal: false };
  const mark = kind.mark(task, { sheet, sheets: [sheet], answer, builtIn: () => [] });
  const shown = renderToStaticMarkup(<diagram.Feedback task={task} mark={mark} tells="wanted" />);
  const lanes = shown.split('Q1');
  expect(lanes).toHaveLength(2);
  const digits = (html: string) => html.replaceAll(/<[^>]*>/g, ' ').match(/(?<![\w.])[01](?![\w.])/g) ?? [];
  expect(digits(lanes[0]!.split('Q0').at(-1)!)).toEqual(['0', '1']);
  expect(digits(lanes[1]!.replace(/0 s.*$/s, ''))).toEqual([]);
});
