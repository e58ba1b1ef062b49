import type { AnswerOf } from '@tolvek/contract';
import { type FormDesign, hasOwn, type OwnPart } from '@tolvek/core/form';
import type { Key } from '@tolvek/words';
import { say } from '../wire/words.ts';
import type { Change } from './editing.ts';

type Others = AnswerOf<'form'>['others'];

/** Says beside an edit of what belongs to the register whom else it reaches. */
export const Reaches = ({ others }: { others: Others }) =>
  others.length === 0 ? null : (
    <span className="text-[12.5px] text-brass" title={others.map((form) => form.title).join(', ')}>
      {say('workshop:affectsForms', { count: others.length })}
    </span>
  );

const OWN = {
  routing: 'workshop:ownRouting',
  approval: 'workshop:ownApproval',
  deadline: 'workshop:ownDeadline',
  notices: 'workshop:ownNotices',
} as const satisfies Record<OwnPart, Key>;

/** Whether a form follows what is usual in its register, or has its own; said only where others share it. */
export function OwnOrUsual({
  part,
  draft,
  change,
  others,
}: {
  part: OwnPart;
  draft: FormDesign;
  change: Change;
  others: Others;
}) {
  if (others.length === 0) return null;
  const isOwn = hasOwn(draft, part);
  const put = (own: boolean): void =>
    change((before) => ({
      ...before,
      own: own ? [...(before.own ?? []), part] : (before.own ?? []).filter((each) => each !== part),
    }));
  return (
    <p className="mt-2 flex flex-wrap items-baseline gap-x-4">
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="accent-green"
          checked={isOwn}
          onChange={(event) => put(event.target.checked)}
        />
        {say(OWN[part])}
      </label>
      {isOwn ? (
        <span className="text-[12.5px] text-soft">{say('workshop:ownStays')}</span>
      ) : (
        <span className="text-[12.5px] text-soft">
          {say('workshop:aChangeHere')} <Reaches others={others} />
        </span>
      )}
    </p>
  );
}
