import { runsOf } from '@/core/values/markup';

/** A name with its subscripts and bars. */
export function Marked({ text }: { text: string }) {
  if (!/[_~]/.test(text)) return text;
  return runsOf(text).map((run, i) => {
    const Run = run.low ? 'sub' : 'span';
    return (
      <Run
        key={i}
        className={run.barred ? 'inline-block border-t-[0.09em] border-current leading-[1.1]' : undefined}
      >
        {run.text}
      </Run>
    );
  });
}
