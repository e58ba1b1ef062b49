import { addWorkingTime, reached, workingTimeBetween } from '../deadline/index.ts';
import { ENOUGH, hadBy, type Learned } from './learn.ts';
import type { DeskPast } from './life.ts';
import { dueAt, type Outlook } from './outlook.ts';

/**
 * What is likely to become of promises with an end of their own, such as a first answer: as long as such promises took,
 * given how long each has lasted. Where few have ended, nothing is said. `until`: how far is looked, epoch ms.
 */
export function ownOutlooks({ lives, calendars, now }: DeskPast, learned: Learned, until: number): readonly Outlook[] {
  return lives.flatMap((life) =>
    life.finished !== null
      ? []
      : life.promised.flatMap((promised): readonly Outlook[] => {
          const lengths = learned.own(life, promised.key);
          const calendar = calendars[promised.calendar];
          if (promised.ends !== 'itself' || promised.over !== null || !calendar) return [];
          if (!lengths || lengths.size < ENOUGH) return [];
          const { key, due, left, isLate, moves } = dueAt(promised, calendar, now);
          const had = hadBy(promised, now, learned.stations);
          const ahead = left ?? workingTimeBetween(calendar, now, due);
          const share = lengths.longerThan(had + ahead) / Math.max(1e-9, lengths.longerThan(had));
          const ends = (longer: number): number | null => {
            const at = reached(() => addWorkingTime(calendar, now, lengths.draw(had, longer).length - had));
            return at === null || at > until ? null : at;
          };
          return [
            {
              ...{ id: life.id, key, due, left, isLate, isStill: moves, ends: 'itself' },
              chance: isLate ? 1 : due > until ? null : Math.min(1, share),
              finish: { early: ends(0.9), likely: ends(0.5), late: ends(0.1) },
            },
          ];
        }),
  );
}
