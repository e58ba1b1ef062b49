import { Popover } from 'radix-ui';
import { toast } from 'sonner';
import { problemOf } from '../wire/problem.ts';
import { appApi } from './endpoints.ts';

const STEPS = [
  { label: '1 hour', minutes: 60 },
  { label: '4 hours', minutes: 240 },
  { label: '1 day', minutes: 1_440 },
  { label: '3 days', minutes: 4_320 },
] as const;

/** The desk's time; in the demo it can be moved forward, and what became due happens. */
export function DemoClock({ now, hours }: { now: string; hours: string }) {
  const [advance, { isLoading }] = appApi.useAdvanceClockMutation();
  const forward = async (minutes: number): Promise<void> => {
    try {
      const { happened } = await advance({ body: { minutes } }).unwrap();
      toast(
        happened === 0
          ? 'The clock was moved. Nothing was due.'
          : `The clock was moved. ${happened} ${happened === 1 ? 'reminder or escalation' : 'reminders and escalations'} went out.`,
      );
    } catch (error) {
      toast.error(problemOf(error).detail);
    }
  };
  return (
    <Popover.Root>
      <Popover.Trigger className="hidden text-soft underline decoration-dotted underline-offset-4 md:inline">
        {now} · {hours}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={10}
          className="z-20 w-72 rounded-md border border-rule-strong bg-sheet p-4 shadow-lg"
        >
          <p className="font-semibold">The demo’s clock</p>
          <p className="mt-1 text-soft">Move it forward: reminders and escalations that become due go out.</p>
          <div className="mt-3 grid grid-cols-2 gap-2">
            {STEPS.map((step) => (
              <button
                key={step.minutes}
                type="button"
                disabled={isLoading}
                onClick={() => forward(step.minutes)}
                className="rounded-md border border-edge px-3 py-1.5 font-semibold"
              >
                {step.label} on
              </button>
            ))}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
