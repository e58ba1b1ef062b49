import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type AccessLevel,
  type AccessPlan,
  type AccessRule,
  accessTo,
  type Disclosure,
  type Leak,
  leaksOf,
  ORDINARY,
  type Relation,
  SINKS,
} from '../src/access/index.ts';
import { preparePaths, type SeatPlan } from '../src/approval/index.ts';
import { finishRule } from '../src/deadline/index.ts';
import {
  type Action,
  answersToSend,
  type FormDesign,
  type FormRule,
  flowFindings,
  type Kept,
  prepareCompletion,
  prepareKeeping,
  protectionOf,
  reachOf,
  refusalsOf,
  sinksOf,
  withoutTelling,
} from '../src/form/index.ts';
import { FOR_EVERYONE, type Viewer } from '../src/people/index.ts';
import {
  FACT_NAMES,
  type Field,
  type RawAnswers,
  requestScope,
  requestSlots,
  type Values,
} from '../src/register/index.ts';
import { prepareRouting } from '../src/routing/index.ts';
import { FACTS } from './anyForm.ts';
import { often } from './often.ts';

/**
 * Who can tell what, found slowly: every value of every field is tried, and what each kind of viewer
 * sees is compared. Nothing here knows what a form reads; it only runs it.
 */

const KEYS = ['p', 'q', 'r', 'n'] as const;
const GROUPS = ['g', 'h'] as const;
const RELATIONS: readonly Relation[] = [
  { isDesk: true, isRequester: false },
  { isDesk: false, isRequester: true },
  { isDesk: true, isRequester: true },
  { isDesk: false, isRequester: false, calledIn: true },
];
const VIEWERS: readonly { readonly viewer: Viewer; readonly relation: Relation }[] = RELATIONS.flatMap((relation) =>
  [[], ['g'], ['h'], ['g', 'h']].map((groups) => ({
    viewer: { personId: 'v', kind: relation.calledIn ? 'contact' : 'staff', rights: FOR_EVERYONE, groups },
    relation,
  })),
);

/** What the plan itself says, read rule by rule. */
function levelOf(field: Field, { rules }: AccessPlan, { viewer, relation }: (typeof VIEWERS)[number]): AccessLevel {
  const applies = ({ fields, audience: { in: inside, outOf, requester } }: AccessRule): boolean => {
    if (fields !== 'all' && !fields.includes(field.key)) return false;
    if (outOf.some((group) => viewer.groups.includes(group))) return false;
    if (relation.isRequester && requester) return requester === 'in';
    if ('everyone' in inside) return true;
    const has = (group: string): boolean => viewer.groups.includes(group);
    return 'anyOf' in inside ? inside.anyOf.some(has) : inside.allOf.length > 0 && inside.allOf.every(has);
  };
  const applying = rules.filter(applies);
  const overriding = applying.filter((rule) => rule.overriding);
  const counted = overriding.length > 0 ? overriding : applying;
  const strictest = (['hidden', 'read', 'write'] as const).find((level) =>
    counted.some((rule) => rule.level === level),
  );
  if (strictest) return strictest;
  return relation.isDesk ? 'write' : field.source === 'desk-only' ? 'hidden' : 'read';
}
const isOpen = (...which: Parameters<typeof levelOf>): boolean => levelOf(...which) !== 'hidden';

const OUTCOME = { team: 'g', priority: 'normal', workingDays: 2, path: 'path' } as const;

/** How much of what is made a viewer is given. */
interface Given {
  readonly reads: (field: Field, viewer: (typeof VIEWERS)[number]) => boolean;
  /** Whether what would tell is withheld: what rules say, and which row was taken. */
  readonly silent: boolean;
}

/** Every assignment of yes, no and nothing to the fields. */
const ASSIGNMENTS: readonly RawAnswers[] = KEYS.reduce<readonly RawAnswers[]>(
  (all, key) => all.flatMap((each) => [each, { ...each, [key]: true }, { ...each, [key]: false }]),
  [{}],
);

/**
 * The fields that somebody who may not read them can tell something of: two states of all the rest
 * alike, and not alike to that viewer. That something was taken in at all says that nothing refused
 * it, which everybody knows of everything that stands here; so it counts for nothing.
 */
