import { translated } from '@tolvek/core/design';
import { type FormDesign, freshKey } from '@tolvek/core/form';
import {
  type Departure,
  type NoticePlan,
  type NoticeRule,
  type NoticeText,
  type NoticeWay,
  type Occasion,
  piecesOf,
  pieceText,
  ringsOf,
  USUAL_NOTICES,
  type UsualKind,
  type UsualNotice,
} from '@tolvek/core/telling';
import type { Language } from '@tolvek/words';
import { movedBy } from '../edits.ts';

export const noticesOf = ({ notices = USUAL_NOTICES }: FormDesign): NoticePlan => notices;

const withPlan = (design: FormDesign, edit: (plan: NoticePlan) => NoticePlan): FormDesign => ({
  ...design,
  notices: edit(noticesOf(design)),
});

/** The key of the next notice that is added. */
export const freshNotice = (design: FormDesign): string =>
  freshKey('notice', new Set(noticesOf(design).rules.map(({ key }) => key)));

/** What a notice is about at first; null where the form has nothing of that kind. */
export function firstOccasion(is: Occasion['is'], { deadline }: FormDesign): Occasion | null {
  switch (is) {
    case 'changed':
      return { is, fields: [] };
    case 'stage':
      return { is, stages: [] };
    case 'decided':
      return { is, as: 'either' };
    case 'message':
      return { is, from: 'requester' };
    case 'ring': {
      const [first] = ringsOf(deadline);
      return first ? { is, deadline: first.rule.key, ring: first.ring.key } : null;
    }
    case 'group':
      return { is, by: null, counts: 'fewer', than: 2 };
    default:
      return { is };
  }
}

/** Another notice after all others, told to whoever works on it. */
export function addNotice(
  design: FormDesign,
  is: Occasion['is'],
  { name, text }: { readonly name: string; readonly text: string },
): FormDesign {
  const on = firstOccasion(is, design);
  if (!on) return design;
  const rule: NoticeRule = {
    ...{ key: freshNotice(design), name, on, to: ['working'], subject: '', text, answers: false },
    goes: { goes: 'at-once' },
  };
  return withPlan(design, (plan) => ({ ...plan, rules: [...plan.rules, rule] }));
}

/** A notice with something else; conditions that say nothing are left out. */
export const editNotice = (
  design: FormDesign,
  key: string,
  edit: Partial<Omit<NoticeRule, 'key' | 'off'>>,
): FormDesign =>
  withPlan(design, (plan) => ({
    ...plan,
    rules: plan.rules.map((rule) => (rule.key === key ? settled({ ...rule, ...edit }) : rule)),
  }));

function settled({ when, urgent, ...rule }: NoticeRule): NoticeRule {
  return {
    ...rule,
    ...(when?.trim() ? { when } : {}),
    // What goes at once anyway goes no sooner.
    ...(urgent?.trim() && rule.goes.goes !== 'at-once' ? { urgent } : {}),
  };
}

export const noticeIsOff = (design: FormDesign, key: string, isOff: boolean): FormDesign =>
  withPlan(design, (plan) => ({
    ...plan,
    rules: plan.rules.map(({ off: was, ...rule }) =>
      rule.key === key ? (isOff ? { ...rule, off: true } : rule) : was ? { ...rule, off: was } : rule,
    ),
  }));

export const removeNotice = (design: FormDesign, key: string): FormDesign =>
  withPlan(design, (plan) => ({ ...plan, rules: plan.rules.filter((rule) => rule.key !== key) }));

export const moveNotice = (design: FormDesign, key: string, way: -1 | 1): FormDesign =>
  withPlan(design, (plan) => ({ ...plan, rules: movedBy(plan.rules, (rule) => rule.key === key, way) }));

/** When it goes at first, in one of the ways. */
export const firstDeparture = (goes: Departure['goes']): Departure =>
  goes === 'gathered'
    ? { goes, minutes: 15 }
    : goes === 'digest'
      ? { goes, at: '08:00', days: [1, 2, 3, 4, 5] }
      : { goes };

/** One of the usual notices with something else; as usual where nothing is left that differs. */
export function editUsual(
  design: FormDesign,
  kind: UsualKind,
  edit: Partial<NoticeText> & { readonly isOff?: boolean; readonly ways?: readonly NoticeWay[] },
): FormDesign {
  const { isOff, ways: by, ...text } = edit;
  return withPlan(design, (plan) => {
    const was = plan.usual.find((each) => each.kind === kind) ?? { kind, subject: '', text: '' };
    const { off: isOffNow = isOff, ways: byNow, ...rest } = { ...was, ...text };
    const ways = by ?? byNow ?? ['email'];
    const isByEmail = ways.length === 1 && ways[0] === 'email';
    const off = isOff ?? isOffNow;
    const is: UsualNotice = { ...rest, ...(off ? { off: true } : {}), ...(isByEmail ? {} : { ways }) };
    const isUsual = !is.off && isByEmail && is.subject.trim() === '' && is.text.trim() === '' && !is.translations;
    const others = plan.usual.filter((each) => each.kind !== kind);
    return { ...plan, usual: isUsual ? others : [...others, is] };
  });
}

/** One of the usual notices as it is without anything of this form. */
export const asUsual = (design: FormDesign, kind: UsualKind): FormDesign =>
  withPlan(design, (plan) => ({ ...plan, usual: plan.usual.filter((each) => each.kind !== kind) }));

/** A text with words for where something it names is empty; none where these are empty themselves. */
export const withOtherwise = (text: string, name: string, otherwise: string): string =>
  piecesOf(text)
    .map((piece) =>
      pieceText(
        typeof piece === 'object' && piece.name === name
          ? { name, otherwise: otherwise === '' ? null : otherwise.replace(/[{}|]/g, '') }
          : piece,
      ),
    )
    .join('');

/** The words that stand for something where it is empty; empty where there are none. */
export function otherwiseIn(text: string, name: string): string {
  for (const piece of piecesOf(text))
    if (typeof piece === 'object' && piece.name === name && piece.otherwise !== null) return piece.otherwise;
  return '';
}

/** What a notice says in a language: as it was translated, whatever has become of what it was translated from. */
export const saidIn = ({ translations }: NoticeText, language: Language, place: 'subject' | 'text'): string =>
  translations?.[language]?.[place]?.says ?? '';

/** Its translations with one text said in a language; none where nothing is said in any. */
export function translatedIn(
  notice: NoticeText,
  language: Language,
  place: 'subject' | 'text',
  says: string,
): NoticeText['translations'] {
  const next = translated(notice.translations, language, { place, text: notice[place] }, says);
  const said = Object.entries(next).filter(([, places]) => Object.keys(places ?? {}).length > 0);
  return said.length === 0 ? undefined : Object.fromEntries(said);
}
