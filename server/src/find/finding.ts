import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import { aTurn } from '../platform/turns.ts';
import { write } from '../platform/work.ts';
import { isWordsDue, keepSomeWords } from './keepWords.ts';

/** Requests whose words are looked at in one write. */
const AT_ONCE = 60;

/** Looks at the words of all requests that wait for it, a few in each write, whenever nobody else has work to be done. */
export async function keepWordsFound(house: House, isOver: () => boolean): Promise<void> {
  while (!isOver() && isWordsDue(house.db)) {
    await aTurn('what can wait');
    await patiently(house, () => write(house, ({ tx }) => keepSomeWords(tx, AT_ONCE)));
  }
}
