'use client';

import { DropdownMenu } from 'radix-ui';
import type { LessonFileRecord } from '@/store/database';

interface Props {
  /** The last read or written first. */
  readonly files: readonly LessonFileRecord[];
  readonly onOpen: (handle: FileSystemFileHandle) => void;
}

/** Files of this computer that lessons were opened from or saved to, in browsers that let a page come back to them. */
export function RecentFiles({ files, onOpen }: Props) {
  if (files.length === 0) return null;
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="button">Recent files ▾</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu max-w-md" align="end">
          {files.map(({ lesson, handle, modified }) => (
            <DropdownMenu.Item
              key={lesson}
              className="menu-item h-auto py-1.5"
              onSelect={() => onOpen(handle)}
            >
              <span className="min-w-0">
                <bdi className="block truncate font-semibold">{handle.name}</bdi>
                <span className="block text-sm text-quiet">
                  {new Date(modified).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
                </span>
              </span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
