import { type RefObject, useEffect, useRef } from 'react';
import { fetcher } from '@/loading/load';
import { useCrossHighlight } from '@/ui/session/cross-highlight';
import { useSession, useSessionState } from '@/ui/session/session-context';

const NONE: ReadonlySet<string> = new Set();
const highlighting = fetcher('what lights up across faces', () => import('./product-highlighting'));

interface LitParts {
  /** The parts that are lit because another face points at their product. */
  readonly lit: RefObject<ReadonlySet<string>>;
  /** Lights the product of a part on the other faces; nothing for null. */
  readonly pointAt: (part: string | null) => void;
}

/** A product that is pointed at on another face lights the gates that make it, and a gate its product there. */
export function useLitParts(repaint: () => void): LitParts {
  const session = useSession();
  const pointed = useCrossHighlight((p) => p.pointed);
  const point = useCrossHighlight((p) => p.point);
  const hover = useCrossHighlight((p) => p.hover);
  const told = useSessionState((s) => s.notice?.lit ?? null);
  const way = useCrossHighlight((p) => p.parts);
  const parts = way ?? told;
  const lit = useRef<ReadonlySet<string>>(NONE);
  const over = useRef<string | null>(null);
  useEffect(() => {
    let isOver = false;
    const show = (shown: ReadonlySet<string>) => {
      if (isOver || (shown.size === 0 && lit.current.size === 0)) return;
      lit.current = shown;
      repaint();
    };
    if (parts) show(parts);
    else if (pointed && pointed.output !== null)
      void highlighting().then(({ partsMaking }) => show(partsMaking(session, pointed)));
    else show(NONE);
    return () => {
      isOver = true;
    };
  }, [pointed, parts, session, repaint]);
  const pointAt = (part: string | null) => {
    if (part === over.current) return;
    over.current = part;
    hover(part === null ? null : [...session.state.path, part].join('/'));
    if (part === null) point(null);
    else
      void highlighting().then(
        ({ productOfPart }) => over.current === part && point(productOfPart(session, part)),
      );
  };
  return { lit, pointAt };
}
