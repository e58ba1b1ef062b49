import type { AnswerOf } from '@tolvek/contract';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

type Link = AnswerOf<'sheet'>['links'][number];

/** The links by which somebody from outside follows the request without signing in: until when, ended, sent anew. */
export function Links({ sheet: { number, links } }: { sheet: AnswerOf<'sheet'> }) {
  const [end, { isLoading: isEnding }] = floorApi.useEndLinksMutation();
  const [send, { isLoading: isSending }] = floorApi.useSendLinkMutation();
  if (links.length === 0) return null;
  const isBusy = isEnding || isSending;
  const working = links.filter(({ state }) => state === 'works');
  const stop = async (only: string[] | null): Promise<void> => {
    const done = await end({ number, body: { only } });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('floor:linksEnded', { count: done.data?.ended ?? 0 }));
  };
  const renew = async (): Promise<void> => {
    const done = await send({ number });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('floor:linkSent'));
  };
  return (
    <>
      <h3 className="section-head mt-6">{say('floor:links')}</h3>
      <p className="mt-1.5 text-soft">{say(links[0]?.needsCode ? 'floor:linksHintCode' : 'floor:linksHint')}</p>
      <ul>
        {working.map((link) => (
          <li key={link.id} className="flex items-baseline justify-between gap-3 border-b border-rule py-1.5">
            <Standing link={link} />
            <button
              type="button"
              className="shrink-0 text-[13px] text-green underline"
              disabled={isBusy}
              onClick={() => void stop([link.id])}
            >
              {say('floor:endLink')}
            </button>
          </li>
        ))}
      </ul>
      {links.length > working.length ? (
        <details className="mt-1.5">
          <summary className="text-[13px] text-soft">
            {say('floor:olderLinks', { count: links.length - working.length })}
          </summary>
          <ul>
            {links.flatMap((link) =>
              link.state === 'works'
                ? []
                : [
                    <li key={link.id} className="border-b border-rule py-1.5 text-soft">
                      <Standing link={link} />
                    </li>,
                  ],
            )}
          </ul>
        </details>
      ) : null}
      <p className="mt-2 flex flex-wrap gap-2">
        {working.length > 1 ? (
          <Button disabled={isBusy} onClick={() => void stop(null)}>
            {say('floor:endLinks')}
          </Button>
        ) : null}
        <Button disabled={isBusy} onClick={() => void renew()}>
          {say('floor:sendLink')}
        </Button>
      </p>
    </>
  );
}

const Standing = ({ link: { person, made, state, until } }: { link: Link }) => (
  <span>
    {person}{' '}
    <span className="text-soft">
      {made === null ? '' : `${say('floor:linkMade', { made })}, `}
      {state === 'ended' ? say('floor:link.ended') : say(`floor:link.${state}`, { until })}
    </span>
  </span>
);
