import {
  ACTIVITIES,
  type AccessLevel,
  type AccessRule,
  type Activity,
  type Doing,
  type RuleException,
} from './plan.ts';

/** What of a request, and of the day, rules may hang on. */
export interface RequestMoment {
  /** The key of the stage that it is at. */
  readonly stage: string;
  /** `YYYY-MM-DD` at the desk. */
  readonly day: string;
  /** Whether the condition of an exception holds of it. */
  readonly holds: (condition: string) => boolean;
}

/** All that a rule may hang on besides who looks. */
export interface Circumstance extends RequestMoment {
  readonly activity: Doing;
}

/** At none of the stages that rules name, where no condition of theirs holds, on a day before any of them begins. */
export const ORDINARY: Circumstance & { readonly activity: Activity } = {
  activity: 'working',
  stage: '',
  day: '',
  holds: () => false,
};

/** One of the circumstances that rules tell apart. */
export interface KnownCircumstance extends Circumstance {
  readonly activity: Activity;
  /** The names of the rules of which an exception holds there. */
  readonly exceptional: readonly string[];
}

/** More circumstances than this are not told apart one by one. */
const MOST = 4_096;

const holdsIn = ({ activities, stages, when }: RuleException, at: Circumstance): boolean =>
  (!activities || (at.activity !== 'asking' && activities.includes(at.activity))) &&
  (!stages || stages.includes(at.stage)) &&
  (!when || at.holds(when));

/** What a rule says in some circumstance; null: nothing. */
export function levelIn(rule: AccessRule, at: Circumstance): AccessLevel | null {
  const { from, until, exceptions, level } = rule;
  if (at.activity === 'asking' && !rule.asking) return null;
  if ((from && at.day < from) || (until && at.day > until)) return null;
  const said = exceptions?.find((each) => holdsIn(each, at))?.level ?? level;
  return said === 'none' ? null : said;
}

/** Whether a rule says something else by circumstance. */
export const hangs = ({ exceptions, from, until }: AccessRule): boolean =>
  (exceptions?.length ?? 0) > 0 || from !== undefined || until !== undefined;

/**
 * The circumstances that rules tell apart, each once: every way in which what they say can come together. Null when
 * there are more than 4,096 to look at. `activities`: those that are looked at; `fixed`: the stage and the day, where
 * one alone is meant.
 */
export function circumstancesOf(
  rules: readonly AccessRule[],
  activities: readonly Activity[] = ACTIVITIES,
  fixed: Partial<Pick<RequestMoment, 'stage' | 'day'>> = {},
): readonly KnownCircumstance[] | null {
  const exceptions = rules.flatMap((rule) => rule.exceptions ?? []);
  const named = new Set(exceptions.flatMap((each) => each.activities ?? []));
  const other = activities.find((each) => !named.has(each));
  const doing = [...(other ? [other] : []), ...activities.filter((each) => named.has(each))];
  // Another stage than those that are named has no key.
  const stages =
    fixed.stage === undefined ? ['', ...new Set(exceptions.flatMap((each) => each.stages ?? []))] : [fixed.stage];
  const conditions = [...new Set(exceptions.flatMap(({ when }) => (when ? [when] : [])))];
  // A day stands for all until the next on which something begins or ends; a sign after a day is after it.
  const turns = rules.flatMap(({ from, until }) => [...(from ? [from] : []), ...(until ? [`${until}~`] : [])]);
  const days = fixed.day === undefined ? [...new Set(['', ...turns])] : [fixed.day];
  if (conditions.length > 12 || doing.length * stages.length * days.length * 2 ** conditions.length > MOST) return null;
  const found = new Map<string, KnownCircumstance>();
  for (const day of days)
    for (let bits = 0; bits < 2 ** conditions.length; bits += 1)
      for (const stage of stages)
        for (const activity of doing) {
          const at = {
            ...{ activity, stage, day },
            holds: (condition: string) => ((bits >> conditions.indexOf(condition)) & 1) === 1,
          };
          const said = rules.map((rule) => levelIn(rule, at) ?? '-').join(' ');
          if (!found.has(said)) found.set(said, { ...at, exceptional: exceptionalIn(rules, at) });
        }
  return [...found.values()];
}

const exceptionalIn = (rules: readonly AccessRule[], at: Circumstance): readonly string[] =>
  rules.flatMap((rule) => (levelIn(rule, at) === rule.level ? [] : [rule.name]));
