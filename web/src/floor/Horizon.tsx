import type { AnswerOf } from '@tolvek/contract';
import { say } from '../wire/words.ts';

const LOOKS = {
  late: 'bg-brick-wash border-brick',
  soon: 'bg-brass-wash border-brass-mark',
  calm: 'bg-green-wash border-green',
} as const;

function dayOf({ day, today }: AnswerOf<'trays'>['horizon'][number]): string {
  if (day === null) return say('floor:overdue');
  return today ? say('floor:today') : say('floor:day', { day });
}

/** What is due when: late, today and the next working days, as bars on one ruled line. */
export function Horizon({ bars }: { bars: AnswerOf<'trays'>['horizon'] }) {
  const most = Math.max(1, ...bars.map((bar) => bar.count));
  return (
    <ol className="mt-3 grid auto-cols-fr grid-flow-col gap-1" aria-label={say('floor:horizon')}>
      {bars.map((bar) => (
        <li key={bar.day ?? ''} className="flex flex-col">
          <span className="flex h-11 items-end border-b border-rule-strong">
            <span
              className={`flex w-full items-end justify-center border-t-2 text-[11px] text-soft ${bar.count === 0 ? 'border-transparent' : LOOKS[bar.state]}`}
              style={{ height: `${20 + (bar.count / most) * 24}px` }}
            >
              {bar.count || ''}
            </span>
          </span>
          <span className="text-[11.5px] text-soft">
            {dayOf(bar)}
            {bar.count === 0 ? <span className="sr-only">{say('floor:noneDue')}</span> : null}
          </span>
        </li>
      ))}
    </ol>
  );
}
