import { type Said, said, type Words } from '@tolvek/words';
import { belongs, type Somebody } from '../people/index.ts';
import { columnNamed, type Field, fieldKeyOf, isFilled, type Kind, type PartyRelation } from '../register/index.ts';
import { type Circumstance, levelIn } from './circumstance.ts';
import {
  type AccessLevel,
  type BaseLevels,
  type Deciding,
  isAbout,
  isPlaced,
  outsideOf,
  RANK,
  USUAL_BASE,
} from './plan.ts';
import type { Protection } from './protection.ts';

/** How a viewer stands to one request. */
export interface Relation {
  readonly isRequester: boolean;
  /** Works on it: in the desk of its register, its team or its approvers. */
  readonly isDesk: boolean;
  /** Works on it without the right to change it. */
  readonly onlyReads?: boolean;
  /** From outside, and asked to handle or to decide this one request: reads what the plan leaves to such people. */
  readonly calledIn?: boolean;
  /** What else they are to it. */
  readonly as?: readonly PartyRelation[];
  /** May build the forms of its register. */
  readonly builds?: boolean;
}

/** Whether somebody works on a request, asked it, or is called in to it. */
export const hasToDoWith = ({ isDesk, isRequester, calledIn = false }: Relation): boolean =>
  isDesk || isRequester || calledIn;

export interface Access {
  readonly level: AccessLevel;
  /** The name of the rule that decided. */
  readonly rule: Words;
  /** Hidden so that it looks as if nothing were filled in. */
  readonly looksEmpty?: true;
}

/**
 * What a viewer may do with one field of one request, and the rule that says so. Out beats in
 * within a rule; among the rules that apply the strictest wins, unless some are overriding: then
 * the strictest of those. What a rule says can hang on the circumstance. With no rule: what the base of the plan says; as usual the desk writes,
 * the requester reads what was asked of them, and so does who is called in from outside. Nobody else sees anything. A rule never opens a request to somebody who has nothing to do
 * with it. Whoever may not read one of the fields that a field is made from may not read it either:
 * its value would tell. What is brought along from where it was closed since is read by nobody. A
 * computed or carried field is never written. What has no place in the plan yet is closed to all but whoever asks and, where
 * staff fill it in, whoever builds forms. A column of lines is told of by what is about the lines and about itself, and is
 * never further open than they are.
 */
export function accessTo(
  field: Field,
  protection: Protection,
  viewer: Somebody,
  relation: Relation,
  at: Circumstance,
): Access {
  const { plan, isClosedElsewhere } = protection;
  const sources = madeOf(field, protection);
  if ([field.key, fieldKeyOf(field.key), ...sources.map(({ key }) => key)].some(isClosedElsewhere))
    return CLOSED_ELSEWHERE;
  for (const source of sources) {
    const access = planned(source, plan, viewer, relation, at);
    if (access.level === 'hidden') return { ...access, rule: comesFrom(field, source, access.rule) };
  }
  const own = planned(field, plan, viewer, relation, at);
  if (own.level === 'write' && !relation.isDesk && KEPT_AS_SENT.has(field.type.kind))
    return { level: 'read', rule: said('access:keptAsSent') };
  if (own.level === 'write' && relation.onlyReads) return { level: 'read', rule: said('access:noRightToChange') };
  if (own.level !== 'write') return own;
  if (!isFilled(field)) return { level: 'read', rule: READ_ONLY[field.source] };
  return isComputedColumn(field, protection) ? { level: 'read', rule: READ_ONLY.computed } : own;
}

/** What a field is made from; a column, what it and its lines are. */
function madeOf({ key }: Field, { madeFrom }: Protection): readonly Field[] {
  const lines = fieldKeyOf(key);
  return lines === key ? madeFrom(key) : [...madeFrom(lines), ...madeFrom(key)];
}

function isComputedColumn({ key }: Field, { fields }: Protection): boolean {
  const lines = fieldKeyOf(key);
  if (lines === key) return false;
  return fields.some((each) => each.key === lines && columnNamed(each, key)?.formula !== undefined);
}

