import type { AnswerOf } from '@tolvek/contract';
import { Bell as BellSign } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { Link } from 'react-router';
import { api } from '../wire/api.ts';
import type { Asked } from '../wire/call.ts';
import { call } from '../wire/callAny.ts';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { say } from '../wire/words.ts';

const bellApi = api.injectEndpoints({
  endpoints: (build) => ({
    bell: build.query<AnswerOf<'bell'>, Asked<'bell'>>({ query: call('bell'), providesTags: ['bell'] }),
    seeBell: build.mutation<AnswerOf<'seeBell'>, Asked<'seeBell'>>({
      query: call('seeBell'),
      invalidatesTags: ['bell'],
    }),
  }),
});

/** What somebody was told lately, whichever way it went, and how much of it they have not seen. */
export function Bell() {
  const { data } = bellApi.useBellQuery(undefined, { pollingInterval: 20_000, skipPollingIfUnfocused: true });
  const [see] = bellApi.useSeeBellMutation();
  const [open, setOpen] = useState(false);
  const unseen = data?.unseen ?? 0;
  const [newest] = data?.items ?? [];
  const turn = (now: boolean): void => {
    setOpen(now);
    // What was new stays marked as long as it is looked at.
    if (!now && unseen > 0 && newest) void see({ body: { until: newest.at } });
  };
  return (
    <Popover.Root open={open} onOpenChange={turn}>
      <Popover.Trigger
        className="relative flex h-8 w-8 items-center justify-center text-soft hover:text-ink"
        aria-label={unseen > 0 ? say('common:bellNew', { count: unseen }) : say('common:bell')}
      >
        <BellSign aria-hidden="true" size={18} />
        {unseen > 0 ? (
          <span
            aria-hidden="true"
            className="absolute -top-0.5 -right-1 min-w-4 rounded-full bg-brick px-1 text-center text-[11px] leading-4 font-semibold text-sheet tabular-nums"
          >
            {unseen > 9 ? '9+' : unseen}
          </span>
        ) : null}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={8}
          collisionPadding={8}
          aria-label={say('common:bell')}
          className="z-20 max-h-[min(70dvh,34rem)] w-[min(24rem,calc(100vw-16px))] overflow-auto rounded-md border border-rule-strong bg-sheet py-1 shadow-lg"
        >
          {data?.items.length === 0 ? <p className="px-4 py-3 text-soft">{say('common:bellNone')}</p> : null}
          <ul>
            {data?.items.map(({ id, at, words, path, isNew }) => (
              <li key={id} className="border-b border-rule last:border-b-0">
                <Link
                  to={path}
                  className={`block border-l-[3px] px-3.5 py-2 text-ink no-underline hover:bg-green-wash ${isNew ? 'border-brick' : 'border-transparent'}`}
                  onClick={() => turn(false)}
                >
                  <span className={`block ${isNew ? 'font-semibold' : ''}`}>{words}</span>
                  <span className="text-[12.5px] text-soft tabular-nums">
                    <DeskMoment at={at} />
                    {isNew ? <span className="sr-only"> {say('common:bellIsNew')}</span> : null}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