function toldSlowly(design: FormDesign, plan: AccessPlan, given: Given): ReadonlySet<string> {
  const protection = protectionOf(plan, { fields: design.fields, release: { form: 'form', design } });
  const routing = sinksOf(design).filter((sink) => sink.kind === 'routing' || sink.kind === 'step');
  const complete = prepareCompletion(design);
  const route = prepareRouting(design.routing, requestScope(design.fields));
  const pathFor = preparePaths(design.approval, requestScope(design.fields));
  const asked = (answers: RawAnswers): RawAnswers =>
    Object.fromEntries(Object.entries(answers).filter(([key]) => key !== 'n'));
  const arrivals = ASSIGNMENTS.filter((answers) => answers.n === undefined).map((answers) => {
    const typed = asked(answers);
    const sent = answersToSend(typed, complete(typed, FACTS), design.parts);
    const done = complete(sent, FACTS);
    if (refusalsOf(done).length > 0) return null;
    const slots = requestSlots(design.fields, done.values, FACTS);
    // By which row it goes, and who is asked to decide.
    const routed = route(slots);
    // An answer that says who is asked is seen by who is.
    const whom = (seat: SeatPlan): string => ('field' in seat ? String(done.values[seat.field] ?? '') : '');
    const asks = pathFor(routed.outcome.path, slots)?.steps.map(({ id, seats }) => `${id}${seats.map(whom)}`) ?? [];
    return { typed, values: done.values, row: `${routed.row} ${asks.join()}` };
  });
  const known = new Map<string, readonly { readonly before: Values; readonly kept: Kept }[]>();
  /** What comes of a change of a field, for whoever may read these fields; of all of them for null. */
  const changed = (key: string, open: readonly string[] | null) => {
    const name = `${key} ${open?.join()}`;
    let found = known.get(name);
    if (!found) {
      const mayRead = (each: string): boolean => open === null || FACT_NAMES.has(each) || open.includes(each);
      const rules = withoutTelling(design, (sink) => protection.tells(sink).every(mayRead));
      const keep = prepareKeeping({ ...design, rules }, mayRead);
      found = ASSIGNMENTS.map((values) => {
        const before = values as Values;
        return { before, kept: keep({ ...before, [key]: true }, new Set([key]), FACTS) };
      });
      known.set(name, found);
    }
    return found;
  };
  const told = new Set<string>();
  const again = design.approval.paths.flatMap((path) => path.again ?? []);
  for (const watching of VIEWERS) {
    const mayRead = (key: string): boolean => {
      const field = design.fields.find((each) => each.key === key);
      return FACT_NAMES.has(key) || (field !== undefined && given.reads(field, watching));
    };
    const seen = (values: Values): string =>
      design.fields.map((field) => (mayRead(field.key) ? String(values[field.key] ?? '') : '-')).join();
    const hidden = design.fields.filter((field) => field.source !== 'computed' && !isOpen(field, plan, watching));
    const compare = (states: readonly { readonly at: RawAnswers | Values; readonly sees: string }[]): void => {
      for (const { key } of hidden) {
        const byRest = new Map<string, string>();
        for (const { at, sees } of states) {
          const rest = JSON.stringify(KEYS.map((each) => (each === key ? 0 : (at[each] ?? null))));
          const before = byRest.get(rest);
          if (before !== undefined && before !== sees) told.add(key);
          byRest.set(rest, sees);
        }
      }
    };
    const isRowTold =
      watching.relation.isDesk && (!given.silent || routing.every((sink) => protection.tells(sink).every(mayRead)));
    const row = (told: string): string => (isRowTold ? told : '');
    compare(
      arrivals.flatMap((each) => (each ? [{ at: each.typed, sees: `${seen(each.values)} ${row(each.row)}` }] : [])),
    );
    if (!watching.relation.isDesk) continue;
    // Whoever works on it changes one field that they may read, and sees what comes of it.
    const open = given.silent ? design.fields.filter(({ key }) => mayRead(key)).map(({ key }) => key) : null;
    for (const field of design.fields.filter(
      (each) => each.source !== 'computed' && mayRead(each.key) && levelOf(each, plan, watching) === 'write',
    ))
      compare(
        changed(field.key, open).map(({ before, kept }) => {
          const said = kept.problems.map((problem) =>
            mayRead(problem.field) ? `${problem.field} ${problem.message}` : 'no',
          );
          // Whoever decides is asked again when a field changes that their path names.
          const anew = again.some((each) => (kept.values[each] ?? null) !== (before[each] ?? null));
          const warned = kept.warnings.map(({ field: at, text }) => `${mayRead(at) ? at : 'form'} ${text}`).join();
          return {
            at: before,
            sees: said.length > 0 ? said.join() : `${seen(kept.values)} ${warned} ${row(anew ? 'anew' : '')}`,
          };
        }),
      );
  }
  return told;
}

