import type { Audience } from '../people/index.ts';
import { type Field, fieldKeyOf, isFilled } from '../register/index.ts';

export type AccessLevel = 'hidden' | 'read' | 'write';

/** How far each level opens a field. */
export const RANK: Readonly<Record<AccessLevel, number>> = { hidden: 0, read: 1, write: 2 };

/** What is done with a request when a rule is asked: worked on, listed, looked for, taken out, written to somebody. */
export const ACTIVITIES = ['working', 'browsing', 'searching', 'taking-out', 'letters'] as const;
export type Activity = (typeof ACTIVITIES)[number];
/** The same, and while it is asked for: before there is one. */
export type Doing = Activity | 'asking';

/** Where a rule says something else: when all that it names holds. One that names nothing always does. */
export interface RuleException {
  readonly id: string;
  /** What the rule says there; `none`: nothing. */
  readonly level: AccessLevel | 'none';
  /** Any of these. */
  readonly activities?: readonly Activity[];
  /** At any of these stages, by key. */
  readonly stages?: readonly string[];
  /** What has to hold of the request: FEEL over it. */
  readonly when?: string;
}

/** One rule of the access plan: for these people, these fields are hidden, readable or writable. */
export interface AccessRule {
  readonly id: string;
  readonly name: string;
  /** What it is for, in a sentence; none where its name says it. */
  readonly about?: string;
  /** By key; a column of lines as `items.price`. What is about lines is about all of their columns. */
  readonly fields: 'all' | readonly string[];
  readonly audience: Audience;
  readonly level: AccessLevel;
  /** An overriding rule sets aside the others that apply. */
  readonly overriding?: boolean;
  /** In order: the first that holds decides what the rule says. */
  readonly exceptions?: readonly RuleException[];
  /** The first and the last day on which it holds, `YYYY-MM-DD` at the desk. */
  readonly from?: string;
  readonly until?: string;
  /** What it hides looks as if nothing were filled in. */
  readonly looksEmpty?: true;
  /** It also holds while somebody asks: what it hides is not asked of them, what it lets them read they find filled in. */
  readonly asking?: true;
}

/** What holds of fields where no rule says otherwise. */
export interface BaseLevels {
  /** For whoever works on a request. */
  readonly desk: AccessLevel;
  /** For whoever asked: their answers, what is made of them, and what staff fill in. They change nothing. */
  readonly requester: {
    readonly answers: 'hidden' | 'read';
    readonly made: 'hidden' | 'read';
    readonly staffOnly: 'hidden' | 'read';
  };
  /** For people from outside who handle or decide one request; as usual where it is not said. */
  readonly outside?: OutsideLevels;
}

/** What people from outside may do with a request that they are called in to. Who only decides changes nothing. */
export interface OutsideLevels {
  readonly answers: AccessLevel;
  readonly made: 'hidden' | 'read';
  readonly staffOnly: AccessLevel;
}

/** Where a plan says nothing of them: they read what was asked, and nothing that is the staff’s. */
export const USUAL_OUTSIDE: OutsideLevels = { answers: 'read', made: 'read', staffOnly: 'hidden' };

export const outsideOf = (base: BaseLevels | undefined): OutsideLevels => base?.outside ?? USUAL_OUTSIDE;

/** Where a plan says nothing of it: the desk writes, and whoever asked reads what is theirs. */
export const USUAL_BASE: BaseLevels = {
  desk: 'write',
  requester: { answers: 'read', made: 'read', staffOnly: 'hidden' },
};

/**
 * One way that a value takes, allowed on purpose by somebody who may read it: from a field to a
 * place where something is made of it.
 */
export interface Disclosure {
  readonly id: string;
  /** The id of the form. */
  readonly form: string;
  /** The sink’s lasting name in that form, and the expressions that were allowed. */
  readonly sink: string;
  readonly text: string;
  /** The key of the field that is told of. */
  readonly source: string;
  readonly what: 'verdict' | 'value';
  readonly reason: string;
  /** Who allowed it, by id, and when, epoch ms. */
  readonly by: string;
  readonly at: number;
}

/**
 * Who reads whole requests by what stands in them, besides those who work on them: they read what the rules leave open, and
 * change nothing.
 */
export interface RequestReader {
  readonly id: string;
  readonly name: string;
  /** Groups, people, and conditions on profiles: what somebody is to a request does not count. */
  readonly audience: Audience;
  /** What has to hold of a request: FEEL over its fields and where it stands. */
  readonly when: string;
}

