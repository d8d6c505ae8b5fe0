'use client';

import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

interface Props {
  readonly title: string;
  readonly says?: string;
  readonly children: ReactNode;
  readonly foot: ReactNode;
  readonly onClose: () => void;
}

/** A dialog in the middle of the page with a title, a body that scrolls, and a foot of buttons. */
export function Modal({ title, says, children, foot, onClose }: Props) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Dialog.Content className="dialog" aria-describedby={says ? undefined : ''}>
          <div className="border-b border-hairline px-5 py-3">
            <Dialog.Title className="text-lg font-bold">{title}</Dialog.Title>
            {says && <Dialog.Description className="text-sm text-quiet">{says}</Dialog.Description>}
          </div>
          <div className="flex min-h-0 flex-1 flex-col gap-4 overflow-auto px-5 py-4">{children}</div>
          <div className="flex items-center justify-end gap-2 border-t border-hairline px-5 py-3">{foot}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

interface FootProps {
  readonly onClose: () => void;
  /** The word on the button that closes; it is the main one if there is no other. */
  readonly close?: string;
  /** What the dialog is for. */
  readonly main?: { readonly name: string; readonly onClick: () => void; readonly isOff?: boolean };
  /** Why the main button did nothing. */
  readonly problem?: string;
  /** More buttons, before the main one. */
  readonly children?: ReactNode;
}

/** The buttons at the foot of a dialog. */
export function DialogFoot({ onClose, close = 'Close', main, problem, children }: FootProps) {
  return (
    <>
      {problem && (
        <p role="alert" className="mr-auto text-sm text-bad">
          {problem}
        </p>
      )}
      <button type="button" className={main || children ? 'button' : 'button main'} onClick={onClose}>
        {close}
      </button>
      {children}
      {main && (
        <button type="button" className="button main" disabled={main.isOff} onClick={main.onClick}>
          {main.name}
        </button>
      )}
    </>
  );
}
