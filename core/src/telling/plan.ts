import type { Language } from '@tolvek/words';
import type { DeadlinePlan, Hearer } from '../deadline/index.ts';
import { sayIn, type Translations } from '../design/index.ts';
import { conditionOf } from '../expression/index.ts';

/** What a form tells whom besides what is usual, and what of that it tells otherwise or not. */
export interface NoticePlan {
  /** What differs from how it usually is; one for each kind at most. */
  readonly usual: readonly UsualNotice[];
  /** In the order in which they are shown; each goes by itself. */
  readonly rules: readonly NoticeRule[];
}

/** The plan of a form that says nothing: everything is as usual. */
export const USUAL_NOTICES: NoticePlan = { usual: [], rules: [] };

/** So many a form can have. */
export const MOST_NOTICES = 60;

/** The emails about a request that every form has from the start, in the order of its life. */
export const USUAL_KINDS = [
  ...(['received', 'new-request', 'assigned', 'approval-asked', 'returned', 'approved', 'refused'] as const),
  ...(['message', 'stage', 'proposed', 'proposal', 'news', 'reminder', 'due', 'escalation'] as const),
  ...(['undecided', 'nobody-decides', 'nobody-handles'] as const),
] as const;
export type UsualKind = (typeof USUAL_KINDS)[number];

/** What somebody has to do or would wait for in vain without: it can be worded anew, and always goes. */
const ALWAYS: ReadonlySet<string> = new Set<UsualKind>([
  ...(['approval-asked', 'returned', 'message', 'proposed', 'undecided', 'nobody-decides', 'nobody-handles'] as const),
]);
export const mayBeOff = (kind: string): boolean => !ALWAYS.has(kind);

/** What an email says. Empty: in the words that are usual for it. Fields and facts stand in braces (`merge.ts`). */
export interface NoticeText {
  readonly subject: string;
  /** Paragraphs with an empty line between them. */
  readonly text: string;
  /** Both in other languages, by the places `subject` and `text`. */
  readonly translations?: Translations | undefined;
}

/** One of the usual emails, as a form has it. */
export interface UsualNotice extends NoticeText {
  readonly kind: UsualKind;
  /** It is not sent. */
  readonly off?: true | undefined;
  /** How it reaches people, as with others. What always goes is sent as an email in any case. */
  readonly ways?: readonly NoticeWay[] | undefined;
}

/** One email that a form sends besides. */
export interface NoticeRule extends NoticeText {
  /** Lasting name: what waits to go is found by this. */
  readonly key: string;
  /** What it is called where people work, and in its subject where that says nothing. */
  readonly name: string;
  readonly off?: true | undefined;
  readonly on: Occasion;
  /** FEEL over the fields, `requester`, `door`, `today` and `now`: only where it holds. */
  readonly when?: string | undefined;
  readonly to: readonly Recipient[];
  /** Whether it shows the answers as well, as far as each reader may read them. */
  readonly answers: boolean;
  readonly goes: Departure;
  /** How it reaches people: by email where nothing is said. Where none is named it stands under the bell alone. */
  readonly ways?: readonly NoticeWay[] | undefined;
  /** FEEL as well: where it holds it goes at once, whatever `goes` says. */
  readonly urgent?: string | undefined;
}

/**
 * What it is about. Fields and stages: one of those, any where none is named. `becomes`: the condition holds, and did not
 * before, by a change or by the day alone. `group`: so many of the requests of the register for which the condition holds are
 * in one group as were not before. `ring`: a moment around a deadline, by the keys of both. `hand`: somebody who
 * works on the request sends it.
 */
export type Occasion =
  | { readonly is: 'arrived' | 'team' | 'handler' | 'priority' | 'becomes' | 'hand' }
  | { readonly is: 'changed'; readonly fields: readonly string[] }
  | { readonly is: 'stage'; readonly stages: readonly string[] }
  | { readonly is: 'decided'; readonly as: 'approved' | 'refused' | 'either' }
  | { readonly is: 'message'; readonly from: 'requester' | 'desk' | 'either' }
  | { readonly is: 'ring'; readonly deadline: string; readonly ring: string }
  | {
      readonly is: 'group';
      /** The field whose values part requests into groups, by key; null: all of the register together. */
      readonly by: string | null;
      readonly counts: 'fewer' | 'more';
      readonly than: number;
    };
export const OCCASIONS = [
  ...(['arrived', 'changed', 'stage', 'team', 'handler', 'priority', 'decided', 'message', 'ring'] as const),
  ...(['becomes', 'group', 'hand'] as const),
] as const satisfies readonly Occasion['is'][];

/** Who gets it: as deadlines tell people, those who follow the request, and other programs, by key. */
export type Recipient = Hearer | 'followers' | { readonly program: string };

