import type { Figure, Mark } from '@/core/figure/figure';
import { pathText } from '@/core/figure/figure-svg';
import { FONTS } from '@/ui/controls/palette';

interface Props {
  readonly figure: Figure;
  readonly className?: string;
}

/** A figure in the page, with the fonts of the page; figures that are made for paper have no clips. */
export function FigureView({ figure: { title, width, height, marks }, className }: Props) {
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      role="img"
      aria-label={title}
      className={className}
    >
      {marks.map((mark, i) => (
        <MarkView key={i} mark={mark} />
      ))}
    </svg>
  );
}

const ANCHOR = { left: 'start', center: 'middle', right: 'end' } as const;

function MarkView({ mark }: { readonly mark: Mark }) {
  const opacity = mark.opacity < 1 ? mark.opacity : undefined;
  if (mark.is === 'path') {
    const { steps, fill, stroke } = mark;
    return (
      <path
        d={pathText(steps)}
        fill={fill ?? 'none'}
        opacity={opacity}
        {...(stroke && {
          stroke: stroke.colour,
          strokeWidth: stroke.width,
          strokeDasharray: stroke.dash.join(' ') || undefined,
          strokeLinecap: stroke.cap,
          strokeLinejoin: 'round',
        })}
      />
    );
  }
  const { at, runs, size, weight, face, align, colour, angle } = mark;
  return (
    <text
      x={at.x}
      y={at.y}
      fontSize={size}
      fontWeight={weight}
      fontFamily={FONTS[face]}
      textAnchor={ANCHOR[align]}
      fill={colour}
      opacity={opacity}
      transform={Math.abs(angle) < 0.01 ? undefined : `rotate(${angle} ${at.x} ${at.y})`}
    >
      {runs.map(({ text, low, barred }, i) => {
        const shift = (low ? 0.22 : 0) - (runs[i - 1]?.low ? 0.22 : 0);
        return (
          <tspan
            key={i}
            dy={shift === 0 ? undefined : shift * size}
            fontSize={low ? 0.72 * size : undefined}
            textDecoration={barred ? 'overline' : undefined}
          >
            {text}
          </tspan>
        );
      })}
    </text>
  );
}
