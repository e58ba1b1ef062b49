import { Trouble } from '../ui/Trouble.tsx';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { say } from '../wire/words.ts';
import { mailroomApi } from './endpoints.ts';

/** The text messages that the stand-in for their gateway received, the newest first. */
export function Texts() {
  const { data, error, refetch } = mailroomApi.useTextsQuery(undefined, {
    ...{ pollingInterval: 2_000, skipPollingIfUnfocused: true },
  });
  if (error) return <Trouble error={error} again={refetch} />;
  return (
    <article className="max-w-[40rem]">
      <h2 className="text-[21px]">{say('mailroom:texts')}</h2>
      <p className="mt-1 text-soft">{say('mailroom:textsHint')}</p>
      {data?.texts.length === 0 ? <p className="mt-4 text-soft">{say('mailroom:textsNone')}</p> : null}
      <ul className="mt-3">
        {data?.texts.map(({ id, receivedAt, to, text }) => (
          <li key={id} className="border-b border-rule py-2.5">
            <span className="flex justify-between gap-3 text-[12.5px] text-soft tabular-nums">
              <span>{to}</span>
              <DeskMoment at={receivedAt} />
            </span>
            <span className="break-words">{text}</span>
          </li>
        ))}
      </ul>
    </article>
  );
}
