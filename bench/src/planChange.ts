import {
  type AccessRule,
  type AskedAlike,
  gather,
  type Protections,
  planEffect,
  relationTo,
} from '@tolvek/core/access';
import { protectionOf } from '@tolvek/core/form';
import { FOR_EVERYONE, PACKAGES, type Viewer } from '@tolvek/core/people';
import type { Field } from '@tolvek/core/register';
import { type Figure, figure, interleaved } from './figure.ts';

const PEOPLE = 500;
const FIELDS = 60;
const GROUPS = 20;

const group = (n: number): string => `g${n % GROUPS}`;
const fields = Array.from(
  { length: FIELDS },
  (_, n): Field => ({
    ...{ key: `f${n}`, label: `F${n}`, type: { kind: 'text' } },
    source: n % 4 === 0 ? 'desk-only' : 'asked',
  }),
);
const rules = (shift: number): readonly AccessRule[] =>
  Array.from(
    { length: 12 },
    (_, n): AccessRule => ({
      ...{ id: `${n}`, name: `Rule ${n}`, level: n % 3 === 0 ? 'read' : 'hidden' },
      fields: fields.flatMap(({ key }, at) => ((at + n + shift) % 5 === 0 ? [key] : [])),
      audience: { in: { anyOf: [group(n + shift), group(n * 3)] }, outOf: [group(n + 7)], requester: 'out' },
      ...(n % 4 === 1 ? { exceptions: [{ id: 'e', level: 'none', stages: ['s1'] }] } : {}),
    }),
  );
const viewers = Array.from(
  { length: PEOPLE },
  (_, n): Viewer => ({
    ...{ personId: `p${n}`, kind: 'staff', groups: [group(n), group(n * 7 + 3)] },
    rights: n % 10 === 0 ? PACKAGES.coordinator : FOR_EVERYONE,
  }),
);
const REGISTER = { register: 'r', deskGroups: [group(4)] };
/** Requests of which no two have the same people. */
const requestsOf = (size: number): readonly AskedAlike[] =>
  Array.from({ length: size }, (_, n) => ({
    ...{ sort: `r${n % 3} s${n % 5}`, n: 1 },
    ...{ requesterId: `p${(n * 31) % 4_000}`, handlerId: `p${(n * 17) % PEOPLE}`, team: group(n * 13) },
    ...{ onBehalfId: null, enteredById: null },
    deciders: [group(n * 11), `@p${(n * 29) % PEOPLE}`],
    followers: [],
  }));

/**
 * What a changed plan would change, exactly, for 500 people × 60 fields × 10,000 requests: beside a second, beside a loop
 * by hand that only asks how each stands to each request, and as the requests grow tenfold.
 */
export async function measurePlanChange(): Promise<readonly Figure[]> {
  const took = (size: number): number => {
    const requests = requestsOf(size);
    const protections = [rules(0), rules(1)].map((of) => protectionOf({ rules: of }, { fields, release: null }));
    const [was, is] = protections as unknown as readonly [Protections['before'], Protections['after']];
    const of = (sort: string): Protections => ({
      ...{ before: was, after: is },
      at: { stage: sort.slice(-2), day: '', holds: () => false },
    });
    const people = viewers.map((each) => ({ ...each, viewer: () => ({ ...each }) }));
    const before = performance.now();
    const found = planEffect(people, gather(REGISTER, requests), of);
    const passed = performance.now() - before;
    if (found.length < PEOPLE / 10) throw new Error(`Only ${found.length} people are told.`);
    return passed;
  };
  const byHand = (size: number): number => {
    const requests = requestsOf(size);
    const before = performance.now();
    let n = 0;
    for (const each of viewers) {
      const viewer = { ...each };
      for (const request of requests) if (relationTo({ ...request, ...REGISTER }, viewer).isDesk) n += 1;
    }
    const passed = performance.now() - before;
    if (n === 0) throw new Error('Nobody works on anything.');
    return passed;
  };
  const name = `what a plan changes for ${PEOPLE} people × ${FIELDS} fields`;
  const hand = await interleaved(
    `${name} × 10000 requests, ms beside asking how each stands to each`,
    3,
    () => took(10_000),
    () => byHand(10_000),
  );
  const [small, large] = [[1, 2, 3].map(() => took(1_000)), [1, 2, 3].map(() => took(10_000))];
  return [
    hand,
    figure(`${name} × 10000 requests, ms beside 1000`, large, [1_000], 1),
    figure(`${name}, ms, from 1000 to 10000 requests`, large, small, 15),
  ];
}
