import { type Said, said } from '@tolvek/words';
import { isZone } from '../deadline/index.ts';
import {
  compareContents,
  type DesignFinding,
  type DesignKind,
  type MergeRules,
  mergeContents,
} from '../design/index.ts';
import { type DeskHearing, HEARD, NEW_HEARING } from '../notice/index.ts';
import { isHost, isMailAddress } from '../register/index.ts';
import { ACCENT_KEYS, type AccentKey } from './accents.ts';

/** Links in emails by what they are for; how long each works is the desk’s to say. */
export type LinkUse = 'confirm' | 'decide' | 'follow' | 'resume' | 'invite';

/** What is kept for a while only, and how long is the desk’s to say. */
export type KeptThing = 'emails' | 'unconfirmed';

/** The first day of a week, in calendars that people choose a day from. */
export type FirstDay = 'monday' | 'saturday' | 'sunday';

/** What the desk is called, what it speaks, and how long its links work. */
export interface DeskSettings {
  /** The house that the desk belongs to; may be empty. */
  readonly organisation: string;
  readonly name: string;
  /** IANA. */
  readonly zone: string;
  /** What pages and emails are written in for people whose language is not known. */
  readonly language: 'en' | 'de';
  readonly firstDay: FirstDay;
  /** The key of the calendar whose hours are those of the desk; empty for the first there is. */
  readonly calendar: string;
  readonly accent: AccentKey;
  /** Who emails come from. */
  readonly sender: { readonly name: string; readonly address: string };
  /** The end of every email; empty for the names of desk and house. */
  readonly signature: string;
  /** Days that each kind of link works. */
  readonly links: Readonly<Record<LinkUse, number>>;
  /** Days that things are kept: the text of emails after they were sent, requests after the link to confirm them ends. */
  readonly keeps: Readonly<Record<KeptThing, number>>;
  /** Hosts that forms may lead people to, and all below them: `forms.example`. None when nothing is said. */
  readonly hosts?: readonly string[];
  /** When its staff get emails, and what of that they may choose. */
  readonly hears: DeskHearing;
  /** The field of profiles with the number that text messages go to, by key; none are sent when nothing is said. */
  readonly texts?: string | undefined;
  /** Where it is kept who can do what; nowhere when nothing is said. */
  readonly skills?: SkillSource | undefined;
}

/** A register in which each entry is a skill of somebody, and its fields, by their keys. */
export interface SkillSource {
  readonly register: string;
  readonly person: string;
  readonly skill: string;
  /** Empty where no level is kept. */
  readonly level: string;
  /** The day it was checked last; empty where that is not kept. */
  readonly checked: string;
}

/** The fewest and the most days that a link may work. */
export const LINK_DAYS = {
  confirm: [1, 14],
  decide: [1, 60],
  follow: [7, 1_100],
  resume: [1, 60],
  invite: [1, 30],
} as const satisfies Readonly<Record<LinkUse, readonly [number, number]>>;

/** The fewest and the most days that something is kept. */
export const KEPT_DAYS = {
  emails: [1, 1_100],
  unconfirmed: [0, 60],
} as const satisfies Readonly<Record<KeptThing, readonly [number, number]>>;

/** What a new desk begins with. */
export const NEW_DESK: DeskSettings = {
  ...{ organisation: '', name: '', zone: 'UTC', language: 'en', firstDay: 'monday', calendar: '', accent: 'bottle' },
  sender: { name: '', address: '' },
  signature: '',
  links: { confirm: 3, decide: 14, follow: 180, resume: 14, invite: 7 },
  keeps: { emails: 30, unconfirmed: 3 },
  hears: NEW_HEARING,
};

/** A desk as any release kept it, whole: what an earlier one did not know is as a new desk has it. */
export const wholeDesk = (kept: Partial<DeskSettings>): DeskSettings => ({
  ...{ ...NEW_DESK, ...kept },
  links: { ...NEW_DESK.links, ...kept.links },
  keeps: { ...NEW_DESK.keeps, ...kept.keeps },
  hears: { ...NEW_DESK.hears, ...kept.hears },
});

