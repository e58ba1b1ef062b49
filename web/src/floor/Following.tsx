import type { AnswerOf } from '@tolvek/contract';
import { toast } from 'sonner';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

/** Who follows a request; whoever reads it follows it here, or stops. */
export function Following({ number, followers: { others, mine } }: Pick<AnswerOf<'sheet'>, 'number' | 'followers'>) {
  const [put, { isLoading }] = floorApi.useFollowRequestMutation();
  const names = [...(mine ? [say('floor:you')] : []), ...others];
  const turn = async (): Promise<void> => {
    const done = await put({ number, body: { follows: !mine } });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else if (mine) toast(say('floor:unfollowed', { number }));
    else toast(say('floor:nowFollowed', { number }), { description: say('floor:followWhat') });
  };
  return (
    <p className="mb-4 text-[13px] text-soft">
      {names.length > 0 ? <>{say('floor:followers', { names })} · </> : null}
      <button type="button" className="text-green underline" disabled={isLoading} onClick={() => void turn()}>
        {say(mine ? 'floor:unfollow' : 'floor:follow')}
      </button>
    </p>
  );
}
