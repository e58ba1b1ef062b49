import type { ProfileField, Values } from '@tolvek/core/register';
import { CONTACTS, STAFF } from './people.ts';

const options = (...labels: readonly string[]) =>
  labels.map((label) => ({ key: label.toLowerCase().replace(/[^a-z]+/g, '_'), label }));

/** The institutes that contacts come from, by the host of their addresses. */
const INSTITUTES: Readonly<Record<string, string>> = {
  haldane: 'Haldane College',
  corrin: 'Corrin Institute',
  tarnbay: 'Tarn Bay Marine Trust',
  merrow: 'Merrow Ecology',
  skelling: 'Skelling Observatory',
  orfordness: 'Orford Shore School',
  havelock: 'Havelock Surveys',
  ballast: 'Ballast Lane Workshops',
  greysound: 'Grey Sound University',
};

const SITES = ['Pier house', 'North laboratory', 'Field house'];

/** What the station knows of its people. */
export const PROFILE_FIELDS: readonly ProfileField[] = [
  { key: 'position', label: 'Position', type: { kind: 'text' }, of: 'staff', listed: true, directory: 'title' },
  { key: 'site', label: 'Site', type: { kind: 'choice', options: options(...SITES) }, of: 'staff', listed: true },
  { key: 'lead', label: 'Lead', type: { kind: 'person', from: [] }, of: 'staff', directory: 'manager' },
  {
    key: 'institute',
    label: 'Institute',
    type: { kind: 'choice', options: Object.entries(INSTITUTES).map(([key, label]) => ({ key, label })) },
    ...{ of: 'contact', listed: true },
  },
  { key: 'phone', label: 'Phone', type: { kind: 'phone' }, of: 'everybody' },
];

/** What they do, by the first of their groups. */
const POSITIONS: Readonly<Record<string, readonly [lead: string, others: string, site: string]>> = {
  estates: ['Head of Estates', 'Building technician', 'pier_house'],
  boats: ['Boat master', 'Skipper', 'pier_house'],
  lab: ['Head analyst', 'Analyst', 'north_laboratory'],
  'dive-safety': ['Dive officer', 'Diver', 'pier_house'],
  stores: ['Storekeeper', 'Storekeeper', 'field_house'],
  purchasing: ['Buyer', 'Buyer', 'field_house'],
  outreach: ['School visits', 'School visits', 'field_house'],
  'site-safety': ['Safety officer', 'Safety officer', 'field_house'],
  'duty-managers': ['Duty manager', 'Duty manager', 'pier_house'],
  'desk-leads': ['Coordinator of the desk', 'Coordinator of the desk', 'pier_house'],
  administrators: ['Systems', 'Systems', 'pier_house'],
};

/** Who leads those who are in no group. */
const HEAD_OF_SCIENCE = 'Hanne Istvan';

/**
 * What the station knows of somebody, the `place`th of all. `idOf`: the people of the staff by name.
 */
export function profileFor(
  { name, email, kind }: { readonly name: string; readonly email: string; readonly kind: 'staff' | 'contact' },
  place: number,
  idOf: (name: string) => string,
): Values {
  const phone = `+353 21 496 ${String(1000 + ((place * 37) % 9000))}`;
  if (kind === 'contact') {
    const host = /@(\w+)\./.exec(email)?.[1] ?? '';
    const known = CONTACTS.some((contact) => contact.name === name);
    return { ...(INSTITUTES[host] ? { institute: host } : {}), ...(known ? { phone } : {}) };
  }
  const group = STAFF.find((person) => person.name === name)?.groups[0];
  if (group === undefined) {
    const science = { site: 'north_laboratory', phone };
    return name === HEAD_OF_SCIENCE
      ? { position: 'Head of science', ...science }
      : { position: 'Scientist', lead: idOf(HEAD_OF_SCIENCE), ...science };
  }
  const [first = 'Staff', others = first, site = 'pier_house'] = POSITIONS[group] ?? [];
  const lead = STAFF.find((person) => person.groups[0] === group)?.name ?? name;
  return { position: lead === name ? first : others, site, phone, ...(lead === name ? {} : { lead: idOf(lead) }) };
}
