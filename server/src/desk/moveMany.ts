import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import type { House } from '../platform/house.ts';
import { staleVersion } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { movable, movedBy, waysFrom } from './commands.ts';
import { eachByItself } from './eachByItself.ts';

type Answer = AnswerOf<'moveMany'>;

/**
 * Moves requests to a stage, each by itself and as from its sheet: one that can’t be moved stands in the way of no other.
 * Without `apply`, what would become of them, and where they could be moved to; nothing is stored.
 */
export async function moveMany(
  house: House,
  viewer: Viewer,
  { requests, stage, apply }: BodyOf<'moveMany'>,
): Promise<Answer> {
  const { db, clock } = house;
  const stages = new Map<string, Answer['stages'][number]>();
  let moved = 0;
  const problems = await eachByItself(
    requests,
    ({ number }) => number,
    (each) => {
      if (apply && stage !== undefined) {
        write(house, (work) => movedBy(work, viewer, { ...each, stage }));
        moved += 1;
        return;
      }
      const ways = waysFrom(db, viewer, each.number, clock.now());
      if (ways.open.request.version !== each.version) throw staleVersion();
      for (const { stage: to, whyNot } of ways.moves) {
        if (whyNot !== null) continue;
        const known = stages.get(to.key) ?? { key: to.key, label: to.label, count: 0 };
        stages.set(to.key, { ...known, count: known.count + 1 });
      }
      if (stage === undefined) return;
      movable(ways, stage);
      moved += 1;
    },
  );
  return { applied: apply, moved, refused: problems, stages: [...stages.values()] };
}
