import { said, type Words } from '@tolvek/words';
import { conditionFindings, conditionOf, namesIn, type Scope } from '../../expression/index.ts';
import { own } from '../../own/index.ts';
import type { Field, Kind } from '../../register/index.ts';
import {
  fieldsNamedBy,
  formulasOfNotice,
  GROUPING_KINDS,
  type NoticeRule,
  type NoticeText,
  namedInText,
  ringsOf,
  SLOTS,
  USUAL_NOTICES,
  type UsualKind,
  waysOf,
  waysOfUsual,
} from '../../telling/index.ts';
import type { FormDesign } from '../design.ts';
import type { Add } from './finding.ts';
import type { RostersAround } from './handlers.ts';

const isOfPeople = ({ kind }: Kind): boolean => kind === 'person' || kind === 'people';

interface Around {
  readonly scope: Scope;
  readonly groups: ReadonlyMap<string, Words>;
  /** Ids of people who get something and are not here any more. */
  readonly strangers: readonly string[];
  /** The stages of the register; nothing is found in stages when not said. */
  readonly stages: readonly { readonly key: string }[] | undefined;
  /** Whether people from outside ask by the form. */
  readonly outside: boolean;
  readonly rosters: RostersAround | undefined;
  readonly programs: readonly string[] | undefined;
  readonly texts: boolean | undefined;
}

/** Where its reader waits for what was written: in words of its own an email has to say it as well. */
const SAYS_TEXT: ReadonlySet<string> = new Set<UsualKind>(['message', 'returned', 'refused']);
/** What a text can name besides fields. */
const SLOT: ReadonlySet<string> = new Set<string>(SLOTS);

/** The texts of a notice, as they are written and as they are translated. */
const textsOf = ({ subject, text, translations = {} }: NoticeText): readonly string[] => [
  ...[subject, text],
  ...Object.values(translations).flatMap((places) => Object.values(places ?? {}).map(({ says }) => says)),
];

/** The fields that the notices of a form read or put in. */
export const noticeFields = ({ notices = USUAL_NOTICES }: FormDesign): readonly string[] => [
  ...notices.rules.flatMap((rule) => [
    ...formulasOfNotice(rule).flatMap((text) => namesIn(text)),
    ...fieldsNamedBy(rule),
  ]),
  ...[...notices.usual, ...notices.rules].flatMap((each) => textsOf(each).flatMap(namedInText)),
];

/** What is wrong or doubtful in what a form tells whom. */
export function noticeFindings(design: FormDesign, around: Around, add: Add): void {
  const { usual, rules } = design.notices ?? USUAL_NOTICES;
  const slots = (at: string, name: Words, text: NoticeText): void => {
    for (const slot of new Set(textsOf(text).flatMap(namedInText)))
      if (!SLOT.has(slot) && !design.fields.some(({ key }) => key === slot))
        add('error', 'notices', at, said('notices:lostSlot', { name, slot }));
  };
  for (const notice of usual) {
    const { kind, off } = notice;
    const name = said(`notices:usual.${kind}`);
    slots(kind, name, notice);
    const ways = waysOfUsual({ usual, rules }, kind);
    if (around.texts === false && ways.includes('text'))
      add('error', 'notices', kind, said('notices:textsNowhere', { name }));
    if (kind === 'received' && (off || !ways.includes('email')) && around.outside)
      add('caution', 'notices', kind, said('notices:noLink', { name }));
    const own = textsOf({ ...notice, subject: '' }).filter((text) => text.trim() !== '');
    if (SAYS_TEXT.has(kind) && own.some((text) => !namedInText(text).includes('happened.text')))
      add(kind === 'refused' ? 'caution' : 'error', 'notices', kind, said('notices:needsText', { name }));
  }
  const names = rules.map(({ name }) => name.trim().toLowerCase());
  for (const [place, rule] of rules.entries()) {
    if (names[place] !== '' && names.indexOf(names[place] ?? '') !== place)
      add('caution', 'notices', rule.key, said('notices:sameName', { name: rule.name }));
    slots(rule.key, rule.name, rule);
    ruleFindings(rule, design, around, add);
  }
}

/** Whether the values of a field can part requests into groups. */
const parts = ({ kind }: Field['type']): boolean => GROUPING_KINDS.some((each) => each === kind);

function ruleFindings(
  rule: NoticeRule,
  { fields, deadline }: FormDesign,
  { scope, groups, strangers, stages, rosters, programs, texts }: Around,
  add: Add,
): void {
  const { key, name, on, to, goes, urgent = '' } = rule;
  const error = (message: Words, of?: 'condition'): void => add('error', 'notices', key, message, undefined, of);
  if (name.trim() === '') error(said('notices:noName'));
  if (rule.text.trim() === '') error(said('notices:noText', { name }));
  const when = conditionOf(rule);
  for (const { message } of when === null ? [] : conditionFindings(when, scope))
    error(said('notices:conditionWrong', { name, message }), 'condition');
  for (const { message } of urgent.trim() === '' ? [] : conditionFindings(urgent, scope))
    error(said('notices:urgentWrong', { name, message }));
  if (on.is === 'becomes' && when === null) error(said('notices:noCondition', { name }));
  if (to.length === 0) error(said('notices:toNobody', { name }));
  for (const each of to) {
    if (typeof each !== 'object') continue;
    if ('group' in each && !groups.has(each.group)) error(said('notices:lostGroup', { name }));
    if ('person' in each && strangers.includes(each.person)) error(said('notices:lostPerson', { name }));
    if ('duty' in each && rosters && !own(rosters, each.duty)) error(said('notices:lostRoster', { name }));
    if ('program' in each && programs && !programs.includes(each.program)) error(said('notices:lostProgram', { name }));
    if ('field' in each && !fields.some(({ key: field, type }) => field === each.field && isOfPeople(type)))
      error(said('notices:lostField', { name }));
  }
  if (on.is === 'changed' && on.fields.some((field) => !fields.some((each) => each.key === field)))
    error(said('notices:lostField', { name }));
  if (on.is === 'group' && on.by !== null && !fields.some(({ key: field, type }) => field === on.by && parts(type)))
    error(said('notices:lostField', { name }));
  if (on.is === 'stage' && stages && on.stages.some((stage) => !stages.some((each) => each.key === stage)))
    error(said('notices:lostStage', { name }));
  if (
    on.is === 'ring' &&
    !ringsOf(deadline).some(({ rule: of, ring }) => of.key === on.deadline && ring.key === on.ring)
  )
    error(said('notices:lostRing', { name }));
  if (texts === false && waysOf(rule).includes('text')) error(said('notices:textsNowhere', { name }));
  if (goes.goes === 'digest' && goes.days.length === 0) error(said('notices:noDay', { name }));
}
