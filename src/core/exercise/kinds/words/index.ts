import type { Task } from '../../../circuit/exercise';
import { type Infer, text, z } from '../../../values/schema';
import { FREE, SCRATCH } from '../../rules';
import type { TaskKind } from '../task-kind';

/** Most letters of an answer in words. */
export const MOST_LETTERS = 4000;

const Asked = z.object({});

const Key = z.object({
  /** What a good answer says, for the marker. */
  model: text(MOST_LETTERS),
});

const Answer = z.object({ kind: z.literal('words'), text: text(MOST_LETTERS) });
export type WordsAnswer = Infer<typeof Answer>;
export type WordsTask = Task<Infer<typeof Asked>, Infer<typeof Key>>;
export type WordsKey = Infer<typeof Key>;

/** A sentence is asked for; a person marks it, beside the model answer. */
export const words = {
  kind: 'words',
  name: 'Answer in words',
  says: 'The student writes a sentence or two; you mark it beside your own answer.',
  isMarkedByHand: true,
  gistName: 'Answer',
  asked: Asked,
  key: Key,
  answer: Answer,
  said: (_, { detail }) =>
    detail
      .toLowerCase()
      .replaceAll(/[\s.,;!?]+/g, ' ')
      .trim() || null,
  rules: ({ given }) => (given ? FREE : SCRATCH),
  mark(_, { answer }) {
    const written = answer?.text.trim() ?? '';
    return {
      right: 0,
      of: 1,
      word: 'answer',
      complaints: [],
      solved: written ? null : false,
      wrong: null,
      gist: written,
      detail: written,
    };
  },
} satisfies TaskKind<Infer<typeof Asked>, WordsKey, WordsAnswer, string>;
