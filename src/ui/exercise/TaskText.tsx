import Markdown from 'react-markdown';

/** A task in Markdown; HTML in it is shown as text, links and pictures are left out. */
export function TaskText({ text }: { text: string }) {
  return (
    <div className="prose-task">
      <Markdown disallowedElements={['img', 'a']} unwrapDisallowed>
        {text}
      </Markdown>
    </div>
  );
}
