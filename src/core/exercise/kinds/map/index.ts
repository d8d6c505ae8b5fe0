import type { Task } from '../../../circuit/exercise';
import { cubeOfRows, judged, LEAST_ON_MAP } from '../../../logic/map/map';
import { type Cube, OFF, ON, rowsOf, sameCube } from '../../../logic/minimise/cube';
import { minimise } from '../../../logic/minimise/minimise';
import { type Infer, list, whole, z } from '../../../values/schema';
import { counted } from '../../../values/wording';
import { GIVEN, SCRATCH } from '../../rules';
import { FunctionRows, functionOf } from '../function';
import type { TaskKind } from '../task-kind';

const MOST_GROUPS = 64;

const Asked = z.object({ function: FunctionRows });

/** A map shows its function, so that nothing about it is secret. */
const Key = z.object({});

const Answer = z.object({
  kind: z.literal('map'),
  /** The rows of each group. */
  groups: list(z.array(whole(0, 63)).check(z.minLength(1), z.maxLength(64)), MOST_GROUPS),
});

export type MapAsked = Infer<typeof Asked>;
export type MapAnswer = Infer<typeof Answer>;
export type MapTask = Task<MapAsked, Infer<typeof Key>>;

/** What is found of the groups of an answer. */
export interface MapCheck {
  readonly groups: readonly Cube[];
  /** For each group its error as a sentence, or null. */
  readonly said: readonly (string | null)[];
  /** Rows with a 1 under no group. */
  readonly bare: readonly number[];
  readonly smallest: readonly Cube[];
}

/** The groups of an answer that are products at all. */
export const groupsOf = ({ asked }: MapTask, answer: MapAnswer | null): Cube[] =>
  (answer?.groups ?? []).flatMap((rows) => cubeOfRows(new Set(rows), asked.function.inputs.length) ?? []);

/** Groups are drawn on a Karnaugh map: each an implicant and prime, all ones covered, none to spare. */
export const map = {
  kind: 'map',
  name: 'Group a map',
  says: 'The student draws the groups on the Karnaugh map of a function.',
  gistName: 'Groups',
  asked: Asked,
  key: Key,
  answer: Answer,
  unsealable: () => 'a map shows its function',
  strange({ asked: { function: of } }) {
    if (of.inputs.length < LEAST_ON_MAP) return `a map has at least ${LEAST_ON_MAP} inputs`;
    return of.rows.includes('1') ? null : 'its function is nowhere 1, so that there is nothing to group';
  },
  said: (task, { gist, detail }) => {
    const { inputs } = functionOf(task.asked.function);
    return gist
      ? detail.groups
          .map((group) => [...rowsOf(group, inputs)].join('+'))
          .sort()
          .join()
      : null;
  },
  rules: ({ given }) => (given ? GIVEN : SCRATCH),
  mark(task, { answer }) {
    const { function: of } = task.asked;
    const fn = functionOf(of);
    const groups = groupsOf(task, answer);
    const strangers = (answer?.groups.length ?? 0) - groups.length;
    const { groups: improvable, bare } = judged(groups, fn);
    const said = groups.map((group, i) => {
      const rows = [...rowsOf(group, fn.inputs)];
      const zero = rows.find((row) => fn.rows[row] === OFF);
      if (zero !== undefined) return `There is a 0 in it, in row ${zero}.`;
      if (!rows.some((row) => fn.rows[row] === ON)) return 'It covers no 1, only don’t-cares.';
      if (groups.findIndex((other) => sameCube(other, group)) < i) return 'It is there twice.';
      return improvable[i] ?? null;
    });
    const smallest = minimise(fn).cubes;
    const wrong = said.filter((text) => text !== null).length;
    const solved = groups.length > 0 && wrong === 0 && bare.length === 0 && strangers === 0;
    const tooMany = groups.length - smallest.length;
    return {
      right: groups.length - wrong,
      of: Math.max(groups.length, smallest.length),
      word: 'group',
      complaints: [
        ...(groups.length + strangers === 0 ? ['No group is drawn yet.'] : []),
        ...(strangers > 0
          ? [`${counted(strangers, 'group is', 'groups are')} no block of 1, 2, 4, 8 … cells.`]
          : []),
      ],
      solved,
      remark: solved && tooMany > 0 ? `It can be done with ${counted(tooMany, 'group')} fewer.` : undefined,
      wrong:
        groups.length === 0
          ? null
          : [
              ...said.flatMap((text, i) =>
                text ? [`group ${i + 1}: ${text.replace(/\.$/, '').toLowerCase()}`] : [],
              ),
              ...(bare.length > 0 ? [`no group covers row ${bare.join(', ')}`] : []),
            ].join('; ') || null,
      gist: groups.length === 0 ? '' : counted(groups.length, 'group'),
      detail: { groups, said, bare, smallest },
    };
  },
} satisfies TaskKind<MapAsked, Infer<typeof Key>, MapAnswer, MapCheck>;
