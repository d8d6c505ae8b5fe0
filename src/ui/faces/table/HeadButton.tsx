import type { ReactNode } from 'react';
import { hint } from '@/ui/controls/hint';

interface Props {
  readonly children: ReactNode;
  readonly isOn?: boolean;
  readonly onClick: () => void;
  readonly title: string;
}

/** A button in the heading of a face. */
export function HeadButton({ children, isOn = false, onClick, title }: Props) {
  return (
    <button
      type="button"
      className={`shrink-0 cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft ${isOn ? 'bg-accent-soft' : ''}`}
      aria-pressed={isOn}
      onClick={onClick}
      {...hint(title)}
    >
      {children}
    </button>
  );
}
