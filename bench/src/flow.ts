import { type AccessPlan, type AccessRule, classesOf, leaksOf, type Sink } from '@tolvek/core/access';
import { type FormDesign, type FormRule, flowFindings, sinksOf } from '@tolvek/core/form';
import type { Field } from '@tolvek/core/register';
import { purchase, seeded } from '@tolvek/demo';
import { type Figure, interleaved } from './figure.ts';

const FIELDS = 300;
const RULES = 150;
const GROUPS = ['a', 'b', 'c', 'd', 'e'];
/** What the look at a draft may take, ms. */
const BUDGET = 100;

/** A form in which a value goes through many fields, and a plan that tells many kinds of people apart. */
export function largeForm(): { design: FormDesign; plan: AccessPlan } {
  const random = seeded(11);
  const any = (): string => `f${Math.floor(random() * FIELDS)}`;
  const fields = Array.from({ length: FIELDS }, (_, index): Field => {
    const base = { key: `f${index}`, label: `Field ${index}`, type: { kind: 'yes-no' } as const };
    if (index % 10 === 9) return { ...base, source: 'computed', formula: `f${index - 1} or f${index - 5}` };
    return { ...base, source: index % 4 === 0 ? 'desk-only' : 'asked' };
  });
  const rules = Array.from(
    { length: RULES },
    (_, index): FormRule => ({
      id: `r${index}`,
      name: `Rule ${index}`,
      says: '',
      when: `${any()} and not(${any()})`,
      then: index % 3 === 0 ? [{ do: 'set', field: any(), value: any() }] : [{ do: 'show', parts: [any(), any()] }],
      otherwise: [],
      on: true,
      runs: index % 2 === 0 ? 'filling' : 'saving',
    }),
  );
  const closed = (index: number): AccessRule => ({
    id: `p${index}`,
    name: `Closed ${index}`,
    fields: Array.from({ length: 6 }, any),
    audience: {
      in: { everyone: true },
      outOf: [GROUPS[index % GROUPS.length] ?? 'a'],
      requester: index % 2 ? 'out' : 'in',
    },
    level: 'hidden',
  });
  const parts = fields.flatMap((field) =>
    field.source === 'asked'
      ? [{ part: 'question' as const, field: field.key, asks: '', help: '', required: false }]
      : [],
  );
  const design = { ...purchase.design, fields, parts, rules, unique: [] };
  return { design, plan: { rules: Array.from({ length: 10 }, (_, index) => closed(index)) } };
}

/** Pair by pair: for each kind of viewer and each place, whether each field reaches it. Counts what is told. */
function pairByPair(design: FormDesign, plan: AccessPlan, sinks: readonly Sink[]): number {
  const into = (key: string): readonly Sink[] =>
    sinks.filter((sink) => sink.readers.who === 'field' && sink.readers.field === key);
  const reaches = (source: string, sink: Sink, seen: Set<string>): boolean =>
    sink.reads.some(({ field }) => {
      if (field === source) return true;
      if (seen.has(field)) return false;
      seen.add(field);
      return into(field).some((each) => reaches(source, each, seen));
    });
  const isHidden = (key: string, groups: readonly string[], isRequester: boolean): boolean =>
    plan.rules.some(({ fields, audience }) => {
      if (fields === 'all' || !fields.includes(key)) return false;
      if (audience.outOf.some((group) => groups.includes(group))) return false;
      return !isRequester || audience.requester !== 'out';
    });
  let told = 0;
  for (const sink of sinks) {
    if (sink.readers.who !== 'field' || sink.kind === 'computed') continue;
    const { field: target } = sink.readers;
    for (const { key } of design.fields) {
      if (!plan.rules.some(({ fields }) => fields !== 'all' && fields.includes(key))) continue;
      if (!reaches(key, sink, new Set())) continue;
      const isTold = (classesOf(plan) ?? []).some(
        ({ groups, relation }) =>
          relation.isDesk &&
          !isHidden(target, groups, relation.isRequester) &&
          isHidden(key, groups, relation.isRequester),
      );
      if (isTold) told += 1;
    }
  }
  return told;
}

/** Finding what a draft tells too freely, beside a reading pair by pair, and beside its budget. */
export async function measureFlow(): Promise<Figure[]> {
  const { design, plan } = largeForm();
  const sinks = sinksOf(design);
  const kinds = classesOf(plan)?.length ?? 0;
  const found = leaksOf({ fields: design.fields, sinks, plan })?.length ?? 0;
  if (found === 0 || pairByPair(design, plan, sinks) === 0)
    throw new Error('Nothing is told: there is nothing to measure.');
  const ours = (): number => {
    const start = performance.now();
    flowFindings(design, { plan: { ...plan }, form: 'form' }, new Map());
    return performance.now() - start;
  };
  const pairs = (): number => {
    const start = performance.now();
    pairByPair(design, plan, sinks);
    return performance.now() - start;
  };
  const of = `${FIELDS} fields, ${RULES} rules and ${kinds} kinds of viewer`;
  return [
    await interleaved(`What a form tells too freely, of ${of}, ms beside a reading pair by pair`, 0.5, ours, pairs),
    await interleaved(`What a form tells too freely, of ${of}, ms of the hundred it may take`, 1, ours, () => BUDGET),
  ];
}
