'use client';

import type { ComponentType } from 'react';
import type { Dialog } from '@/commands/context';
import { holdKeysFor } from '@/ui/controls/HoldKeys';
import { lazyComponent } from '@/ui/controls/lazy-component';

interface DialogProps {
  readonly onClose: () => void;
}

/** The dialogs of the page, fetched when first asked for. The name of a sheet is typed in its tab. */
const DIALOGS: Readonly<Record<Exclude<Dialog, 'rename-sheet'>, ComponentType<DialogProps>>> = {
  help: lazyComponent('the help page', () => import('./HelpPage').then((m) => m.HelpPage), holdKeysFor),
  commands: lazyComponent(
    'the list of commands',
    () => import('@/ui/palette/CommandPalette').then((m) => m.CommandPalette),
    holdKeysFor,
  ),
  link: lazyComponent('“Link”', () => import('./LinkDialog').then((m) => m.LinkDialog), holdKeysFor),
  figure: lazyComponent('figures', () => import('./FigureDialog').then((m) => m.FigureDialog), holdKeysFor),
  paper: lazyComponent(
    'worksheets',
    () => import('@/ui/paper/SheetPaperDialog').then((m) => m.SheetPaperDialog),
    holdKeysFor,
  ),
  compare: lazyComponent(
    'the comparison',
    () => import('@/ui/compare/CompareDialog').then((m) => m.CompareDialog),
    holdKeysFor,
  ),
};

export function Dialogs({ open, onClose }: DialogProps & { readonly open: Dialog | null }) {
  if (open === null || open === 'rename-sheet') return null;
  const Open = DIALOGS[open];
  return <Open onClose={onClose} />;
}
