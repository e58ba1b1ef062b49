import type { AnswerOf } from '@tolvek/contract';
import type { Key } from '@tolvek/words';

type Counts = AnswerOf<'groundwork'>['counts'];

/** A place of the groundwork, and how many things are in it. */
interface GroundPlace {
  readonly path: string;
  readonly label: Key;
  readonly count?: keyof Counts;
}

/** The places of the groundwork, in the order in which it is laid. */
export const GROUND: readonly GroundPlace[] = [
  { path: '/workshop/groundwork', label: 'ground:overview' },
  { path: '/workshop/groundwork/desk', label: 'ground:desk' },
  { path: '/workshop/groundwork/people', label: 'ground:people', count: 'people' },
  { path: '/workshop/groundwork/contacts', label: 'ground:contacts', count: 'contacts' },
  { path: '/workshop/groundwork/groups', label: 'ground:groups', count: 'groups' },
  { path: '/workshop/groundwork/directory', label: 'directory:directory' },
  { path: '/workshop/groundwork/skills', label: 'ground:skills' },
  { path: '/workshop/groundwork/rights', label: 'ground:rights' },
  { path: '/workshop/groundwork/emails', label: 'hearing:sentTitle' },
  { path: '/workshop/groundwork/programs', label: 'programs:title' },
  { path: '/workshop/groundwork/sign-in', label: 'signIn:signIn' },
  { path: '/workshop/groundwork/calendars', label: 'ground:calendars', count: 'calendars' },
  { path: '/workshop/groundwork/rosters', label: 'rosters:title' },
  { path: '/workshop/groundwork/registers', label: 'ground:registers', count: 'registers' },
  { path: '/workshop/groundwork/vocabularies', label: 'ground:vocabularies', count: 'vocabularies' },
];

/** A setting that can be looked for, and where it is set. */
interface Setting {
  readonly label: Key;
  readonly in: Key;
  readonly to: string;
}

const at =
  (place: Key, path: string) =>
  (label: Key, mark = ''): Setting => ({ label, in: place, to: mark ? `${path}#${mark}` : path });
const ofDesk = at('ground:desk', '/workshop/groundwork/desk');
const ofPeople = at('ground:people', '/workshop/groundwork/people');
const ofContacts = at('ground:contacts', '/workshop/groundwork/contacts');
const ofGroups = at('ground:groups', '/workshop/groundwork/groups');
const ofRights = at('ground:rights', '/workshop/groundwork/rights');
const ofCalendars = at('ground:calendars', '/workshop/groundwork/calendars');
const ofRegisters = at('ground:registers', '/workshop/groundwork/registers');

/** Every setting of the groundwork, by what people call it. */
export const SETTINGS: readonly Setting[] = [
  ofDesk('settings:theName', 'name'),
  ofDesk('settings:theOrganisation', 'organisation'),
  ofDesk('settings:theZone', 'zone'),
  ofDesk('settings:theLanguage', 'language'),
  ofDesk('settings:theFirstDay', 'firstDay'),
  ofDesk('settings:theCalendar', 'calendar'),
  ofDesk('pictures:logo'),
  ofDesk('settings:theAccent', 'accent'),
  ofDesk('settings:theSender', 'sender.name'),
  ofDesk('settings:theSenderAddress', 'sender.address'),
  ofDesk('settings:theSignature', 'signature'),
  ofDesk('settings:theLinks.confirm', 'links.confirm'),
  ofDesk('settings:theLinks.decide', 'links.decide'),
  ofDesk('settings:theLinks.follow', 'links.follow'),
  ofDesk('settings:theLinks.resume', 'links.resume'),
  ofDesk('settings:theLinks.invite', 'links.invite'),
  ofDesk('settings:theKept.emails', 'keeps.emails'),
  ofDesk('settings:theKept.unconfirmed', 'keeps.unconfirmed'),
  ofDesk('ground:testEmail', 'test'),
  at('ground:skills', '/workshop/groundwork/skills')('settings:theSkills'),
  ofPeople('ground:findAccess'),
  ofRights('ground:findRights'),
  ofRegisters('ground:findRegisterRights'),
  ofRights('ground:findMay'),
  ofRights('ground:findAudit'),
  ofPeople('ground:findInactive'),
  at('ground:people', '/workshop/groundwork/profiles')('ground:findProfiles'),
  at('ground:people', '/workshop/groundwork/import/people')('ground:findImport'),
  ofContacts('ground:findContacts'),
  ofGroups('ground:findTeams'),
  ofGroups('ground:findMembers'),
  at('directory:directory', '/workshop/groundwork/directory')('ground:findTokens'),
  at('signIn:signIn', '/workshop/groundwork/sign-in')('signIn:find'),
  ofCalendars('ground:findHours'),
  ofCalendars('ground:findClosed'),
  at('rosters:title', '/workshop/groundwork/rosters')('rosters:findDuty'),
  at('programs:title', '/workshop/groundwork/programs')('programs:findKeys'),
  at('programs:title', '/workshop/groundwork/programs')('programs:findTold'),
  ofRegisters('ground:findStages'),
  ofRegisters('ground:findPrefix'),
];
