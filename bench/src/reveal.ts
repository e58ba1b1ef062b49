import { AbilityBuilder, createMongoAbility, type MongoAbility, subject } from '@casl/ability';
import { permittedFieldsOf } from '@casl/ability/extra';
import { type AccessRule, conditionHolds, projectionFor, type RequestMoment } from '@tolvek/core/access';
import { protectionOf } from '@tolvek/core/form';
import { FOR_EVERYONE, type Viewer } from '@tolvek/core/people';
import type { Field, Values } from '@tolvek/core/register';
import { type Figure, figure, interleaved, ROUNDS } from './figure.ts';

const REQUESTS = 50_000;
const FIELDS = 40;
const KEYS = Array.from({ length: FIELDS }, (_, n) => `f${n}`);
const fields = KEYS.map((key): Field => ({ key, label: key, type: { kind: 'text' }, source: 'asked' }));
const CLASSES = ['safety', 'boats', 'estates'] as const;
const requestsOf = (size: number): readonly Values[] =>
  Array.from({ length: size }, (_, n) =>
    Object.fromEntries(KEYS.map((key, place) => [key, place < 4 ? String((n * (place + 3)) % 5) : `${key} of ${n}`])),
  );

/** What each class may read: some fields never, and four where the request says so. */
const HIDDEN: Readonly<Record<(typeof CLASSES)[number], readonly string[]>> = {
  safety: ['f10', 'f11'],
  boats: ['f12', 'f13', 'f14'],
  estates: ['f15'],
};
const CONDITIONAL = ['f20', 'f21', 'f22', 'f23'];

const rules: readonly AccessRule[] = [
  ...CLASSES.map(
    (group): AccessRule => ({
      ...{ id: group, name: group, fields: HIDDEN[group], level: 'hidden' },
      audience: { in: { anyOf: [group] }, outOf: [] },
    }),
  ),
  ...CONDITIONAL.map(
    (field, n): AccessRule => ({
      ...{ id: field, name: field, fields: [field], level: 'hidden' },
      audience: { in: { everyone: true }, outOf: [] },
      exceptions: [{ id: 'e', level: 'none', when: `f${n} = "1"` }],
    }),
  ),
];

/** The same, as the peer is told it. */
function abilityOf(group: (typeof CLASSES)[number]): MongoAbility {
  const { can, cannot, build } = new AbilityBuilder(createMongoAbility);
  can('read', 'Request', KEYS);
  cannot('read', 'Request', [...HIDDEN[group]]);
  for (const [n, field] of CONDITIONAL.entries()) cannot('read', 'Request', [field], { [`f${n}`]: { $ne: '1' } });
  return build();
}

const NOWHERE = (): never => {
  throw new Error('No condition names more than fields.');
};

/** Values as three classes of viewer may read them, of 50,000 requests with 40 fields, four of which hang on others. */
export async function measureReveal(): Promise<readonly Figure[]> {
  const requests = requestsOf(REQUESTS);
  const protection = protectionOf({ rules }, { fields, release: null });
  const viewers = CLASSES.map(
    (group): Viewer => ({ personId: group, kind: 'staff', groups: [group], rights: FOR_EVERYONE }),
  );
  const relation = { isDesk: true, isRequester: false };
  const momentOf = (values: Values): RequestMoment => {
    const asked = { fields, values, facts: NOWHERE, standing: NOWHERE };
    return { stage: 'arrived', day: '2026-11-23', holds: (condition) => conditionHolds(condition, asked) };
  };
  const marked = requests.map((values) => subject('Request', { ...values }));
  const timed = (work: () => number): number => {
    const before = performance.now();
    const told = work();
    const passed = performance.now() - before;
    if (told < REQUESTS * 3 * 30) throw new Error(`Only ${told} values are told.`);
    return passed;
  };
  const ours = (): number =>
    timed(() => {
      let told = 0;
      for (const viewer of viewers) {
        const project = projectionFor(protection, { viewer, relation, purpose: 'list' });
        for (const values of requests) told += Object.keys(project(values, momentOf(values))).length;
      }
      return told;
    });
  const peer = (): number =>
    timed(() => {
      let told = 0;
      for (const group of CLASSES) {
        const ability = abilityOf(group);
        const options = { fieldsFrom: (rule: { fields?: string[] }) => rule.fields ?? KEYS };
        for (const [index, values] of requests.entries()) {
          const out: Record<string, unknown> = {};
          for (const key of permittedFieldsOf(ability, 'read', marked[index] as object, options))
            out[key] = values[key];
          told += Object.keys(out).length;
        }
      }
      return told;
    });
  const byHand = (): number =>
    timed(() => {
      let told = 0;
      for (const group of CLASSES) {
        const never = HIDDEN[group];
        const always = KEYS.filter((key) => !never.includes(key) && !CONDITIONAL.includes(key));
        for (const values of requests) {
          const out: Record<string, unknown> = {};
          for (const key of always) out[key] = values[key];
          for (const [n, key] of CONDITIONAL.entries()) if (values[`f${n}`] === '1') out[key] = values[key];
          told += Object.keys(out).length;
        }
      }
      return told;
    });
  const of = `values of ${REQUESTS} requests × ${FIELDS} fields as three classes of viewer may read them, ms`;
  const small = requestsOf(5_000);
  const at = (some: readonly Values[]): number => {
    const before = performance.now();
    for (const viewer of viewers) {
      const project = projectionFor(protection, { viewer, relation, purpose: 'list' });
      for (const values of some) project(values, momentOf(values));
    }
    return performance.now() - before;
  };
  const rounds = Array.from({ length: ROUNDS }, () => [at(small), at(requests)] as const);
  return [
    await interleaved(`${of}; limit: @casl/ability`, 0.2, ours, peer),
    await interleaved(`${of}; limit: the same fields copied key by key`, 1.5, ours, byHand),
    figure(
      `${of}, from 5000 to 50000 requests`,
      rounds.map(([, large]) => large),
      rounds.map(([few]) => few),
      15,
    ),
  ];
}
