import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import type { House } from '../platform/house.ts';
import { by, write } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import { endFollower, putFollower } from '../request/followers.ts';
import { openAtDesk } from '../request/open.ts';

/**
 * Has whoever may read a request hear of what becomes of it, or no longer. Said twice, it is so once.
 *
 * @throws Problem 404
 */
export function follow(
  house: House,
  viewer: Viewer,
  number: string,
  { follows }: { readonly follows: boolean },
): AnswerOf<'followRequest'> {
  write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const { tx, now } = work;
    const { request } = openAtDesk(tx, viewer, number, 'sheet');
    const isNews = follows
      ? putFollower(tx, request.id, viewer.personId, now)
      : endFollower(tx, request.id, viewer.personId);
    if (isNews) changeRequest(work, request, { kind: follows ? 'followed' : 'unfollowed' });
  });
  return { done: true };
}
