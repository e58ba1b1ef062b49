import { Popover } from 'radix-ui';
import { badNews, news } from '../ui/news.ts';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say } from '../wire/words.ts';
import { appApi } from './endpoints.ts';

const STEPS = [
  { length: { minutes: 60 }, minutes: 60 },
  { length: { minutes: 240 }, minutes: 240 },
  { length: { days: 1 }, minutes: 1_440 },
  { length: { days: 3 }, minutes: 4_320 },
] as const;

/** The desk's time, which can be moved forward in the demo: what became due happens. It was pressed already. */
export function DemoClock({ time, className }: { time: string; className: string }) {
  const [advance, { isLoading }] = appApi.useAdvanceClockMutation();
  const forward = async (minutes: number): Promise<void> => {
    try {
      const { happened } = await advance({ body: { minutes } }).unwrap();
      news(happened === 0 ? say('common:clockMoved') : say('common:clockMovedSent', { count: happened }));
    } catch (error) {
      badNews(refusalInWords(problemOf(error)));
    }
  };
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger className={className}>{time}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={10}
          className="z-20 w-72 rounded-md border border-rule-strong bg-sheet p-4 shadow-lg"
        >
          <p className="font-semibold">{say('common:demoClock')}</p>
          <p className="mt-1 text-soft">{say('common:demoClockHint')}</p>
          <div className="mt-3 grid grid-cols-2 gap-2">
            {STEPS.map((step) => (
              <button
                key={step.minutes}
                type="button"
                disabled={isLoading}
                onClick={() => forward(step.minutes)}
                className="rounded-md border border-edge px-3 py-1.5 font-semibold"
              >
                {say('common:clockForward', { length: step.length })}
              </button>
            ))}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