/** How a field comes from another, with the rule that protects the other. */
function comesFrom(field: Field, { label: source }: Field, rule: Words): Said {
  if (isFilled(field)) return said('access:madeFrom', { source, rule });
  return said(field.source === 'carried' ? 'access:broughtBy' : 'access:computedFrom', { source, rule });
}

/** Kinds that whoever asked chooses where they ask, and not afterwards: what is offered, and files. */
const KEPT_AS_SENT: ReadonlySet<Kind['kind']> = new Set([
  ...(['files', 'reference', 'references', 'person', 'people'] as const),
]);

const CLOSED_ELSEWHERE: Access = { level: 'hidden', rule: said('access:closedAtSource') };

const READ_ONLY = {
  computed: said('access:computedReadOnly'),
  given: said('access:numberStays'),
  carried: said('access:carriedReadOnly'),
} as const;

/** What the plan itself says of a field, whatever it is made from. */
export function planned(field: Field, plan: Deciding, viewer: Somebody, relation: Relation, at: Circumstance): Access {
  const access = byRules(field, plan, viewer, relation, at);
  const lines = fieldKeyOf(field.key);
  // A column is never further open than its lines.
  const own =
    lines === field.key ? access : stricter(access, byRules({ ...field, key: lines }, plan, viewer, relation, at));
  return isPlaced(plan, field) || at.activity === 'asking' ? own : stricter(own, unplacedAccess(field, relation));
}

/** The stricter of two, the first where they are alike; the other where there is no first yet. */
export const stricter = (one: Access | null, other: Access): Access =>
  one === null || RANK[other.level] < RANK[one.level] ? other : one;

/** What holds of a field that has no place in the plan, for whoever the rules do not keep out of all. */
function unplacedAccess({ source }: Field, { isDesk, isRequester, builds = false }: Relation): Access {
  const level = source === 'desk-only' ? (isDesk && builds ? 'write' : 'hidden') : isRequester ? 'read' : 'hidden';
  return { level, rule: said('access:notPlaced') };
}

function byRules(field: Field, plan: Deciding, viewer: Somebody, relation: Relation, at: Circumstance): Access {
  const base = at.activity === 'asking' ? ASKED : baseAccess(field, relation, plan.base);
  if (!hasToDoWith(relation)) return base;
  const applying = plan.rules.flatMap((rule) => {
    const level = isAbout(rule, field.key) && belongs(rule.audience, viewer, relation) ? levelIn(rule, at) : null;
    return level ? [{ rule, level }] : [];
  });
  const overriding = applying.filter(({ rule }) => rule.overriding);
  const counted = overriding.length > 0 ? overriding : applying;
  let decided: (typeof applying)[number] | undefined;
  for (const each of counted) if (!decided || RANK[each.level] < RANK[decided.level]) decided = each;
  if (!decided) return base;
  const { level, rule } = decided;
  return level === 'hidden' && rule.looksEmpty
    ? { level, rule: rule.name, looksEmpty: true }
    : { level, rule: rule.name };
}

/** Whoever asks fills in what they are asked. */
const ASKED: Access = { level: 'write', rule: said('access:whoeverAsks') };

function baseAccess(field: Field, relation: Relation, base: BaseLevels | undefined): Access {
  if (relation.isDesk && base) return { level: base.desk, rule: said('access:planBase') };
  if (relation.isDesk) return { level: 'write', rule: said('access:deskDefault') };
  const part = field.source === 'asked' ? 'answers' : field.source === 'desk-only' ? 'staffOnly' : 'made';
  if (relation.calledIn) return { level: outsideOf(base)[part], rule: said('access:calledIn') };
  if (!relation.isRequester) return { level: 'hidden', rule: said('access:onlyDeskAndRequester') };
  const level = (base ?? USUAL_BASE).requester[part];
  return { level, rule: level === USUAL_BASE.requester[part] ? REQUESTERS[field.source] : said('access:planBase') };
}

const REQUESTERS = {
  asked: said('access:requestersReadAnswers'),
  computed: said('access:requestersReadComputed'),
  given: said('access:requestersReadNumbers'),
  carried: said('access:requestersReadCarried'),
  'desk-only': said('access:staffOnlyHidden'),
} as const;
