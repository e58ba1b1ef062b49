import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { write } from '../platform/work.ts';
import { saidBy, writable } from './commands.ts';
import { eachByItself } from './eachByItself.ts';

/**
 * Writes the same to the requesters of several requests, or for the desk, each by itself and as from its sheet: one that
 * can’t be written to stands in the way of no other, and none is written to twice by one key. Without `apply`, to how many
 * it would go; nothing is stored.
 */
export async function writeMany(
  house: House,
  viewer: Viewer,
  { requests, text, visibility, apply }: BodyOf<'writeMany'>,
  key: string,
): Promise<AnswerOf<'writeMany'>> {
  const numbers = [...new Set(requests)];
  const refused = await eachByItself(numbers, String, (number) => {
    const message = { number, text, visibility };
    if (!apply) writable(house.db, viewer, message);
    else
      write(house, (work) =>
        once(work.tx, { key, scope: `write ${viewer.personId} ${number}`, content: message, now: work.now }, () => {
          saidBy(work, viewer, message);
          return { number };
        }),
      );
  });
  return { applied: apply, written: numbers.length - refused.length, refused };
}