/** A register’s access plan. It is always the one in force, whatever release a request came by. */
export interface AccessPlan {
  readonly rules: readonly AccessRule[];
  /** What holds where no rule says otherwise; as usual where it is not said. */
  readonly base?: BaseLevels;
  /** Rules that are switched off: they decide nothing, and are kept for later. */
  readonly resting?: readonly AccessRule[];
  readonly disclosures?: readonly Disclosure[];
  /** Keys of the fields whose reading by staff is noted. */
  readonly noted?: readonly string[];
  /** Keys of the fields that have their place in the plan; all have where it is not said. */
  readonly placed?: readonly string[];
  /** Who reads whole requests by a condition. */
  readonly readers?: readonly RequestReader[];
}

/** What is written of a plan: its rules, in force and switched off, whose reading is noted, and what holds besides. */
export interface PlanRules {
  readonly rules: readonly AccessRule[];
  readonly resting: readonly AccessRule[];
  /** Keys of the fields whose reading is noted; none where it is not said. */
  readonly noted?: readonly string[];
  readonly base?: BaseLevels;
  /** Keys of the fields that have their place; as in the plan in force where it is not said. */
  readonly placed?: readonly string[];
  readonly readers?: readonly RequestReader[];
}

/** Whether a rule is about a field, or a column of one, by its key. */
export const isAbout = ({ fields }: AccessRule, key: string): boolean =>
  fields === 'all' || fields.includes(key) || (key.includes('.') && fields.includes(fieldKeyOf(key)));

/** The rules that are about any of some fields. */
export const rulesAbout = (rules: readonly AccessRule[], keys: readonly string[]): readonly AccessRule[] =>
  rules.filter((rule) => keys.some((key) => isAbout(rule, key)));

/** What decides about a field. */
export type Deciding = Pick<AccessPlan, 'rules' | 'base' | 'placed'>;

/** Of a plan only the rules that are about some fields. */
export const concernedWith = <Plan extends Deciding>(plan: Plan, keys: readonly string[]): Plan => ({
  ...plan,
  rules: rulesAbout(plan.rules, keys),
});

/**
 * Whether a field has its place in a plan. What is asked or filled in and has none is closed until somebody gives it one;
 * what is made of other fields is protected as they are.
 */
export const isPlaced = ({ placed }: Pick<AccessPlan, 'placed'>, field: Field): boolean =>
  placed === undefined || !isFilled(field) || placed.includes(fieldKeyOf(field.key));

/** Whether a plan leaves some fields to whoever builds forms until they have their place. */
export const leavesToBuilders = (plan: Pick<AccessPlan, 'placed'>, fields: readonly Field[]): boolean =>
  fields.some((field) => field.source === 'desk-only' && !isPlaced(plan, field));

/** A plan in which the fields that its rules name have their place. */
export function placedByName<Plan extends Deciding>(plan: Plan): Plan {
  const { placed } = plan;
  if (placed === undefined) return plan;
  const named = new Set(plan.rules.flatMap(({ fields }) => (fields === 'all' ? [] : fields.map(fieldKeyOf))));
  const more = [...named].filter((key) => !placed.includes(key));
  return more.length > 0 ? { ...plan, placed: [...placed, ...more] } : plan;
}

export const rulesOf = ({ rules, resting = [], noted = [], base, placed, readers = [] }: AccessPlan): PlanRules => ({
  ...{ rules, resting },
  ...(noted.length > 0 ? { noted } : {}),
  ...(base ? { base } : {}),
  ...(placed ? { placed } : {}),
  ...(readers.length > 0 ? { readers } : {}),
});

/**
 * Rules as they protect where other stages are: an exception that only held at stages that are not there is gone, and
 * where it was stricter than its rule, the rule is that strict everywhere.
 */
export const rulesAmong = (rules: readonly AccessRule[], stages: readonly string[]): readonly AccessRule[] =>
  rules.map((rule) => {
    const { exceptions, ...rest } = rule;
    if (!exceptions) return rule;
    let { level } = rule;
    const kept = exceptions.flatMap((exception): readonly RuleException[] => {
      if (!exception.stages) return [exception];
      const there = exception.stages.filter((stage) => stages.includes(stage));
      if (there.length > 0) return [{ ...exception, stages: there }];
      if (exception.level !== 'none' && RANK[exception.level] < RANK[level]) level = exception.level;
      return [];
    });
    return kept.length > 0 ? { ...rest, level, exceptions: kept } : { ...rest, level };
  });