/** The end of an email: the desk’s own words, or its name and that of its house. */
export const signatureOf = ({ signature, name, organisation }: DeskSettings): string =>
  signature || [name, organisation].filter(Boolean).join(', ');

const PLACES: Readonly<Record<string, Said>> = {
  organisation: said('settings:theOrganisation'),
  name: said('settings:theName'),
  zone: said('settings:theZone'),
  language: said('settings:theLanguage'),
  firstDay: said('settings:theFirstDay'),
  calendar: said('settings:theCalendar'),
  accent: said('settings:theAccent'),
  signature: said('settings:theSignature'),
  'sender.name': said('settings:theSender'),
  'sender.address': said('settings:theSenderAddress'),
  'links.confirm': said('settings:theLinks.confirm'),
  'links.decide': said('settings:theLinks.decide'),
  'links.follow': said('settings:theLinks.follow'),
  'links.resume': said('settings:theLinks.resume'),
  'links.invite': said('settings:theLinks.invite'),
  hosts: said('settings:theHosts'),
  texts: said('settings:theTexts'),
  skills: said('settings:theSkills'),
  ...Object.fromEntries(
    (['register', 'person', 'skill', 'level', 'checked'] as const).map((part) => [
      `skills.${part}`,
      said(`settings:theSkillsOf.${part}`),
    ]),
  ),
  'keeps.emails': said('settings:theKept.emails'),
  'keeps.unconfirmed': said('settings:theKept.unconfirmed'),
  ...Object.fromEntries(
    HEARD.map((heard) => [`hears.${heard}`, said('settings:theHearing', { what: said(`hearing:${heard}`) })]),
  ),
};

const RULES: MergeRules = { lists: {}, nameOf: (way) => PLACES[way.join('.')] ?? said('settings:theDesk') };

function found(desk: DeskSettings): readonly DesignFinding[] {
  const error = (at: string, message: Said): DesignFinding => ({ severity: 'error', page: 'desk', at, message });
  const within = (days: number, [least, most]: readonly [number, number]): boolean =>
    Number.isInteger(days) && days >= least && days <= most;
  const wrongLinks = (Object.keys(LINK_DAYS) as LinkUse[]).flatMap((use) => {
    const [least, most] = LINK_DAYS[use];
    return within(desk.links[use], LINK_DAYS[use])
      ? []
      : [error(`links.${use}`, said('settings:badLinkDays', { least, most }))];
  });
  const wrongKept = (Object.keys(KEPT_DAYS) as KeptThing[]).flatMap((thing) => {
    const [least, most] = KEPT_DAYS[thing];
    return within(desk.keeps[thing], KEPT_DAYS[thing])
      ? []
      : [error(`keeps.${thing}`, said('settings:badKeptDays', { least, most }))];
  });
  return [
    ...(desk.name.trim() === '' ? [error('name', said('settings:noName'))] : []),
    ...(isZone(desk.zone) ? [] : [error('zone', said('settings:badZone'))]),
    ...(ACCENT_KEYS.includes(desk.accent) ? [] : [error('accent', said('settings:badAccent'))]),
    ...(isMailAddress(desk.sender.address) ? [] : [error('sender.address', said('settings:badSender'))]),
    ...(desk.hosts?.every(isHost) === false ? [error('hosts', said('settings:badHosts'))] : []),
    ...wrongLinks,
    ...wrongKept,
  ];
}

/** The desk itself as a design: there is one, and it is in force at once. */
export const DESK: DesignKind<DeskSettings> = {
  kind: 'desk',
  titleOf: ({ name }) => name,
  compare: (before, after) => compareContents(before, after, RULES),
  merge: (base, mine, theirs) => mergeContents(base, mine, theirs, RULES),
  findings: found,
  refersTo: ({ calendar, skills }) => [
    ...(calendar === '' ? [] : [{ kind: 'calendar' as const, key: calendar, at: said('settings:theCalendar') }]),
    ...(skills ? [{ kind: 'register' as const, key: skills.register, at: said('settings:theSkills') }] : []),
  ],
};

/** The key of the one desk there is. */
export const DESK_KEY = 'desk';
