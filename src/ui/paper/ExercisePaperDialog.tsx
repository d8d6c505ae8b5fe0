'use client';

import type { Exercise } from '@/core/circuit/exercise';
import { exercisePaper } from '@/core/paper/sheet-paper';
import { PaperDialog } from './PaperDialog';

interface Props {
  readonly exercise: Exercise;
  readonly onClose: () => void;
}

/** All tasks of an exercise on paper. */
export const ExercisePaperDialog = ({ exercise, onClose }: Props) => (
  <PaperDialog paperOf={(isAnswer) => exercisePaper(exercise, isAnswer)} onClose={onClose} />
);
