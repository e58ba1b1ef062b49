import { deadlineName, doesInWords, type Ring, type RingNames, ringsBefore } from '@tolvek/core/deadline';
import type { Ahead } from '@tolvek/core/intake';
import type { RoutingSaid } from '@tolvek/core/routing';
import { said, type Words } from '@tolvek/words';

/** Something that somebody hears of, or that happens by itself: epoch ms. */
export interface Heard {
  readonly at: number;
  readonly what: Words;
  /** Whether only where something was not done in time, and what. */
  readonly only: 'late' | 'silent' | null;
}

/** While it is decided, whoever decides is reminded: whoever works on it can do nothing about it yet. */
const whileDecided = (ring: Ring): Ring =>
  ringsBefore(ring)
    ? { ...ring, tells: ring.tells.map((hearer) => (hearer === 'working' ? 'deciding' : hearer)) }
    : ring;

/** Who hears of what in the life of a request as it is planned, in its order. */
export function heardIn(ahead: Ahead, { team: key, handler }: RoutingSaid, names: RingNames): readonly Heard[] {
  const asked = ahead.steps.filter(({ isAsked }) => isAsked);
  const team = names.group(key);
  const taken: Words = handler ? said('course:heard.handler', { team }) : said('course:heard.team', { team });
  const certain = (at: number, what: Words): Heard => ({ at, what, only: null });
  const decided = asked.at(-1)?.ends ?? ahead.from;
  const all = [
    certain(ahead.from, said('course:heard.received')),
    ...(asked.length === 0 ? [certain(ahead.from, taken)] : []),
    ...asked.flatMap(({ step: { label: step, limit }, from, until, remind }): Heard[] => [
      certain(from, said('course:heard.asked', { step })),
      ...(remind === null
        ? []
        : [{ at: remind, what: said('course:heard.remind', { step }), only: 'silent' as const }]),
      ...(until === null || !limit
        ? []
        : [{ at: until, what: said(`course:heard.${limit.silence}`, { step }), only: 'silent' as const }]),
    ]),
    ...(asked.length === 0 ? [] : [certain(decided, said('course:heard.approved')), certain(decided, taken)]),
    ...ahead.deadlines.flatMap(({ rule, rings }) =>
      rings.flatMap(({ key: ring, at, isLate }): Heard[] => {
        const found = rule.rings.find((each) => each.key === ring);
        const does = found ? doesInWords(at < decided ? whileDecided(found) : found, names) : [];
        const what = said('course:heard.ring', { name: deadlineName(rule), does: [...does] });
        return does.length === 0 ? [] : [{ at, what, only: isLate ? 'late' : null }];
      }),
    ),
    certain(ahead.stages.at(-1)?.at ?? ahead.to, said('course:heard.finished')),
  ];
  return all.sort((a, b) => a.at - b.at);
}
