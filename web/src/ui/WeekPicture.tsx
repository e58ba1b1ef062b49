import type { ReactNode } from 'react';

/** One line of a day: who, or that nobody. */
export interface WeekLine {
  readonly key: string;
  readonly words: ReactNode;
  readonly look: 'plain' | 'mine' | 'gap';
}

export interface WeekDay {
  readonly key: string;
  /** What the day is called: `30 Nov`. */
  readonly name: string;
  readonly isToday: boolean;
  readonly isOver: boolean;
  readonly lines: readonly WeekLine[];
}

interface WeekPictureProps {
  readonly label: string;
  /** What the seven columns are called. */
  readonly heads: readonly string[];
  readonly weeks: readonly (readonly WeekDay[])[];
}

const LOOK = {
  plain: 'bg-well',
  mine: 'bg-green-wash font-semibold',
  gap: 'bg-brick-wash text-brick',
} as const;

/** Weeks under each other, each with its seven days, and what is on each day; on a phone the days that are not over, under each other. */
export const WeekPicture = ({ label, heads, weeks }: WeekPictureProps) => (
  <section aria-label={label} className="overflow-hidden border border-rule-strong bg-sheet">
    <div aria-hidden className="hidden grid-cols-7 border-b border-rule-strong text-[12.5px] text-soft sm:grid">
      {heads.map((head) => (
        <span key={head} className="px-2 py-1">
          {head}
        </span>
      ))}
    </div>
    {weeks.map((days) => (
      <ol key={days[0]?.key} className="grid border-rule not-last:border-b sm:grid-cols-7">
        {days.map(({ key, name, isToday, isOver, lines }, place) => (
          <li
            key={key}
            className={`min-w-0 border-rule px-1.5 pt-1 pb-1.5 not-last:border-b sm:min-h-[3.4rem] sm:border-b-0! sm:not-last:border-r ${isOver ? 'hidden bg-paper sm:block' : ''}`}
          >
            <span
              className={`text-[12.5px] tabular-nums ${isToday ? 'border-b-2 border-green font-semibold' : 'text-soft'}`}
            >
              <span className="sm:hidden">{heads[place]} </span>
              {name}
            </span>
            {lines.map(({ key: line, words, look }) => (
              <span
                key={line}
                className={`mt-0.5 block px-1 py-px text-[12.5px] leading-tight break-words ${LOOK[look]}`}
              >
                {words}
              </span>
            ))}
          </li>
        ))}
      </ol>
    ))}
  </section>
);
