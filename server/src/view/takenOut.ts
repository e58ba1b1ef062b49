import type { BodyOf } from '@tolvek/contract';
import type { Words } from '@tolvek/words';
import type { House } from '../platform/house.ts';
import { newId } from '../platform/newId.ts';
import { patiently } from '../platform/patience.ts';
import { readLog } from '../platform/tables.ts';
import { write } from '../platform/work.ts';

/**
 * Notes that somebody takes something out of some registers as a file, before it leaves: a line for each. `by`: their id,
 * empty for whoever has a link.
 */
export const noteTakenOut = (
  house: House,
  by: string,
  registers: readonly { readonly id: string }[],
  about: { readonly what: Words; readonly as: BodyOf<'takeOutView'>['as'] },
): Promise<void> =>
  patiently(house, async () =>
    write(house, ({ tx, now }) => {
      for (const { id: registerId } of registers)
        tx.insert(readLog)
          .values({ id: newId(), at: now, by, registerId, about: { kind: 'taken-out', ...about }, numbers: [] })
          .run();
    }),
  );
