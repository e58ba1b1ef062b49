import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { DOT, LINE } from '../ui/Trace.tsx';
import { say, told } from '../wire/words.ts';

type Course = AnswerOf<'follow'>['course'];

/** How a request went and what comes next, step by step under each other: on a phone as on a wide screen. */
export function OwnCourse({ course }: { course: Course }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <details className="mt-3" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer text-[14px] text-green underline">{say('desk:everyStep')}</summary>
      {isOpen ? <Steps course={course} /> : null}
    </details>
  );
}

function Steps({ course }: { course: Course }) {
  return (
    <ol className="mt-3">
      {course.map(({ at, what, state }, place) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the same stage can come twice at the same minute
        <li key={place} className="relative pb-4 pl-6" aria-current={state === 'now' ? 'step' : undefined}>
          {place < course.length - 1 ? (
            <span aria-hidden className={`absolute top-2 bottom-[-6px] left-[4px] w-[1.5px] ${LINE[state]}`} />
          ) : null}
          <span aria-hidden className={`absolute top-[7px] left-0 size-[10px] rounded-full ${DOT[state]}`} />
          <span className={state === 'now' ? 'font-semibold' : state === 'ahead' ? 'text-soft' : ''}>{told(what)}</span>
          <span className="block text-[13.5px] text-soft">
            {state === 'ahead' ? say('desk:plannedBy', { at }) : say('desk:since', { at })}
          </span>
        </li>
      ))}
    </ol>
  );
}
