import { runsOf } from '@/core/values/markup';

/** A name with its subscripts and bars. */
export function Marked({ text }: { text: string }) {
  if (!/[_~]/.test(text)) return text;
  return runsOf(text).map((run, i) => {
    const Run = run.low ? 'sub' : 'span';
    return (
      <Run key={i} className={run.barred ? 'overline' : undefined}>
        {run.text}
      </Run>
    );
  });
}