/** How a notice reaches people, besides the bell, under which everything stands that somebody was told. */
export const NOTICE_WAYS = ['email', 'text'] as const;
export type NoticeWay = (typeof NOTICE_WAYS)[number];

/** The ways of a notice. */
export const waysOf = ({ ways }: Pick<NoticeRule, 'ways'>): readonly NoticeWay[] => ways ?? ['email'];

/** The ways of one of the usual emails, as a form has it. */
export function waysOfUsual(plan: NoticePlan, kind: string): readonly NoticeWay[] {
  const ways = waysOf(usualIn(plan, kind) ?? {});
  return mayBeOff(kind) || ways.includes('email') ? ways : ['email', ...ways];
}

/**
 * When it goes. `gathered`: with others to the same reader, so many minutes after the first of them. `digest`: with others
 * at a time of the desk’s clock, on days of the week from 1 (Monday, ISO 8601) to 7.
 */
export type Departure =
  | { readonly goes: 'at-once' }
  | { readonly goes: 'gathered'; readonly minutes: number }
  | { readonly goes: 'digest' /** `HH:MM`. */; readonly at: string; readonly days: readonly number[] };

/** The kinds of fields whose values part requests into groups. */
export const GROUPING_KINDS = [
  ...([
    'choice',
    'choices',
    'level',
    'term',
    'terms',
    'person',
    'people',
    'reference',
    'references',
    'yes-no',
  ] as const),
] as const;

/** What a form says of one of the usual emails; undefined where it has it as usual. */
export const usualIn = ({ usual }: NoticePlan, kind: string): UsualNotice | undefined =>
  usual.find((each) => each.kind === kind);

export const noticeIn = ({ rules }: NoticePlan, key: string): NoticeRule | undefined =>
  rules.find((each) => each.key === key);

/** What an email says, in a language where it is translated. */
export function textIn({ subject, text, translations }: NoticeText, language: Language): NoticeText {
  const say = sayIn(translations, language);
  return { subject: say('subject', subject, 'words'), text: say('text', text, 'words') };
}

/** Whether the days alone can make its condition true. */
export const turnsWithDays = ({ on, when = '', off }: NoticeRule): boolean =>
  !off && (on.is === 'becomes' || on.is === 'group') && /\b(today|now)\b/.test(when);

/** All texts in FEEL of one. */
export const formulasOfNotice = (rule: NoticeRule): readonly string[] => [
  ...[conditionOf(rule) ?? []].flat(),
  ...(rule.urgent?.trim() ? [rule.urgent] : []),
];

/** A plan whose texts in FEEL are changed. */
export const withNoticeFormulas = (plan: NoticePlan, change: (text: string) => string): NoticePlan => ({
  ...plan,
  rules: plan.rules.map((rule) => ({
    ...rule,
    ...(rule.when === undefined ? {} : { when: change(rule.when) }),
    ...(rule.urgent === undefined ? {} : { urgent: change(rule.urgent) }),
  })),
});

/** The programs that rules tell, by key. */
export const programsOf = ({ rules }: Pick<NoticePlan, 'rules'>): readonly string[] =>
  rules.flatMap(({ to }) =>
    to.flatMap((each) => (typeof each === 'object' && 'program' in each ? [each.program] : [])),
  );

/** The rosters of whose people on duty rules tell, by key. */
export const rostersOfNotices = ({ rules }: Pick<NoticePlan, 'rules'>): readonly string[] =>
  rules.flatMap(({ to }) => to.flatMap((each) => (typeof each === 'object' && 'duty' in each ? [each.duty] : [])));

/** The keys of the groups that get something. */
export const groupsOfNotices = ({ rules }: NoticePlan): readonly string[] =>
  rules.flatMap(({ to }) => to.flatMap((each) => (typeof each === 'object' && 'group' in each ? [each.group] : [])));

/** A plan with other groups in the place of its own. */
export const noticesIn = (plan: NoticePlan, group: (key: string) => string): NoticePlan => ({
  ...plan,
  rules: plan.rules.map((rule) => ({
    ...rule,
    to: rule.to.map((each) => (typeof each === 'object' && 'group' in each ? { group: group(each.group) } : each)),
  })),
});

/** The fields that its people are found in, and that have to change for it. */
export const fieldsNamedBy = ({ on, to }: Pick<NoticeRule, 'on' | 'to'>): readonly string[] => [
  ...(on.is === 'changed' ? on.fields : []),
  ...(on.is === 'group' && on.by !== null ? [on.by] : []),
  ...to.flatMap((each) => (typeof each === 'object' && 'field' in each ? [each.field] : [])),
];

/** The rings of a plan of deadlines that an email can be about. */
export const ringsOf = ({ deadlines }: DeadlinePlan) =>
  deadlines.flatMap((rule) => rule.rings.map((ring) => ({ rule, ring })));
