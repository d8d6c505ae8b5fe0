import { Fragment, type ReactNode, useEffect, useRef } from 'react';
import {
  type ImperativePanelGroupHandle,
  Panel,
  PanelGroup,
  PanelResizeHandle,
  setNonce,
} from 'react-resizable-panels';
import { remember, remembered } from '@/loading/page-memory';

export interface Pane {
  readonly key: string;
  /** As a tab shows it. */
  readonly name: string;
  readonly node: ReactNode;
  /** Share of the room in per cent until a divider is dragged; panes without one share the rest. */
  readonly share?: number | undefined;
}

// The pointer's shape while a border is dragged is a style that the library puts into the page.
if (typeof document !== 'undefined')
  setNonce(document.querySelector<HTMLElement>('script[nonce]')?.nonce ?? '');

const STORAGE = { getItem: remembered, setItem: remember };

/** No pane gets smaller than this share of the room, in per cent. */
const LEAST = 15;
/** Per cent by which an arrow key moves a border. */
const STEP = 4;

interface Props {
  /** Under which the sizes are remembered, for each combination of panes. */
  readonly name: string;
  readonly across: boolean;
  readonly panes: readonly Pane[];
  /** Sizes are remembered apart for each, and begin with the shares of the panes when it changes. */
  readonly arrangement?: string;
}

/** Panes beside or below each other, resized by dragging the borders between them or by arrow keys. */
export function Split({ name, across, panes, arrangement = '' }: Props) {
  const taken = panes.reduce((sum, { share }) => sum + (share ?? 0), 0);
  const sharing = panes.filter(({ share }) => share === undefined).length;
  const rest = Math.max(LEAST, (100 - taken) / Math.max(1, sharing));
  const all = panes.reduce((sum, { share }) => sum + (share ?? rest), 0);
  const sizes = panes.map(({ share }) => ((share ?? rest) * 100) / all);
  const group = useRef<ImperativePanelGroupHandle>(null);
  const arranged = useRef(arrangement);
  useEffect(() => {
    if (arranged.current === arrangement) return;
    arranged.current = arrangement;
    group.current?.setLayout(sizes);
  });
  return (
    <PanelGroup
      ref={group}
      direction={across ? 'horizontal' : 'vertical'}
      autoSaveId={`manege-${name}${arrangement && `-${arrangement}`}`}
      storage={STORAGE}
      keyboardResizeBy={STEP}
      className="min-h-0 min-w-0 flex-1"
    >
      {panes.map(({ key, node }, i) => (
        <Fragment key={key}>
          {i > 0 && (
            <PanelResizeHandle
              aria-label="Resize"
              className={`shrink-0 touch-none rounded-full outline-offset-[-2px] hover:bg-hairline active:bg-accent ${
                across ? 'mx-[3px] w-1 cursor-col-resize' : 'my-[3px] h-1 cursor-row-resize'
              }`}
            />
          )}
          <Panel
            id={key}
            order={i}
            minSize={LEAST}
            defaultSize={sizes[i]!}
            className="flex min-h-0 min-w-0 flex-col"
          >
            {node}
          </Panel>
        </Fragment>
      ))}
    </PanelGroup>
  );
}