const yesNo = { kind: 'yes-no' } as const;
const conditions = fc.oneof(
  fc.constantFrom(...KEYS).map((key) => `${key} = true`),
  fc.constantFrom(...KEYS).map((key) => `${key} = null`),
  fc.tuple(fc.constantFrom(...KEYS), fc.constantFrom(...KEYS)).map(([a, b]) => `${a} = true and ${b} != true`),
);
const actions: fc.Arbitrary<Action> = fc.oneof(
  fc.record({
    do: fc.constant('set' as const),
    field: fc.constantFrom(...KEYS),
    value: fc.constantFrom('p', 'q', 'r', 'n', 'true', 'not(q)'),
  }),
  fc.record({
    do: fc.constantFrom('clear' as const, 'lock' as const, 'require' as const),
    fields: fc.constantFrom(...KEYS).map((key) => [key]),
  }),
  fc.record({
    do: fc.constantFrom('show' as const, 'hide' as const),
    parts: fc.constantFrom('p', 'q', 'r').map((key) => [key]),
  }),
  fc.record({
    do: fc.constant('refuse' as const),
    field: fc.constantFrom('p', 'q', 'form'),
    text: fc.constant('No.'),
    fix: fc.constant(''),
  }),
  fc.record({ do: fc.constant('warn' as const), field: fc.constantFrom('p', 'form'), text: fc.constant('Mind.') }),
  fc.record({ do: fc.constant('jump' as const), after: fc.constant('first'), to: fc.constant('end') }),
);
const ruleOf = (id: string, more: Partial<FormRule>): FormRule => ({
  id,
  name: id,
  says: '',
  when: 'true',
  then: [],
  otherwise: [],
  on: true,
  runs: 'filling',
  ...more,
});
const anyRules = fc
  .array(
    fc.record({
      when: conditions,
      then: fc.array(actions, { minLength: 1, maxLength: 2 }),
      otherwise: fc.array(actions, { maxLength: 1 }),
      runs: fc.constantFrom('filling' as const, 'saving' as const),
    }),
    { maxLength: 3 },
  )
  .map((rules) => rules.map((rule, index) => ruleOf(`rule-${index}`, rule)));
const anyPlan: fc.Arbitrary<AccessPlan> = fc
  .array(
    fc.record({
      id: fc.constant('x'),
      name: fc.constant('closed'),
      fields: fc.oneof(fc.subarray([...KEYS, 's'], { minLength: 1 }), fc.constant('all' as const)),
      audience: fc.record(
        {
          in: fc.constantFrom({ everyone: true as const }, { anyOf: ['g'] }, { allOf: ['g', 'h'] }),
          outOf: fc.subarray([...GROUPS]),
          requester: fc.constantFrom('in' as const, 'out' as const),
        },
        { requiredKeys: ['in', 'outOf'] },
      ),
      level: fc.constantFrom('hidden' as const, 'hidden' as const, 'read' as const),
      overriding: fc.boolean(),
    }),
    { minLength: 1, maxLength: 3 },
  )
  .map((rules) => ({ rules }));

/** What a decision hangs on: a step’s condition, whom an answer names, and by whose change it is begun anew. */
interface Deciding {
  readonly when?: string | null;
  readonly seat?: string | null;
  readonly again?: string | null;
}

