import {
  type DeadlineLength,
  type DeadlinePlan,
  type DeadlineRule,
  FINISH,
  type Ring,
  type RingAct,
  type RowSpan,
  ringsBefore,
} from '@tolvek/core/deadline';
import { type FormDesign, freshKey } from '@tolvek/core/form';
import type { RoutingTable } from '@tolvek/core/routing';
import type { Recipient } from '@tolvek/core/telling';
import { movedBy } from '../edits.ts';
import { HOUR } from '../hours.ts';
import { lastingFor } from '../routing/rowEdits.ts';

/** The deadlines that one can begin with; each is changed to what is wanted afterwards. */
export const KINDS = ['answer', 'stage', 'date', 'other'] as const;
export type Kind = (typeof KINDS)[number];

const withPlan = (design: FormDesign, edit: (plan: DeadlinePlan) => DeadlinePlan): FormDesign => ({
  ...design,
  deadline: edit(design.deadline),
});

const withRules = (design: FormDesign, edit: (rules: readonly DeadlineRule[]) => readonly DeadlineRule[]): FormDesign =>
  withPlan(design, (plan) => ({ ...plan, deadlines: edit(plan.deadlines) }));

/** Who hears of delays. */
export const leadsAre = (design: FormDesign, leads: string): FormDesign =>
  withPlan(design, (plan) => ({ ...plan, leads }));

/** A deadline with something else; what says nothing is left out. */
export const editRule = (design: FormDesign, key: string, edit: Partial<Omit<DeadlineRule, 'key'>>): FormDesign =>
  withRules(design, (rules) => rules.map((rule) => (rule.key === key ? settled({ ...rule, ...edit }) : rule)));

function settled({ when, calendar, ...rule }: DeadlineRule): DeadlineRule {
  // What begins with the request can’t be over when the stage of its beginning is left.
  const ends = rule.ends.on === 'left' && rule.begins.on === 'arrival' ? { on: 'finished' as const } : rule.ends;
  return {
    ...{ ...rule, ends },
    ...(when === undefined || when.trim() === '' ? {} : { when }),
    ...(calendar === undefined || calendar === '' ? {} : { calendar }),
  };
}

/** The key of the next deadline that is added. */
export const freshDeadline = ({ deadline }: FormDesign): string =>
  freshKey('deadline', new Set(deadline.deadlines.map(({ key }) => key)));

/** What a deadline that is added needs to know. */
interface Beginning {
  readonly name: string;
  /** A stage that people work at. */
  readonly stage: string;
  /** A field for a date; none where there is none. */
  readonly field: string | undefined;
}

const reminder = (at: number): Ring => ({ key: 'ring', at, tells: ['working'], does: [] });

/** Another deadline after all others, of some kind. */
export function addRule(design: FormDesign, kind: Kind, { name, stage, field }: Beginning): FormDesign {
  const common = { key: freshDeadline(design), name, begins: { on: 'arrival' }, stands: { on: 'paused' } } as const;
  const ends = { on: 'finished' } as const;
  const rules: Readonly<Record<Kind, DeadlineRule>> = {
    answer: {
      ...{ ...common, length: { by: 'time', time: 4 * HOUR }, ends: { on: 'answered' } },
      rings: [reminder(-HOUR), { ...reminder(0), key: 'ring_2', tells: ['leads'] }],
    },
    stage: {
      ...{ ...common, begins: { on: 'stages', stages: [stage] }, stands: { on: 'never' } },
      ...{ length: { by: 'days', days: 5 }, ends: { on: 'left' }, rings: [reminder(0)] },
    },
    date: {
      ...{ ...common, ends, stands: { on: 'never' }, rings: [reminder(-8 * HOUR)] },
      length: field === undefined ? { by: 'days', days: 5 } : { by: 'field', field, days: 0, counted: 'any' },
    },
    other: { ...common, ends, length: { by: 'days', days: 5 }, rings: [reminder(-4 * HOUR)] },
  };
  return withRules(design, (all) => [...all, rules[kind]]);
}

/** A form without a deadline; the finish stays, for whoever asks counts on it. */
export const removeRule = (design: FormDesign, key: string): FormDesign =>
  key === FINISH
    ? design
    : {
        ...withRules(design, (rules) => rules.filter((rule) => rule.key !== key)),
        routing: unsaid(design.routing, key),
      };

/** A routing table that says nothing of a deadline. */
function unsaid({ rows, otherwise, ...table }: RoutingTable, key: string): RoutingTable {
  return {
    ...table,
    rows: rows.map((row) => ({ ...row, outcome: lastingFor(row.outcome, key, undefined) })),
    otherwise: lastingFor(otherwise, key, undefined),
  };
}

