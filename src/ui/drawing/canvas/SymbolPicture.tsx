import type { Params } from '@/core/circuit/sheet';
import { defaultParams } from '@/core/parts/params';
import type { PartKind } from '@/core/parts/part-kind';
import type { Shape } from '@/core/parts/shape';
import { ZERO } from '@/core/values/logic';

function Stroke({ shape }: { shape: Shape }) {
  if (shape.shape === 'text')
    return (
      <text
        x={shape.x}
        y={shape.y + shape.size * 0.35}
        fontSize={shape.size}
        textAnchor={shape.align === 'center' ? 'middle' : shape.align === 'right' ? 'end' : 'start'}
        fill={`var(--${shape.paint ?? 'ink'})`}
        fontWeight={shape.bold ? 700 : 400}
      >
        {shape.text}
      </text>
    );
  const paint = {
    fill: shape.fill ? `var(--${shape.fill})` : 'none',
    stroke: shape.stroke ? `var(--${shape.stroke})` : 'none',
    strokeWidth: shape.weight,
    strokeLinecap: 'round' as const,
    strokeLinejoin: 'round' as const,
  };
  if (shape.shape === 'circle') return <circle cx={shape.x} cy={shape.y} r={shape.r} {...paint} />;
  return <path d={shape.d} {...paint} />;
}

interface Props {
  readonly kind: PartKind;
  /** Pixels; as wide as it needs to be unless a width is given. */
  readonly height: number;
  readonly width?: number;
  readonly params?: Params;
}

/** A part's symbol, fitted into a box, for lists and buttons. */
export function SymbolPicture({ kind, height, width, params = defaultParams(kind) }: Props) {
  const b = kind.body(params);
  const air = 0.9;
  const w = b.x1 - b.x0 + 2 * air;
  const h = b.y1 - b.y0 + 2 * air;
  const shapes = kind
    .symbol(params, { standard: 'distinctive', value: () => ZERO, held: false })
    .filter((s) => s.shape !== 'text' || s.y <= b.y1);
  return (
    <svg
      height={height}
      width={width ?? (height * w) / h}
      viewBox={`${b.x0 - air} ${b.y0 - air} ${w} ${h}`}
      aria-hidden="true"
      className="shrink-0"
    >
      {shapes.map((shape, i) => (
        <Stroke key={i} shape={shape} />
      ))}
    </svg>
  );
}
