import { type Said, said, type Words } from '@tolvek/words';
import type { AccessPlan, PlanRules } from '../access/index.ts';
import {
  compareContents,
  type DesignFinding,
  type DesignKind,
  type Merged,
  type MergeRules,
  mergeContents,
} from '../design/index.ts';
import { entriesIn } from '../expression/index.ts';
import { designsNamed, type Field, moveFindings, namedIn, type Stage } from '../register/index.ts';
import type { FormDesign, OwnPart, UniqueRule } from './design.ts';

/**
 * What a register is as a design: what all its requests share, whichever form they came by. The
 * forms that ask into it are a part of the house around it.
 */
export interface RegisterContent {
  readonly name: string;
  /** Before the number: `AC` in `AC-00042`. */
  readonly prefix: string;
  /** Requests go through a desk; things are in use from the start, and nothing about them is due. */
  readonly holds: 'requests' | 'things';
  readonly fields: readonly Field[];
  /** Keys of fields that left: kept with the requests that have them, gone from new ones. */
  readonly left: readonly string[];
  readonly stages: readonly Stage[];
  readonly access: AccessPlan;
  /** The groups that work at its desk besides the teams requests are routed to. */
  readonly deskGroups: readonly string[];
  /** Its requests are read here and never taken out of the house. */
  readonly staysIn: boolean;
  /** What a request is called in lists, with fields in braces: `{visitor}, {institute}`. */
  readonly subject: string;
  readonly unique: readonly UniqueRule[];
  /** How requests are routed, decided and due where their form says nothing of its own. */
  readonly usual: Pick<FormDesign, OwnPart>;
}

/** What is settled of a register itself, in a draft of its own; forms bring the rest with their releases. */
export type RegisterSettings = Pick<RegisterContent, 'name' | 'prefix' | 'deskGroups' | 'staysIn' | 'stages'>;

export const settingsOf = ({ name, prefix, deskGroups, staysIn, stages }: RegisterSettings): RegisterSettings => ({
  ...{ name, prefix, deskGroups, staysIn, stages },
});

const PLACES: Readonly<Record<string, Said>> = {
  name: said('designs:theName'),
  prefix: said('designs:thePrefix'),
  holds: said('designs:theHolding'),
  fields: said('designs:theFields'),
  left: said('designs:theLeftFields'),
  stages: said('designs:theStages'),
  access: said('designs:theAccess'),
  deskGroups: said('designs:theDesk'),
  staysIn: said('designs:theStaying'),
  subject: said('designs:theSubject'),
  unique: said('designs:theUnique'),
};

const USUAL: Readonly<Record<string, Said>> = {
  routing: said('designs:usualRouting'),
  approval: said('designs:usualApproval'),
  deadline: said('designs:usualDeadline'),
  notices: said('designs:usualNotices'),
};

const rulesOf = (...states: readonly (Partial<RegisterContent> | null)[]): MergeRules => {
  const named = (list: string, key: string): Words => {
    for (const state of states) {
      if (list === 'fields') {
        const field = state?.fields?.find((each) => each.key === key);
        if (field) return said('designs:theField', { name: field.label });
      } else if (list === 'stages') {
        const stage = state?.stages?.find((each) => each.key === key);
        if (stage) return said('designs:theStage', { name: stage.label });
      } else {
        const { rules = [], resting = [] } = state?.access ?? {};
        const rule = [...rules, ...resting].find((each) => each.id === key);
        if (rule) return said('designs:theRule', { name: rule.name });
      }
    }
    return key;
  };
  return {
    lists: {
      fields: (item) => String(item.key),
      stages: (item) => String(item.key),
      moves: (item) => String(item.to),
      rules: (item) => String(item.id ?? item.key),
      resting: (item) => String(item.id),
      disclosures: (item) => String(item.id),
      exceptions: (item) => String(item.id),
      unique: (item) => String(item.id),
      rows: (item) => String(item.id),
      columns: (item) => String(item.id ?? item.key),
      options: (item) => String(item.key),
      deadlines: (item) => String(item.key),
      rings: (item) => String(item.key),
    },
    nameOf: ([place = '', key, deeper]) => {
      if ((place === 'fields' || place === 'stages') && key !== undefined) return named(place, key);
      if (place === 'access' && (key === 'rules' || key === 'resting' || key === 'readers') && deeper !== undefined)
        return named(key, deeper);
      if (place === 'usual') return USUAL[key ?? ''] ?? said('designs:theUsual');
      return PLACES[place] ?? said('designs:theRegister');
    },
  };
};

/** Stages that every register needs, one to arrive in or to be in use at and those of a decision; and sound moves. */
function stageFindings(register: RegisterContent): readonly DesignFinding[] {
  const stages = register.stages.filter((stage) => !stage.retired);
  const wrong = (message: Words, at = 'stages'): DesignFinding => ({
    ...{ severity: 'error', page: 'stages', at, message },
  });
  const has = (role: string): boolean => stages.some((stage) => stage.role === role);
  const arrives =
    stages.some((stage) => stage.phase === 'arrived' && !stage.role) || (register.holds === 'things' && has('done'));
  return [
    ...(arrives ? [] : [wrong(said('designs:noArrivingStage'))]),
    ...(has('deciding') ? [] : [wrong(said('designs:noDecidingStage'))]),
    ...(has('refused') ? [] : [wrong(said('designs:noRefusedStage'))]),
    ...moveFindings(register).map(({ at, message }) => wrong(message, `stage ${at}`)),
  ];
}

/** Registers as designs. */
export const REGISTER: DesignKind<RegisterContent> = {
  kind: 'register',
  titleOf: ({ name }) => name,
  compare: (before, after) => compareContents(before, after, rulesOf(after, before)),
  merge: (base, mine, theirs) => mergeContents(base, mine, theirs, rulesOf(base, theirs, mine)),
  findings: stageFindings,
  refersTo: ({ fields, deskGroups, access, stages }) => [
    ...designsNamed(fields),
    ...deskGroups.map((key) => ({ kind: 'group', key, at: said('designs:theDesk') })),
    ...[...access.rules, ...(access.resting ?? []), ...(access.readers ?? [])].flatMap(({ name, audience }) =>
      namedIn(audience).map((each) => ({ ...each, at: said('designs:theRule', { name }) })),
    ),
    ...stages.flatMap(({ label, moves = [] }) =>
      moves.flatMap(({ groups }) =>
        groups.map((key) => ({ kind: 'group', key, at: said('designs:theStage', { name: label }) })),
      ),
    ),
    ...stages.flatMap(({ label, moves = [] }) =>
      moves.flatMap(({ when }) =>
        ['requester', 'me'].flatMap((name) =>
          entriesIn(when, name).map((key) => ({ kind: 'profile', key, at: said('designs:theStage', { name: label }) })),
        ),
      ),
    ),
  ],
};

/** What two people settled of a register, put together. */
export const mergeSettings = (
  base: RegisterSettings,
  mine: RegisterSettings,
  theirs: RegisterSettings,
): Merged<RegisterSettings> => mergeContents(base, mine, theirs, rulesOf(base, theirs, mine));

/** What two people wrote of a register’s access plan, put together. */
export function mergePlans(base: PlanRules, mine: PlanRules, theirs: PlanRules): Merged<PlanRules> {
  const within = (access: PlanRules) => ({ access });
  const merged = mergeContents(
    within(base),
    within(mine),
    within(theirs),
    rulesOf(within(base), within(theirs), within(mine)),
  );
  return { ...merged, content: merged.content.access };
}
