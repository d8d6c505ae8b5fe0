import type { ElkNode } from 'elkjs/lib/elk-api';
import type { Machine } from '@/core/states/machine';
import { load } from '@/loading/load';

/** Radius of a state in pixels of the diagram. */
export const STATE = 25;
const LOOP = 15;

export interface Placed {
  readonly width: number;
  readonly height: number;
  /** Where each state stands. */
  readonly states: readonly { readonly x: number; readonly y: number }[];
  /** The course of each arrow as SVG path data, and where its words stand. */
  readonly arrows: readonly { readonly path: string; readonly x: number; readonly y: number }[];
}

/** States whose main way is one round, in its order; null where there is no such round. */
export function roundOf(machine: Machine): number[] | null {
  const count = machine.states.length;
  for (let row = machine.rows - 1; row >= 0; row--) {
    const way: number[] = [];
    const seen = new Set<number>();
    for (let at = 0; !seen.has(at); at = machine.next[at * machine.rows + row]!) {
      seen.add(at);
      way.push(at);
    }
    if (way.length === count && machine.next[way.at(-1)! * machine.rows + row] === 0) return way;
  }
  return null;
}

const number = (n: number) => +n.toFixed(1);

/** States on a circle in the order in which they come, as horses on a carousel. */
export function onCircle(machine: Machine, order: readonly number[]): Placed {
  const count = order.length;
  const radius = Math.max(70, (count * (2 * STATE + 44)) / (2 * Math.PI));
  const middle = radius + STATE + 34;
  const angle = new Map(order.map((s, i) => [s, (2 * Math.PI * i) / count - Math.PI / 2]));
  const states = machine.states.map((_, s) => ({
    x: middle + radius * Math.cos(angle.get(s)!),
    y: middle + radius * Math.sin(angle.get(s)!),
  }));
  const place = new Map(order.map((s, i) => [s, i]));
  const arrows = machine.transitions.map(({ from, to }) => {
    const a = angle.get(from)!;
    if (from === to) return loopAt(states[from]!, a);
    const [p, q] = [states[from]!, states[to]!];
    const ahead = (place.get(to)! - place.get(from)! + count) % count;
    // The next one along the circle, the one before on its inner side, others across.
    const bend = ahead === 1 ? -0.16 : ahead === count - 1 ? -0.16 : 0.08;
    return curve(p, q, bend);
  });
  return { width: 2 * middle, height: 2 * middle, states, arrows };
}

interface Point {
  readonly x: number;
  readonly y: number;
}

/** From the rim of one state to that of another, bent to the left by a share of the distance. */
function curve(p: Point, q: Point, bend: number): Placed['arrows'][number] {
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  const control = { x: (p.x + q.x) / 2 - bend * dy * -1, y: (p.y + q.y) / 2 - bend * dx };
  const rim = (from: Point, towards: Point, gap: number) => {
    const length = Math.hypot(towards.x - from.x, towards.y - from.y) || 1;
    const share = (STATE + gap) / length;
    return { x: from.x + (towards.x - from.x) * share, y: from.y + (towards.y - from.y) * share };
  };
  const [a, b] = [rim(p, control, 1), rim(q, control, 5)];
  return {
    path: `M${number(a.x)} ${number(a.y)}Q${number(control.x)} ${number(control.y)} ${number(b.x)} ${number(b.y)}`,
    x: number((a.x + 2 * control.x + b.x) / 4),
    y: number((a.y + 2 * control.y + b.y) / 4),
  };
}

/** An arrow from a state to itself, on the side of an angle. */
function loopAt(p: Point, angle: number): Placed['arrows'][number] {
  const at = (turn: number, far: number) => ({
    x: p.x + far * Math.cos(angle + turn),
    y: p.y + far * Math.sin(angle + turn),
  });
  const [a, b, c, d] = [
    at(-0.45, STATE + 1),
    at(-0.5, STATE + 2 * LOOP),
    at(0.5, STATE + 2 * LOOP),
    at(0.45, STATE + 5),
  ];
  const path = `M${number(a.x)} ${number(a.y)}C${number(b.x)} ${number(b.y)} ${number(c.x)} ${number(c.y)} ${number(d.x)} ${number(d.y)}`;
  const words = at(0, STATE + 2 * LOOP);
  return { path, x: number(words.x), y: number(words.y) };
}

/** Any machine, from left to right in layers. */
export async function inLayers(machine: Machine, words: readonly string[]): Promise<Placed> {
  const { default: Elk } = await load('the layout of diagrams', () => import('elkjs/lib/elk.bundled.js'));
  const described: ElkNode = {
    id: 'states',
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': 'RIGHT',
      'elk.spacing.nodeNode': '34',
      'elk.layered.spacing.nodeNodeBetweenLayers': '64',
      'elk.edgeRouting': 'SPLINES',
      'elk.edgeLabels.inline': 'true',
    },
    children: machine.states.map((_, s) => ({ id: `s${s}`, width: 2 * STATE, height: 2 * STATE })),
    edges: machine.transitions.map(({ from, to }, i) => ({
      id: `a${i}`,
      sources: [`s${from}`],
      targets: [`s${to}`],
      labels: words[i] ? [{ text: words[i], width: 8 * words[i].length + 6, height: 16 }] : [],
    })),
  };
  const graph = await new Elk().layout(described);
  const PAD = 20;
  const states = graph.children!.map((c) => ({ x: c.x! + STATE + PAD, y: c.y! + STATE + PAD }));
  const arrows = graph.edges!.map((edge) => {
    const section = edge.sections![0]!;
    const points = [section.startPoint, ...(section.bendPoints ?? []), section.endPoint].map(
      ({ x, y }) => `${number(x + PAD)} ${number(y + PAD)}`,
    );
    // Splines come as the points of cubic curves.
    const isSpline = points.length > 2 && (points.length - 1) % 3 === 0;
    const path = isSpline ? `M${points[0]}C${points.slice(1).join(' ')}` : `M${points.join('L')}`;
    const label = edge.labels?.[0];
    const middle = {
      x: (section.startPoint.x + section.endPoint.x) / 2 + PAD,
      y: (section.startPoint.y + section.endPoint.y) / 2 + PAD,
    };
    return {
      path,
      x: label?.x === undefined ? middle.x : label.x + label.width! / 2 + PAD,
      y: label?.y === undefined ? middle.y : label.y + label.height! / 2 + PAD,
    };
  });
  return { width: graph.width! + 2 * PAD, height: graph.height! + 2 * PAD, states, arrows };
}