/** A deadline one place earlier or later. */
export const moveRule = (design: FormDesign, key: string, way: -1 | 1): FormDesign =>
  withRules(design, (rules) => movedBy(rules, (rule) => rule.key === key, way));

/** The lengths that one can choose among, each as it begins. */
export function firstLength(by: RowSpan['by'], field?: string | undefined): RowSpan;
export function firstLength(by: DeadlineLength['by'], field: string | undefined): DeadlineLength;
export function firstLength(by: DeadlineLength['by'], field: string | undefined): DeadlineLength {
  switch (by) {
    case 'routing':
      return { by };
    case 'days':
      return { by, days: 5 };
    case 'time':
      return { by, time: 4 * HOUR };
    case 'formula':
      return { by, formula: '5', unit: 'days' };
    case 'field':
      return { by, field: field ?? '', days: 0, counted: 'any' };
  }
}

const inRings = (design: FormDesign, key: string, edit: (rings: readonly Ring[]) => readonly Ring[]): FormDesign =>
  withRules(design, (rules) => rules.map((rule) => (rule.key === key ? { ...rule, rings: edit(rule.rings) } : rule)));

/** Another time at which a deadline does something. */
export const addRing = (design: FormDesign, key: string): FormDesign =>
  inRings(design, key, (rings) => [
    ...rings,
    { ...reminder(-HOUR), key: freshKey('ring', new Set(rings.map((ring) => ring.key))) },
  ]);

type Side = 'before' | 'after';
/** Whether something rings before it is due, then, or after. */
export const sideOf = (ring: Ring): Side | 'at' =>
  ringsBefore(ring) ? 'before' : ring.days === undefined && ring.at === 0 ? 'at' : 'after';
/** A length of working time, or of working days, before or after the due moment. The day itself is before. */
export const onSide = (
  length: { readonly hours: number } | { readonly days: number },
  side: Side,
): Pick<Ring, 'at' | 'days'> => {
  if ('hours' in length) return { at: side === 'before' ? 0 - length.hours : length.hours, days: undefined };
  return { at: 0, days: side === 'before' ? 0 - length.days : Math.max(1, length.days) };
};

/** A time at which a deadline does something, with something else. */
export const editRing = (design: FormDesign, key: string, ring: string, edit: Partial<Omit<Ring, 'key'>>): FormDesign =>
  inRings(design, key, (rings) =>
    rings.map((each) => {
      if (each.key !== ring) return each;
      const { again, days, ...others } = { ...each, ...edit };
      return {
        ...others,
        ...(days === undefined ? {} : { days }),
        ...(again === undefined ? {} : { again }),
      };
    }),
  );

export const removeRing = (design: FormDesign, key: string, ring: string): FormDesign =>
  inRings(design, key, (rings) => rings.filter((each) => each.key !== ring));

/** Who hears of something, as one word, for what can only be chosen by words. */
export const hearerWord = (hearer: Recipient): string =>
  typeof hearer === 'string'
    ? hearer
    : 'group' in hearer
      ? `group ${hearer.group}`
      : 'person' in hearer
        ? `person ${hearer.person}`
        : 'duty' in hearer
          ? `duty ${hearer.duty}`
          : 'program' in hearer
            ? `program ${hearer.program}`
            : `field ${hearer.field}`;

/** Who is meant by such a word. */
export function hearerOf(word: string): Recipient {
  const [kind = '', key = ''] = word.split(' ');
  if (kind === 'group') return { group: key };
  if (kind === 'person') return { person: key };
  if (kind === 'duty') return { duty: key };
  if (kind === 'program') return { program: key };
  return kind === 'field' ? { field: key } : (word as Extract<Recipient, string>);
}

/** What is done, as one word. */
export const actWord = (act: RingAct): string => {
  switch (act.do) {
    case 'priority':
      return `priority ${act.to}`;
    case 'team':
      return `team ${act.team}`;
    case 'stage':
      return `stage ${act.stage}`;
    case 'decide':
      return `decide ${act.path}`;
  }
};

/** What is meant by such a word. */
export function actOf(word: string): RingAct {
  const [kind, key = ''] = word.split(' ');
  if (kind === 'team') return { do: kind, team: key };
  if (kind === 'stage') return { do: kind, stage: key };
  if (kind === 'decide') return { do: kind, path: key };
  return { do: 'priority', to: key === 'high' || key === 'low' ? key : 'normal' };
}
