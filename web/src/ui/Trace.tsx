import type { AnswerOf } from '@tolvek/contract';
import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import { say, told } from '../wire/words.ts';

type Hop = AnswerOf<'sheet'>['hops'][number];

/** How a stop looks: behind, now, ahead. */
export const DOT = {
  past: 'bg-green',
  now: 'bg-sheet border-[2.5px] border-green',
  ahead: 'bg-sheet border-[1.5px] border-edge',
} as const;
/** The line from a stop to the next. */
export const LINE = { past: 'bg-green', now: 'bg-rule-strong', ahead: 'bg-rule-strong' } as const;

/**
 * A request's way as one line of hops; each opens its reason. `reasons` gives some hops more to say.
 */
export function Trace({
  hops,
  reasons = {},
}: {
  hops: readonly Hop[];
  reasons?: Readonly<Partial<Record<Hop['is'], ReactNode>>>;
}) {
  return (
    <ol className="flex text-[12px]" aria-label={say('common:traceOf')}>
      {hops.map((hop, index) => (
        <li
          key={hop.is}
          className={`relative min-w-0 pt-[15px] pr-2 ${index === hops.length - 1 ? 'flex-none' : 'flex-auto'}`}
          aria-current={hop.state === 'now' ? 'step' : undefined}
        >
          {index < hops.length - 1 ? (
            <span className={`absolute top-1 right-0 left-0 h-[1.5px] ${LINE[hop.state]}`} />
          ) : null}
          <span className={`absolute top-0 left-0 size-[10px] rounded-full ${DOT[hop.state]}`} />
          <Popover.Root>
            <Popover.Trigger
              className={`text-left leading-tight hover:underline ${hop.state === 'now' ? 'font-semibold text-ink' : 'text-soft'}`}
            >
              {told(hop.label)}
              <span className="sr-only">
                {hop.state === 'past'
                  ? say('common:traceDone')
                  : hop.state === 'now'
                    ? say('common:traceNow')
                    : say('common:traceAhead')}
              </span>
            </Popover.Trigger>
            <Popover.Portal>
              <Popover.Content
                sideOffset={6}
                collisionPadding={12}
                className="z-20 max-h-(--radix-popover-content-available-height) w-[24rem] max-w-[calc(100vw-24px)] overflow-auto rounded-md border border-rule-strong bg-sheet p-4 shadow-lg"
              >
                <p className="font-semibold">{told(hop.label)}</p>
                {hop.detail ? <p className="mt-1 text-soft">{told(hop.detail)}</p> : null}
                {reasons[hop.is] ?? null}
              </Popover.Content>
            </Popover.Portal>
          </Popover.Root>
        </li>
      ))}
    </ol>
  );
}
