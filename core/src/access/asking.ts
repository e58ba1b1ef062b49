import type { Viewer } from '../people/index.ts';
import { type Field, partsOf, type RequestFacts, type RequestStanding, type Values } from '../register/index.ts';
import { type Access, planned, type Relation } from './accessTo.ts';
import type { RequestMoment } from './circumstance.ts';
import { conditionHolds } from './condition.ts';
import type { AccessLevel, Deciding } from './plan.ts';

const ASKS: Relation = { isDesk: false, isRequester: true };

/** Whether a plan says anything while somebody asks. */
export const speaksToAskers = ({ rules }: Pick<Deciding, 'rules'>): boolean => rules.some(({ asking }) => asking);

/** What somebody may do with a field while they ask, and the rule that says so. */
export const accessAsking = (field: Field, plan: Deciding, viewer: Viewer, at: RequestMoment): Access =>
  planned(field, plan, viewer, ASKS, { activity: 'asking', stage: at.stage, day: at.day, holds: at.holds });

/**
 * What somebody may do with fields, and columns of lines, while they ask: fill them in, read them, or not even that. By
 * key, those alone that they may not fill in. `at`: what rules hang on, of a request that has just arrived with nothing in it.
 */
export function levelsAsking(
  fields: readonly Field[],
  plan: Deciding,
  viewer: Viewer,
  at: RequestMoment,
): ReadonlyMap<string, Exclude<AccessLevel, 'write'>> {
  if (!speaksToAskers(plan)) return new Map();
  return new Map(
    partsOf(fields).flatMap((field) => {
      const { level } = accessAsking(field, plan, viewer, at);
      return level === 'write' ? [] : [[field.key, level] as const];
    }),
  );
}

/**
 * What rules hang on, of a request by a form that has just arrived at a stage with nothing in it, or with some answers.
 * `day`: at the desk.
 */
export function momentArriving(
  fields: readonly Field[],
  { form, stage, day }: { readonly form: string; readonly stage: string; readonly day: string },
  facts: () => RequestFacts,
  values: Values = {},
): RequestMoment {
  const standing = (): RequestStanding => ({
    ...{ number: '', form, stage, phase: 'arrived', team: null, handler: null, priority: null },
    ...{ arrived: facts().now, due: null, finished: null, age: 0, decision: null, trial: false },
  });
  return { stage, day, holds: (condition) => conditionHolds(condition, { fields, values, facts, standing }) };
}
