'use client';

import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import { pathTo } from '@/loading/base';
import { isStoreKept } from '@/store/database';

interface Props {
  readonly href: string;
  readonly children: ReactNode;
  readonly className?: string;
  readonly 'aria-label'?: string;
}

/** A link to another page of Manege; where nothing is kept it does not leave this page's memory behind. */
export function HomeLink({ href, children, ...rest }: Props) {
  const router = useRouter();
  return (
    <a
      href={pathTo(href)}
      {...rest}
      onClick={(event) => {
        if (isStoreKept() || event.ctrlKey || event.metaKey || event.shiftKey) return;
        event.preventDefault();
        router.push(href);
      }}
    >
      {children}
    </a>
  );
}