const designOf = (
  rules: readonly FormRule[],
  presets: Readonly<Record<string, string>>,
  column: string | null,
  { when = null, seat = null, again = null }: Deciding = {},
): FormDesign => ({
  title: 'A form',
  intro: '',
  subject: '{p}',
  fields: [
    ...KEYS.map(
      (key): Field => ({
        key,
        label: key.toUpperCase(),
        type: yesNo,
        source: key === 'n' ? 'desk-only' : 'asked',
        ...(presets[key] ? { preset: { from: 'field', field: presets[key] } } : {}),
      }),
    ),
    { key: 's', label: 'S', type: yesNo, source: 'computed', formula: 'p = true and r = true' },
  ],
  parts: [
    { part: 'question', field: 'p', asks: '', help: '', required: false },
    { part: 'page', id: 'page-2', title: 'Then', text: '' },
    ...(['q', 'r'] as const).map((field) => ({
      part: 'question' as const,
      field,
      asks: '',
      help: '',
      required: false,
    })),
  ],
  rules,
  unique: [],
  routing: {
    columns: column ? [{ id: 'c', label: 'C', input: column }] : [],
    rows: column ? [{ id: 'row', note: '', cells: { c: 'true' }, outcome: OUTCOME }] : [],
    otherwise: OUTCOME,
  },
  approval: {
    paths: [
      {
        id: 'path',
        label: '',
        ...(again ? { again: [again] } : {}),
        steps: [
          { id: 'd', label: 'D', seats: [seat ? { field: seat } : { group: 'g' }], needed: 1 },
          ...(when ? [{ id: 'e', label: 'E', seats: [{ group: 'h' }], needed: 1, when }] : []),
        ],
      },
    ],
  },
  deadline: { calendar: 'desk', leads: 'g', deadlines: [finishRule(0, 0)] },
});
const anyDesign = fc
  .record({
    rules: anyRules,
    presets: fc.dictionary(fc.constantFrom(...KEYS), fc.constantFrom('p', 'q', 'r'), { maxKeys: 2 }),
    // What only the desk fills in is empty when a request arrives.
    column: fc.option(fc.constantFrom('p', 'q', 'r', 's')),
    // Rarely: where it tells, nothing of who decides and why is shown besides.
    deciding: fc.oneof(
      { weight: 8, arbitrary: fc.constant<Deciding>({}) },
      {
        weight: 2,
        arbitrary: fc
          .constantFrom('p = true', 'q = null', 'r = true and p != true', 's = true')
          .map((when): Deciding => ({ when })),
      },
      { weight: 1, arbitrary: fc.constantFrom('p', 'q', 'r').map((seat): Deciding => ({ seat })) },
      { weight: 1, arbitrary: fc.constantFrom('p', 'q', 'r').map((again): Deciding => ({ again })) },
    ),
  })
  .map(({ rules, presets, column, deciding }) => designOf(rules, presets, column, deciding));
const leaksIn = (design: FormDesign, plan: AccessPlan): readonly Leak[] => {
  const leaks = leaksOf({ fields: design.fields, sinks: sinksOf(design), plan });
  if (!leaks) throw new Error('too many kinds of viewer');
  return leaks;
};

const allowing = ({ sink, source, how }: Leak): Disclosure => ({
  id: 'd',
  form: 'form',
  sink: sink.id,
  text: sink.text,
  source: source.key,
  what: how,
  reason: 'Told anyway.',
  by: 'v',
  at: 0,
});

/** A computed field is read by whoever may read what it is computed from; others by the plan alone. */
const byPlan = (design: FormDesign, plan: AccessPlan): Given['reads'] => {
  const protection = protectionOf(plan, { fields: design.fields, release: null });
  return (field, each) =>
    field.source === 'computed'
      ? accessTo(field, protection, each.viewer, each.relation, ORDINARY).level !== 'hidden'
      : isOpen(field, plan, each);
};

