import { type Problem, sentence } from '@/core/values/result';

/** Why a kind of task cannot be made of this sheet. */
export const FormProblem = ({ problem }: { problem: Problem }) => (
  <p role="alert" className="text-sm text-bad">
    {sentence(problem)}
  </p>
);
