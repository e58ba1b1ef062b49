import type { Viewer } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { byHandNow } from '../notice/byHand.ts';
import { asking } from '../notice/ready.ts';
import { tellRule } from '../notice/rules.ts';
import type { House } from '../platform/house.ts';
import { notFound, Problem } from '../platform/problem.ts';
import { by, write } from '../platform/work.ts';
import { openTo } from './openTo.ts';

/**
 * Sends a notice of a form by hand, with words of whoever sends it; gives how many get it.
 *
 * @throws Problem 403 for who may not change the request, 404 where it cannot be sent there now, 409 where nobody would get it.
 */
export function sendNotice(
  house: House,
  viewer: Viewer,
  { number, notice, text }: { readonly number: string; readonly notice: string; readonly text: string },
): { readonly people: number } {
  return write(house, (work) => {
    const open = openTo(work.tx, viewer, number, 'change');
    const ready = byHandNow(work.tx, open, work.now).find(({ rule }) => rule.key === notice);
    if (!ready) throw notFound('notice');
    const telling = { ...by(work, viewer.personId), told: new Set<string>() };
    const holds = asking(work.tx, open.request, ready.fields, work.now);
    tellRule(telling, open.request, ready, {
      written: { text },
      isTold: () => true,
      isUrgent: holds(ready.urgent, false),
    });
    if (telling.told.size === 0) throw new Problem(409, 'nobody-told', refused('nobodyTold'));
    work.effects.changed.add(open.request.id);
    return { people: telling.told.size };
  });
}
