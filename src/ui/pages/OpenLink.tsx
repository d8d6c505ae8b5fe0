'use client';

import { useEffect, useState } from 'react';
import type { Lesson } from '@/core/circuit/lesson';
import type { LessonLink } from '@/core/formats/link/lesson-link';
import { problemOf, sentence } from '@/core/values/result';
import { copyFor, momentFor } from '@/session/lesson-link';
import { randomId, storeProblem, storeReady } from '@/store/database';
import { copyOfLink, keepCopy } from '@/store/link-copies';
import { Loading } from '@/ui/controls/Loading';
import { WholePage } from '@/ui/controls/WholePage';
import { OpenLesson } from './OpenLesson';
import { useLink } from './useLink';

/** A lesson that came by a link: a copy of it on the shelf of this browser, the same whenever the link is opened. */
export function OpenLink() {
  const read = useLink();
  if (read.state === 'reading') return <Loading what="Opening the lesson …" />;
  if (read.state === 'refused') return <NoLink problem={read.problem} />;
  return <Copy key={read.fragment} link={read.link} fragment={read.fragment} />;
}

/** Instead of a lesson whose link cannot be read. */
export function NoLink({ problem }: { readonly problem: string }) {
  return (
    <WholePage title="The lesson in this link cannot be opened">
      <p role="alert" className="max-w-md text-quiet">
        {problem}
      </p>
    </WholePage>
  );
}

type State =
  | { readonly is: 'looking' }
  | { readonly is: 'asked'; readonly earlier: Lesson }
  | { readonly is: 'open'; readonly id: string; readonly faces: readonly string[] | undefined }
  | { readonly is: 'failed'; readonly problem: string };

function Copy({ link, fragment }: { readonly link: LessonLink; readonly fragment: string }) {
  const [state, setState] = useState<State>({ is: 'looking' });
  const fail = (error: unknown) => setState({ is: 'failed', problem: sentence(storeProblem(error)) });
  const begin = (lesson: Lesson) =>
    keepCopy(lesson, momentFor(link, lesson.id)).then(
      () => setState({ is: 'open', id: lesson.id, faces: link.view.faces }),
      fail,
    );
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each link
  useEffect(() => {
    const copy = copyFor(link, fragment);
    storeReady()
      .then(() => copyOfLink(copy))
      .then((earlier) => {
        if (earlier === null) return begin(copy);
        setState(
          earlier.isAsItCame
            ? { is: 'open', id: copy.id, faces: link.view.faces }
            : { is: 'asked', earlier: copy },
        );
        return undefined;
      })
      .catch((error) => fail(problemOf(error)));
  }, [link, fragment]);
  switch (state.is) {
    case 'looking':
      return <Loading what="Opening the lesson …" />;
    case 'failed':
      return <NoLink problem={state.problem} />;
    case 'open':
      return <OpenLesson id={state.id} faces={state.faces} />;
    case 'asked':
      return (
        <WholePage title={`You have opened “${link.lesson.title}” before`}>
          <p className="max-w-md text-quiet">
            The copy from then was changed in this browser. Go on with it, or take the lesson of the link once
            more; the earlier copy stays on the shelf.
          </p>
          <div className="flex flex-wrap justify-center gap-2">
            <button
              type="button"
              className="button main"
              onClick={() => setState({ is: 'open', id: state.earlier.id, faces: undefined })}
            >
              Go on with my copy
            </button>
            <button
              type="button"
              className="button"
              onClick={() => void begin({ ...state.earlier, id: randomId() })}
            >
              Open the link anew
            </button>
          </div>
        </WholePage>
      );
  }
}
