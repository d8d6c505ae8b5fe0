'use client';

import Markdown, { type Components } from 'react-markdown';
import remarkGfm from 'remark-gfm';
import type { TaskPicture } from '@/core/circuit/exercise';
import { isModestMarkdown } from '@/core/values/markdown';
import { CircuitPicture } from './CircuitPicture';

interface Props {
  readonly text: string;
  readonly pictures?: readonly TaskPicture[] | undefined;
}

/** The place of a picture in the words: `![Half adder](picture)`. */
export const placeOfPicture = (name: string): string => `![${name}](picture)`;

/**
 * A task in Markdown, with tables and with pictures of its circuits; HTML in it is shown as text, links and other pictures are
 * left out. Text that nests without end stands as typed.
 */
export function TaskText({ text, pictures = [] }: Props) {
  if (!text.trim()) return null;
  if (!isModestMarkdown(text)) return <p className="break-words whitespace-pre-wrap">{text}</p>;
  const components: Components = {
    img: ({ alt }) => {
      const picture = pictures.find(({ name }) => name === alt);
      return picture ? <CircuitPicture picture={picture} /> : null;
    },
  };
  return (
    <div className="prose-task">
      <Markdown
        remarkPlugins={[remarkGfm]}
        disallowedElements={['a', 'input']}
        unwrapDisallowed
        components={components}
      >
        {text}
      </Markdown>
    </div>
  );
}
