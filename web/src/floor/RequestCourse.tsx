import type { AnswerOf } from '@tolvek/contract';
import { scaleOf } from '@tolvek/core/deadline';
import { momentIn } from '@tolvek/words/speech';
import { useState } from 'react';
import { type CourseLine, CoursePicture } from '../ui/CoursePicture.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { language, say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

type Course = AnswerOf<'requestCourse'>;

/** The life of a request so far and what is planned of it, drawn over working time when it is asked for. */
export function RequestCourse({ number }: { number: string }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <DialogFrame
      isWide
      open={isOpen}
      onOpenChange={setOpen}
      title={say('course:ofRequest', { number })}
      trigger={
        <button type="button" className="text-[13px] text-green underline">
          {say('course:show')}
        </button>
      }
    >
      <Drawn number={number} />
    </DialogFrame>
  );
}

function Drawn({ number }: { number: string }) {
  const { data, error } = floorApi.useRequestCourseQuery({ number });
  if (error) return <Trouble error={error} />;
  if (!data) return null;
  const { calendar, stages } = data;
  const [from, to, now] = [data.from, data.to, data.now].map((at) => Date.parse(at)) as [number, number, number];
  const on = (at: string): string => momentIn(language(), 'moment', at, calendar.zone);
  return (
    <>
      <div className="mt-4">
        <CoursePicture
          label={say('course:picture')}
          scale={scaleOf(calendar, from, to)}
          now={{ at: now, label: say('course:now') }}
          stagesHead={say('course:stages')}
          stages={stages.map(({ label, at }) => ({ key: label, label, at: Date.parse(at) }))}
          lanes={[
            {
              key: 'decisions',
              head: say('course:decisions'),
              lines: data.steps.map((step, n) => stepLine(step, n, to, on)),
            },
            {
              key: 'deadlines',
              head: say('course:deadlines'),
              lines: data.deadlines.map((each) => deadlineLine(each, now, on)),
            },
          ]}
          day={(at) => momentIn(language(), 'day', at, calendar.zone)}
        />
      </div>
      <p className="mt-2 text-[13px] text-soft">{say('course:drawn')}</p>
    </>
  );
}

type On = (at: string) => string;

/** A step from when it was asked until it was decided, or until it has time; one that is ahead stands at the end. */
function stepLine(
  { label, needed, of, since, until, ended }: Course['steps'][number],
  n: number,
  to: number,
  on: On,
): CourseLine {
  const says = [
    ...(of > 1 ? [say('course:needed', { needed, of })] : []),
    since === null
      ? say('course:ahead')
      : ended !== null
        ? say('course:decidedAt', { at: on(ended) })
        : until === null
          ? say('course:asked', { since: on(since) })
          : say('course:until', { at: on(until) }),
  ];
  const end = ended ?? until;
  return {
    ...{ key: `${n}`, name: label, says: says.join(' · '), marks: [], isOff: since === null, isOpen: end === null },
    ...{ from: since === null ? to : Date.parse(since), to: end === null ? to : Date.parse(end) },
    isLate: ended !== null && until !== null && ended > until,
  };
}

function deadlineLine(
  { key, name, from, due, ended, late, still, rings }: Course['deadlines'][number],
  now: number,
  on: On,
): CourseLine {
  return {
    ...{ key, name: told(name), isOff: false, isOpen: false, isLate: late },
    says: ended === null ? say('course:due', { at: on(due) }) : say('course:ended', { due: on(due), at: on(ended) }),
    ...{ from: Date.parse(from), to: Date.parse(ended ?? due) },
    still: still.map((each) => ({ from: Date.parse(each.from), to: each.to === null ? now : Date.parse(each.to) })),
    marks: rings.map((ring) => {
      const at = Date.parse(ring.at);
      return { key: ring.at, at, words: `${on(ring.at)}: ${told(ring.what)}`, isLate: at >= Date.parse(due) };
    }),
  };
}
