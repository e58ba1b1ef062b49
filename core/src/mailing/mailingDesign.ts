import { type Said, said, type Words } from '@tolvek/words';
import {
  compareContents,
  type DesignFinding,
  type DesignKind,
  type MergeRules,
  mergeContents,
} from '../design/index.ts';
import type { DoorDesign } from '../door/index.ts';
import type { FormDesign } from '../form/index.ts';
import { type Field, namedIn, type Stage } from '../register/index.ts';
import { canSay } from './given.ts';
import { type MailingDesign, NAMED_RELATIONS } from './mailing.ts';

const PLACES: Readonly<Record<string, Said>> = {
  name: said('mailings:theName'),
  door: said('mailings:theDoor'),
  to: said('mailings:theRecipients'),
  about: said('mailings:theTopic'),
  when: said('mailings:theTime'),
  dueIn: said('mailings:theDue'),
  reminders: said('mailings:theReminders'),
  passesOn: said('mailings:thePassingOn'),
  text: said('mailings:theText'),
  going: said('mailings:isGoing'),
  counts: said('mailings:theCounting'),
  translations: said('mailings:theTranslations'),
};

const RULES: MergeRules = {
  lists: { reminders: (item) => `${String(item.days)} ${String(item.side)}` },
  nameOf: ([place = '']) => PLACES[place] ?? said('mailings:theMailing'),
};

/** What findings of a mailing depend on besides it. */
export interface AroundMailing {
  /** The form that it sends, as it is in force; null while it has never been. */
  readonly form: Pick<FormDesign, 'fields' | 'parts' | 'editions' | 'updates'> | null;
  /** The register that the form fills, by key. */
  readonly fills: string | null;
  /** The door it names; null where there is none of this form. */
  readonly door: DoorDesign | null;
  /** The register it is about, where there is one. */
  readonly register: {
    readonly fields: readonly Field[];
    readonly stages: readonly Stage[];
    /** What is wrong in its condition; null for nothing. */
    readonly unreadable: Words | null;
    /** The labels of the fields it asks that not everybody at the desk may read: who is asked would tell of them. */
    readonly hidden: readonly string[];
  } | null;
}

const error = (at: string, message: Said): DesignFinding => ({ severity: 'error', page: 'mailings', at, message });

/** What does not fit together in the mailing itself. */
function foundAlone({ name, to, about, when, dueIn, reminders }: MailingDesign): readonly DesignFinding[] {
  const isNobody =
    'audience' in to &&
    !('everyone' in to.audience.in) &&
    ('anyOf' in to.audience.in ? to.audience.in.anyOf : to.audience.in.allOf).length === 0;
  const isTwice = reminders.some(
    (each, at) => reminders.findIndex(({ days, side }) => days === each.days && side === each.side) !== at,
  );
  return [
    ...(name.trim() === '' ? [error('name', said('mailings:noName'))] : []),
    ...(isNobody ? [error('to', said('mailings:toNobody'))] : []),
    ...('named' in to && about.is !== 'requests' ? [error('to', said('mailings:namedWhere'))] : []),
    ...(when.is === 'reached' && about.is !== 'requests' ? [error('when', said('mailings:reachedWhat'))] : []),
    ...(when.is === 'reached' && about.is === 'requests' && about.stages.length === 0
      ? [error('stages', said('mailings:reachedWhere'))]
      : []),
    ...(isTwice ? [error('reminders', said('mailings:twice'))] : []),
    ...(reminders.length > 0 && dueIn === null && when.is !== 'every'
      ? [error('reminders', said('mailings:neverDue'))]
      : []),
  ];
}

/** What it names that is not there, or can’t be asked. */
function foundAround(mailing: MailingDesign, { form, fills, door, register }: AroundMailing): readonly DesignFinding[] {
  const { about, to } = mailing;
  const people = new Set(
    (register?.fields ?? []).flatMap(({ key, type }) =>
      type.kind === 'person' || type.kind === 'people' ? [key] : [],
    ),
  );
  const isNamed = 'named' in to && !(NAMED_RELATIONS as readonly string[]).includes(to.named);
  const key = about.is === 'requests' ? about.register : null;
  return [
    ...(form === null ? [error('form', said('mailings:notReleased'))] : []),
    ...(door === null ? [error('door', said('mailings:noDoor'))] : []),
    ...(door?.unnamed ? [error('door', said('mailings:unnamedDoor'))] : []),
    ...(about.is !== 'nothing' && form !== null && !canSay(form, about.field, key, fills)
      ? [error('field', said(key === null ? 'mailings:noPersonAsked' : 'mailings:noRequestAsked'))]
      : []),
    ...(about.is === 'each-other' && door !== null && door.proof !== 'sign-in'
      ? [error('door', said('mailings:eachOtherOutside'))]
      : []),
    ...(key !== null && register === null ? [error('about', said('mailings:noRegister'))] : []),
    ...(about.is === 'requests' && register
      ? about.stages.some((stage) => !register.stages.some((each) => each.key === stage))
        ? [error('stages', said('mailings:noStage'))]
        : []
      : []),
    ...(register?.unreadable ? [error('condition', said('shared:unreadable', { message: register.unreadable }))] : []),
    ...(register && register.hidden.length > 0
      ? [error('condition', said('mailings:asksHidden', { fields: register.hidden }))]
      : []),
    ...(isNamed && register && !people.has(to.named) ? [error('to', said('mailings:noPeopleField'))] : []),
  ];
}

/** Mailings as designs. They are in force at once; what was sent stays. */
export const MAILING: DesignKind<MailingDesign, AroundMailing | null> = {
  kind: 'mailing',
  titleOf: ({ name }) => name,
  compare: (before, after) => compareContents(before, after, RULES),
  merge: (base, mine, theirs) => mergeContents(base, mine, theirs, RULES),
  findings: (mailing, around) => [...foundAlone(mailing), ...(around ? foundAround(mailing, around) : [])],
  refersTo: ({ to, about, door }) => [
    ...('audience' in to ? namedIn(to.audience).map((each) => ({ ...each, at: said('mailings:theRecipients') })) : []),
    ...(about.is === 'requests'
      ? [{ kind: 'register' as const, key: about.register, at: said('mailings:theTopic') }]
      : []),
    { kind: 'door' as const, key: door, at: said('mailings:theDoor') },
  ],
};
