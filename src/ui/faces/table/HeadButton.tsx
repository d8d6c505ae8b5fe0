import type { ReactNode } from 'react';

interface Props {
  readonly children: ReactNode;
  readonly isOn?: boolean;
  readonly onClick: () => void;
  readonly title: string;
}

/** What can be done with a face, in its heading. */
export function HeadButton({ children, isOn = false, onClick, title }: Props) {
  return (
    <button
      type="button"
      className={`shrink-0 cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft ${isOn ? 'bg-accent-soft' : ''}`}
      aria-pressed={isOn}
      onClick={onClick}
      title={title}
    >
      {children}
    </button>
  );
}
