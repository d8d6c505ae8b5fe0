'use client';

import { useEffect, useState } from 'react';
import { createPortal } from 'react-dom';
import type { Task } from '@/core/circuit/exercise';
import { solutionOf } from '@/core/exercise/marking';
import { type Returned, sumOf } from '@/core/exercise/returned';
import type { Remark } from '@/core/exercise/teacher-marks';
import { writeSvg } from '@/core/formats/svg';
import { spokenName } from '@/core/parts/catalogue';
import { counted } from '@/core/values/wording';
import { signed } from './RemarkText';

/** Marked work on paper: all tasks one after the other, with points, what was found, remarks, and the circuit of each. */
export function PrintedReturn({ returned }: { readonly returned: Returned }) {
  const [isThere, setThere] = useState(false);
  useEffect(() => setThere(true), []);
  const { lesson, name, handedIn } = returned;
  const { points, of } = sumOf(returned);
  if (!isThere) return null;
  return createPortal(
    <article className="printed">
      <h1 className="text-xl font-bold">{lesson.exercise!.title}</h1>
      <p>
        <bdi className="font-bold">{name}</bdi>, handed in on{' '}
        {new Date(handedIn).toLocaleString('en-GB', { dateStyle: 'long', timeStyle: 'short' })}
        {of > 0 && (
          <>
            : <b>{points}</b> of {counted(of, 'point')}
          </>
        )}
      </p>
      {lesson.exercise!.tasks.map((task, i) => (
        <PrintedTask key={task.id} returned={returned} task={task} number={i + 1} />
      ))}
    </article>,
    document.body,
  );
}

interface TaskProps {
  readonly returned: Returned;
  readonly task: Task;
  readonly number: number;
}

function PrintedTask({ returned: { lesson, tasks }, task, number }: TaskProps) {
  const given = tasks[task.id];
  const { sheet } = solutionOf(task, lesson);
  const placeOf = ({ at }: Remark): string => {
    if (at === null) return '';
    if ('row' in at) return `row ${at.row}: `;
    const part = sheet.parts.get(at.part);
    return part ? `${spokenName(part)}: ` : '';
  };
  return (
    <section className="mt-4 break-inside-avoid">
      <h2 className="font-bold">
        {number}. {task.title}
        {given && (
          <span className="font-normal">
            {' '}
            · {given.points ?? '–'} of {counted(given.of, 'point')}
          </span>
        )}
      </h2>
      {given?.found && <p>Found: {given.found}.</p>}
      {given && (given.complaints.length > 0 || given.remarks.length > 0) && (
        <ul className="list-disc pl-5">
          {given.complaints.map((text) => (
            <li key={text}>{text}</li>
          ))}
          {given.remarks.map((remark) => (
            <li key={remark.id}>
              <b>
                {placeOf(remark)}
                {remark.text} {remark.points !== 0 && signed(remark.points)}
              </b>
            </li>
          ))}
        </ul>
      )}
      {sheet.parts.size > 0 && (
        // biome-ignore lint/performance/noImgElement: the picture is made here, there is nothing to fetch
        <img
          src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(writeSvg(sheet, lesson.settings))}`}
          alt={`The circuit for ${task.title}`}
          className="mt-1"
        />
      )}
    </section>
  );
}
