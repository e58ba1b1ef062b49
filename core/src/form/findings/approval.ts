import { said, type Words } from '@tolvek/words';
import { type AccessPlan, ORDINARY, planned, type Relation } from '../../access/index.ts';
import {
  type ApprovalStep,
  allSteps,
  isHolder,
  pathName,
  type SeatPlan,
  seatingOf,
  seatsPlanned,
  seatWord,
} from '../../approval/index.ts';
import { LONGEST_LENGTH } from '../../deadline/index.ts';
import { conditionFindings, conditionOf, type Scope } from '../../expression/index.ts';
import { own } from '../../own/index.ts';
import type { ProfileField } from '../../register/index.ts';
import { allRows, allThatMayBe } from '../../routing/index.ts';
import type { FormDesign } from '../design.ts';
import { pathsBegun } from '../namedActions.ts';
import type { Add } from './finding.ts';
import type { RostersAround } from './handlers.ts';

interface Around {
  readonly scope: Scope;
  readonly groups: ReadonlyMap<string, Words>;
  readonly strangers: readonly string[];
  readonly members: Readonly<Record<string, readonly string[]>> | undefined;
  readonly profile: readonly ProfileField[];
  readonly rosters: RostersAround | undefined;
  readonly outsiders: readonly Outsider[];
  readonly plan: AccessPlan;
}

/** Somebody from outside who is asked to decide. */
export interface Outsider {
  readonly key: string;
  readonly label: string;
  readonly groups: readonly string[];
}

/** As what somebody from outside reads a request that they are asked to decide. */
const ASKED: Relation = { isDesk: false, isRequester: false, calledIn: true, onlyReads: true, as: ['decider'] };

/** Whether the plan in force leaves nothing of a form to somebody from outside who is asked to decide. */
function readsNothing(
  { key: personId, groups }: Outsider,
  { fields }: Pick<FormDesign, 'fields'>,
  plan: AccessPlan,
): boolean {
  const who = { personId, groups, kind: 'contact' as const };
  return fields.every((field) => planned(field, plan, who, ASKED, ORDINARY).level === 'hidden');
}

/** What is wrong or doubtful in how a form is decided: no path may end in nobody. */
export function approvalFindings(design: FormDesign, around: Around, add: Add): void {
  const { approval, routing } = design;
  const chosen = allThatMayBe(routing, 'path', () => around.scope);
  const begun = pathsBegun(design);
  const there = new Set(approval.paths.map(({ id }) => id));
  for (const { id, outcome, leaves } of allRows(routing))
    if (outcome.path !== null && !there.has(outcome.path) && !leaves.includes('path'))
      add('error', 'routing', id, said('findings:rowLostPath'));
  for (const path of approval.paths) {
    if (path.steps.every((step) => conditionOf(step) !== null))
      add(
        ...(['caution', 'approval', 'step'] as const),
        approval.paths.length > 1
          ? said('findings:pathAllConditional', { path: pathName(path) })
          : said('findings:stepsAllConditional'),
      );
    const gone = (path.again ?? []).filter((key) => !design.fields.some((field) => field.key === key));
    if (gone.length > 0) add('error', 'approval', 'step', said('findings:againMissesField', { path: pathName(path) }));
    if (approval.paths.length > 1 && !chosen.has(path.id) && !begun.has(path.id))
      add('caution', 'approval', 'step', said('findings:pathUnused', { path: pathName(path) }));
  }
  for (const step of allSteps(approval)) stepFindings(step, design, around, add);
}

/** Rosters that are lost, or by which nobody is on duty some time soon. */
function stepRosters(
  step: string,
  asked: readonly SeatPlan[],
  rosters: RostersAround | undefined,
  { error, doubt }: Readonly<Record<'error' | 'doubt', (message: Words) => void>>,
): void {
  for (const seat of asked) {
    if (!('duty' in seat) || rosters === undefined) continue;
    const roster = own(rosters, seat.duty);
    if (!roster) error(said('findings:stepLostRoster', { step }));
    else if (roster.gap !== null) doubt(said('findings:stepRosterGap', { step, roster: roster.name, at: roster.gap }));
  }
}

function stepFindings(step: ApprovalStep, design: FormDesign, around: Around, add: Add): void {
  const { fields } = design;
  const { scope, groups, strangers, members, profile, rosters, outsiders, plan } = around;
  const { label, seats, needed, instead = [], limit } = step;
  const error = (message: Words): void => add('error', 'approval', 'step', message);
  const doubt = (message: Words): void => add('caution', 'approval', 'step', message);
  if (label.trim() === '') error(said('findings:stepUnnamed'));
  const when = conditionOf(step);
  for (const { message } of when === null ? [] : conditionFindings(when, scope))
    add('error', 'approval', 'step', said('findings:stepWrong', { step: label, message }), undefined, 'condition');
  const asked = seatsPlanned(step);
  if (asked.some((seat) => 'person' in seat && strangers.includes(seat.person)))
    error(said('findings:stepStranger', { step: label }));
  for (const each of outsiders)
    if (asked.some((seat) => 'person' in seat && seat.person === each.key) && readsNothing(each, design, plan))
      doubt(said('findings:stepReadsNothing', { step: label, name: each.label }));
  if (asked.some((seat) => 'group' in seat && !groups.has(seat.group)))
    error(said('findings:stepLostGroup', { step: label }));
  const isLost = (seat: SeatPlan): boolean =>
    'field' in seat
      ? !fields.some(({ key, type }) => key === seat.field && type.kind === 'person')
      : 'profile' in seat && !profile.some(({ key, type }) => key === seat.profile && type.kind === 'person');
  if (asked.some(isLost)) error(said('findings:stepLostField', { step: label }));
  stepRosters(label, asked, rosters, { error, doubt });
  if (needed > seats.length) error(said('findings:stepTooMany', { step: label }));
  if (limit) {
    if (limit.within > LONGEST_LENGTH) error(said('findings:limitTooLong', { step: label }));
    if (limit.remind !== undefined && limit.remind >= limit.within)
      error(said('findings:remindsTooEarly', { step: label }));
    if (limit.silence === 'pass' && instead.length === 0) error(said('findings:passesToNobody', { step: label }));
  }
  const hangsOnAnswer = seats.filter((seat) => !isHolder(seat)).length;
  if (instead.length === 0 && seats.length - hangsOnAnswer < needed)
    doubt(said('findings:stepMayLack', { step: label }));
  // Who is in the groups today: whom answers name is not known here, and counts as somebody else each time.
  if (!members || asked.some(isLost) || needed > seats.length) return;
  const seated = seatingOf(step, {
    named: (seat) => ('group' in seat || 'person' in seat ? seat : { person: seatWord(seat) }),
    able: (holder) => ('group' in holder ? (members[holder.group] ?? []) : [holder.person]),
    whose: [],
  });
  if (seated.some(({ holder }) => holder === null)) doubt(said('findings:stepTooFew', { step: label }));
}
