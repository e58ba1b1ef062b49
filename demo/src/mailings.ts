import { ITSELF, type MailingDesign } from '@tolvek/core/mailing';
import type { RawAnswers } from '@tolvek/core/register';

/** Once a year whoever has a skill says whether it is still so. */
export const SKILL_CHECKS: MailingDesign = {
  name: 'Yearly look at skills',
  door: 'my-skills',
  to: { named: 'person' },
  about: { is: 'requests', register: 'my-skills', field: ITSELF, stages: ['in_use'], when: '' },
  when: { is: 'every', period: 'year' },
  dueIn: 15,
  reminders: [{ days: 3, side: 'before' }],
  text: 'Boats plans next year’s crews. Please look whether what we have of you is still right.',
  going: true,
};

/** A trip report is asked of whoever asked for a boat, the day after their trip was finished. */
export const TRIP_REPORTS: MailingDesign = {
  name: 'After each trip',
  door: 'trip-report',
  to: { named: '~requester' },
  about: { is: 'requests', register: 'vessel-time', field: 'trip', stages: ['done'], when: '' },
  when: { is: 'reached', days: 1 },
  dueIn: 5,
  reminders: [{ days: 1, side: 'before' }],
  text: 'You were out with one of our boats. Please tell us how it went: it takes two minutes.',
  going: true,
  counts: 'mean',
};

/** Who keeps a thing of the kit looks at it once a year. */
export const KIT_CHECKS: MailingDesign = {
  name: 'Yearly kit check',
  door: 'kit-check',
  to: { named: 'keeper' },
  about: { is: 'requests', register: 'kit', field: 'thing', stages: ['in_use'], when: '' },
  when: { is: 'every', period: 'year' },
  dueIn: 15,
  reminders: [
    { days: 3, side: 'before' },
    { days: 5, side: 'after' },
  ],
  passesOn: true,
  text: 'Once a year everybody looks at what they keep for Stores.',
  going: true,
  counts: 'latest',
};

const TOLD = ['The winch was not greased.', 'We left an hour late, as the tide was wrong.', 'More dry bags, please.'];

/** What somebody says of their trip. */
export function tripTold(random: () => number): RawAnswers {
  const went = random() < 0.7 ? 'planned' : 'changed';
  const told = TOLD[Math.floor(random() * TOLD.length)] ?? '';
  return {
    ...{ went, mark: String(3 + Math.floor(random() * 3)), at_sea: String(2 + Math.floor(random() * 5)) },
    ...(went === 'planned' ? {} : { told }),
  };
}

/** What somebody finds of a thing that they keep. */
export const kitFound = (random: () => number): RawAnswers =>
  random() < 0.8 ? { found: 'fine' } : { found: 'repair', wrong: 'The seal is worn.' };
