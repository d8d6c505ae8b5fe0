import Markdown from 'react-markdown';
import { isModestMarkdown } from '@/core/values/markdown';

/** A task in Markdown; HTML in it is shown as text, links and pictures are left out. Text that nests without end stands as typed. */
export function TaskText({ text }: { text: string }) {
  if (!text.trim()) return null;
  if (!isModestMarkdown(text)) return <p className="break-words whitespace-pre-wrap">{text}</p>;
  return (
    <div className="prose-task">
      <Markdown disallowedElements={['img', 'a']} unwrapDisallowed>
        {text}
      </Markdown>
    </div>
  );
}
