import { Popover } from 'radix-ui';
import { toast } from 'sonner';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say } from '../wire/words.ts';
import { appApi } from './endpoints.ts';

const STEPS = [
  { length: { minutes: 60 }, minutes: 60 },
  { length: { minutes: 240 }, minutes: 240 },
  { length: { days: 1 }, minutes: 1_440 },
  { length: { days: 3 }, minutes: 4_320 },
] as const;

/** The desk's time; in the demo it can be moved forward, and what became due happens. */
export function DemoClock({ time }: { time: string }) {
  const [advance, { isLoading }] = appApi.useAdvanceClockMutation();
  const forward = async (minutes: number): Promise<void> => {
    try {
      const { happened } = await advance({ body: { minutes } }).unwrap();
      toast(happened === 0 ? say('common:clockMoved') : say('common:clockMovedSent', { count: happened }));
    } catch (error) {
      toast.error(refusalInWords(problemOf(error)));
    }
  };
  return (
    <Popover.Root>
      <Popover.Trigger className="hidden text-soft underline decoration-dotted underline-offset-4 md:inline">
        {time}
      </Popover.Trigger>
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
