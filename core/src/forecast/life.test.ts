import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asOf, type Life, type LifeEvent, type Place, stretchesOf, type Told } from './life.ts';

const STAGES = ['arrived', 'in_hand', 'waits'] as const;
const at = fc.integer({ min: 0, max: 40 });
const event: fc.Arbitrary<LifeEvent> = fc.oneof(
  fc.record({ at, stage: fc.constantFrom(...STAGES) }),
  fc.record({ at, team: fc.constantFrom('boats', 'lab') }),
  fc.record({ at, handler: fc.constantFrom('ann', 'bo', null) }),
);
const told: fc.Arbitrary<Told> = fc
  .record({
    events: fc.array(event, { maxLength: 12 }),
    decided: fc.array(fc.record({ from: at, to: fc.option(at) }), { maxLength: 3 }),
    finished: fc.option(fc.integer({ min: 1, max: 45 })),
  })
  .map(({ events, decided, finished }) => ({
    ...{ arrived: 0, finished, first: { stage: 'arrived', team: 'boats', handler: null } },
    events: events.toSorted((a, b) => a.at - b.at),
    decided: decided.filter(({ from, to }) => to === null || to > from),
    isPaused: (stage) => stage === 'waits',
  }));

/** Where it is at a moment, read from the beginning: the last word of each kind. */
function plainly(
  { events, decided, first }: Told,
  moment: number,
): { place: Place; team: string; handler: string | null } {
  const before = events.filter((each) => each.at <= moment);
  const last = <T>(of: (each: LifeEvent) => T | undefined, else_: T): T =>
    before.map(of).findLast((each) => each !== undefined) ?? else_;
  const stage = last((each) => ('stage' in each ? each.stage : undefined), first.stage);
  const team = last((each) => ('team' in each ? each.team : undefined), first.team);
  const handed = before.findLast((each) => 'handler' in each);
  const handler = handed && 'handler' in handed ? handed.handler : first.handler;
  const isDecided = decided.some(({ from, to }) => from <= moment && (to ?? 99) > moment);
  const place = stage === 'waits' ? 'paused' : isDecided ? 'deciding' : handler === null ? 'waiting' : 'working';
  return { place, team, handler };
}

const lifeOf = (of: Told): Life => ({
  ...{ id: 'a', form: 'f', row: 'r', calendar: 'c', arrived: of.arrived, finished: of.finished },
  stretches: stretchesOf(of),
  promised: [],
});

describe('the stretches of a request', () => {
  it('say at every moment where it is, as its events read one by one', () => {
    const met = new Set<Place>();
    fc.assert(
      fc.property(told, (of) => {
        const stretches = stretchesOf(of);
        for (let moment = 0; moment < (of.finished ?? 50); moment += 1) {
          const here = stretches.filter(({ from, to }) => from <= moment && (to ?? 99) > moment);
          expect(here).toHaveLength(1);
          expect(here[0]).toMatchObject(plainly(of, moment));
          met.add(plainly(of, moment).place);
        }
        expect(stretches.at(-1)?.to).toBe(of.finished);
      }),
    );
    expect([...met].sort()).toEqual(['deciding', 'paused', 'waiting', 'working']);
  });

  it('are as they were then, for whoever looks back', () => {
    fc.assert(
      fc.property(told, at, (of, then) => {
        const known: Told = {
          ...of,
          events: of.events.filter((each) => each.at <= then),
          decided: of.decided
            .filter(({ from }) => from <= then)
            .map(({ from, to }) => ({ from, to: to !== null && to > then ? null : to })),
          finished: of.finished !== null && of.finished <= then ? of.finished : null,
        };
        expect(asOf(lifeOf(of), then)?.stretches).toEqual(stretchesOf(known));
      }),
    );
  });

  it('begin with its arrival: before it nothing is known', () => {
    expect(asOf({ ...lifeOf({ ...EMPTY, arrived: 10 }) }, 9)).toBeNull();
  });
});

const EMPTY: Told = {
  ...{ arrived: 0, finished: null, first: { stage: 'arrived', team: 'boats', handler: null }, events: [], decided: [] },
  isPaused: () => false,
};
