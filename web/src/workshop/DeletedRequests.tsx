import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { Trouble } from '../ui/Trouble.tsx';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { say } from '../wire/words.ts';
import { workshopApi } from './endpoints.ts';

/** Requests of a register that were deleted: put back as long as they can be, or deleted for good. */
export function DeletedRequests({ register }: { register: string }) {
  const { data } = workshopApi.useDeletedInQuery({ key: register });
  if (!data || data.deleted.length === 0) return null;
  return (
    <>
      <h2 className="section-head mt-9">{say('workshop:deletedHead')}</h2>
      <p className="mt-2 text-soft">{say('workshop:deletedHint')}</p>
      <ul className="mt-2">
        {data.deleted.map((each) => (
          <Line key={each.id} deleted={each} />
        ))}
      </ul>
    </>
  );
}

function Line({ deleted }: { deleted: AnswerOf<'deletedIn'>['deleted'][number] }) {
  const { id, number, at, by, reason, until, putBack } = deleted;
  const [restore, restoring] = workshopApi.useRestoreDeletedMutation();
  const [forget, forgetting] = workshopApi.useDeleteForGoodMutation();
  const [asked, setAsked] = useState(false);
  const back = async (): Promise<void> => {
    const done = await restore({ id });
    if (!('error' in done)) toast(say('deletion:back', { number }));
  };
  const gone = async (): Promise<void> => {
    const done = await forget({ id });
    if (!('error' in done)) toast(say('deletion:goneNow', { number }));
  };
  const error = restoring.error ?? forgetting.error;
  return (
    <li className="border-b border-rule py-1.5">
      <span className="flex flex-wrap items-baseline gap-x-4">
        <span>
          <span className="font-mono text-[13px]">{number}</span> {say('workshop:deletedBy', { by })}{' '}
          <span className="text-soft">
            <DeskMoment at={at} />
          </span>
        </span>
        {until === null ? null : (
          <span className="ml-auto flex gap-4">
            <button
              type="button"
              className="min-h-[24px] text-green underline"
              disabled={restoring.isLoading}
              onClick={() => void back()}
            >
              {say('workshop:restore')}
            </button>
            <button
              type="button"
              className="min-h-[24px] text-[13px] text-brick underline"
              disabled={forgetting.isLoading}
              onClick={() => (asked ? void gone() : setAsked(true))}
              onBlur={() => setAsked(false)}
            >
              {asked ? say('workshop:deleteNowAsk', { number }) : say('workshop:deleteNow')}
            </button>
          </span>
        )}
      </span>
      <span className="block">{reason}</span>
      <span className="block text-[13px] text-soft">
        {putBack
          ? say('workshop:deletedBack', { by: putBack.by, day: Date.parse(putBack.at) })
          : until
            ? say('workshop:deletedUntil', { day: Date.parse(until) })
            : say('workshop:deletedGone')}
      </span>
      {error ? <Trouble error={error} /> : null}
    </li>
  );
}