describe('the flow of values', () => {
  it('finds everything that somebody can tell who may not read it', () => {
    const met = { forms: 0, told: 0, found: 0, confirmed: 0 };
    fc.assert(
      fc.property(anyDesign, anyPlan, (design, plan) => {
        const slow = toldSlowly(design, plan, { reads: byPlan(design, plan), silent: false });
        // What a computed field holds is told by those it is computed from, which are tried.
        const found = new Set(leaksIn(design, plan).flatMap(({ source }) => (source.key === 's' ? [] : [source.key])));
        met.forms += 1;
        met.told += slow.size;
        met.found += found.size;
        for (const key of slow) {
          expect(found).toContain(key);
          met.confirmed += 1;
        }
      }),
      { numRuns: often(60) },
    );
    console.log('random forms and plans:', met);
    expect(met.told).toBeGreaterThan(met.forms / 4);
    // It reads what a form names. In forms as wild as these much of that never comes to anything: one
    // rule undoes what another does. The next law has forms where it does.
    expect(met.confirmed / met.found).toBeGreaterThan(0.25);
  });

  it('finds nothing else, in forms where everything that is named comes to something', () => {
    const closed = (source: string): AccessPlan => ({
      rules: [
        {
          id: 'x',
          name: 'closed',
          fields: [source],
          audience: { in: { everyone: true }, outOf: ['g'], requester: 'out' },
          level: 'hidden',
        },
      ],
    });
    const when = 'p = true';
    const single: readonly (readonly [kind: string, design: FormDesign])[] = [
      ...(['filling', 'saving'] as const).flatMap((runs) =>
        (
          [
            { do: 'set', field: 'q', value: 'true' },
            { do: 'clear', fields: ['q'] },
            { do: 'lock', fields: ['q'] },
            { do: 'show', parts: ['q'] },
            { do: 'hide', parts: ['page-2'] },
            { do: 'jump', after: 'first', to: 'end' },
            { do: 'require', fields: ['q'] },
            { do: 'refuse', field: 'form', text: 'No.', fix: '' },
            { do: 'warn', field: 'form', text: 'Mind.' },
          ] satisfies Action[]
        ).map(
          (action) =>
            [`${action.do} ${runs}`, designOf([ruleOf('one', { when, then: [action], runs })], {}, null)] as const,
        ),
      ),
      ['set its value', designOf([ruleOf('one', { then: [{ do: 'set', field: 'n', value: 'p' }] })], {}, null)],
      ['preset', designOf([], { q: 'p' }, null)],
      ['routing', designOf([], {}, 'p')],
      ['routing by a computed field', designOf([], {}, 's')],
      ['step', designOf([], {}, null, { when: 'p = true' })],
      ['seat', designOf([], {}, null, { seat: 'p' })],
      ['step by a computed field', designOf([], {}, null, { when: 's = true' })],
    ];
    const told: Record<string, string> = {};
    for (const [kind, design] of single)
      for (const source of KEYS) {
        const plan = closed(source);
        const slow = [...toldSlowly(design, plan, { reads: byPlan(design, plan), silent: false })];
        const found = [...new Set(leaksIn(design, plan).map((leak) => leak.source.key))];
        expect([kind, source, found]).toEqual([kind, source, slow]);
        if (source === 'p') told[kind] = slow.join() || '-';
      }
    console.log('what of P is told:', told);
    // Of what a rule says while the form is filled in, only whoever typed it hears.
    const expected = ['require filling', 'refuse filling', 'warn filling'];
    const untold = Object.keys(told).filter((kind) => told[kind] === '-');
    expect(untold).toEqual(expected);
  });

  it('draws for each field all that it reaches: whoever is told too freely is told there, and nowhere else', () => {
    const met = { places: 0, leaks: 0, values: 0, through: 0 };
    fc.assert(
      fc.property(anyDesign, anyPlan, (design, plan) => {
        const leaks = leaksIn(design, plan);
        const drawn = design.fields.flatMap(({ key }) =>
          (reachOf(design, { plan, form: 'form' }, key, new Map()) ?? []).map((each) => ({ key, ...each })),
        );
        const told = drawn.filter(({ leaksTo }) => leaksTo !== null);
        expect(told.map(({ key }) => key).sort()).toEqual(leaks.map(({ source }) => source.key).sort());
        // Each way ends at the place, and what only depends on a condition is never said to get there.
        for (const { way, says, how } of drawn) {
          expect(english(way.at(-1) ?? '')).toBe(english(says));
          met.places += 1;
          if (how === 'value') met.values += 1;
          if (way.length > 1) met.through += 1;
        }
        met.leaks += told.length;
      }),
      { numRuns: often(60) },
    );
    console.log('what fields reach:', met);
    expect(Math.min(...Object.values(met))).toBeGreaterThan(10);
  });

  it('withholds at run time whatever would tell, whatever form was released by whatever plan', () => {
    const met = { forms: 0, leaking: 0 };
    fc.assert(
      fc.property(anyDesign, anyPlan, (design, plan) => {
        const protection = protectionOf(plan, { fields: design.fields, release: { form: 'form', design } });
        const reads: Given['reads'] = (field, { viewer, relation }) =>
          accessTo(field, protection, viewer, relation, ORDINARY).level !== 'hidden';
        expect([...toldSlowly(design, plan, { reads, silent: true })]).toEqual([]);
        met.forms += 1;
        if (leaksIn(design, plan).length > 0) met.leaking += 1;
      }),
      { numRuns: often(50) },
    );
    console.log('withheld in forms:', met);
    expect(met.leaking).toBeGreaterThan(met.forms / 4);
  });

  it('tells what was allowed on purpose at run time, and exactly that', () => {
    const met = { forms: 0, allowed: 0, told: 0 };
    fc.assert(
      fc.property(anyDesign, anyPlan, fc.nat(), (design, plan, pick) => {
        const leaks = leaksIn(design, plan);
        const one = leaks[pick % Math.max(1, leaks.length)];
        fc.pre(one !== undefined);
        const allowed = { ...plan, disclosures: [allowing(one as Leak)] };
        const protection = protectionOf(allowed, { fields: design.fields, release: { form: 'form', design } });
        const reads: Given['reads'] = (field, { viewer, relation }) =>
          accessTo(field, protection, viewer, relation, ORDINARY).level !== 'hidden';
        const told = toldSlowly(design, allowed, { reads, silent: true });
        const source = (one as Leak).source.key;
        // What a computed field tells is told of those it is computed from.
        const may = source === 's' ? ['p', 'r'] : [source];
        for (const key of told) expect(may).toContain(key);
        met.forms += 1;
        met.allowed += 1;
        if (told.size > 0) met.told += 1;
      }),
      { numRuns: often(80) },
    );
    console.log('allowed on purpose:', met);
    expect(met.told).toBeGreaterThan(often(10));
  });

  it('tells each once, by a way that begins at what is told and ends where it is read', () => {
    const kinds = new Set<string>();
    fc.assert(
      fc.property(anyDesign, anyPlan, (design, plan) => {
        const leaks = leaksIn(design, plan);
        for (const { sink, source, way } of leaks) {
          kinds.add(sink.kind);
          expect([way[0]?.field, way.at(-1)?.sink]).toEqual([source.key, sink]);
          for (const [index, step] of way.entries()) {
            expect(step.sink.reads.some((read) => read.field === step.field)).toBe(true);
            const next = way[index + 1];
            if (next) expect(step.sink.readers).toEqual({ who: 'field', field: next.field });
          }
        }
        const told = leaks.map(({ sink, source }) => `${sink.id} ${sink.text} ${source.key}`);
        expect(new Set(told).size).toBe(told.length);
        expect(flowFindings(design, { plan, form: 'form' }, new Map())).toHaveLength(leaks.length);
      }),
      { numRuns: often(500) },
    );
    console.log('kinds of places that told:', [...kinds].sort().join(' '));
    const asking = ['clear', 'hide', 'jump', 'lock', 'preset', 'refuse', 'require', 'routing', 'set', 'show'];
    const covered = [...asking, 'step', 'warn'];
    expect([...kinds].sort()).toEqual(covered);
    for (const kind of covered) expect(SINKS[kind as keyof typeof SINKS]).toBe('release');
  });

  it('is quiet once every way was allowed on purpose, for these expressions and no others', () => {
    fc.assert(
      fc.property(anyDesign, anyPlan, (design, plan) => {
        let disclosures = plan.disclosures ?? [];
        // What is allowed at one place goes on from there, and tells at the next.
        for (let round = 0; round < 20; round += 1) {
          const leaks = leaksOf({ fields: design.fields, sinks: sinksOf(design), plan, disclosures }) ?? [];
          if (leaks.length === 0) return;
          disclosures = [...disclosures, ...leaks.map(allowing)];
          const other = disclosures.map((each) => ({ ...each, text: `${each.text} ` }));
          const by = (allowed: typeof other) =>
            leaksOf({ fields: design.fields, sinks: sinksOf(design), plan, disclosures: allowed })?.map(
              ({ sink, source, how }) => [sink.id, source.key, how],
            );
          expect(by(other)).toEqual(by([]));
        }
        throw new Error('never quiet');
      }),
      { numRuns: often(50) },
    );
  });
});
