import type { DoorDesign } from '@tolvek/core/door';

/** Schools have places for a while; they agree to what is kept of them, and hear what comes next. */
export const SCHOOL_DOOR: Partial<DoorDesign> = {
  name: 'For schools',
  opensAt: Date.parse('2026-09-01T08:00:00Z'),
  closesAt: Date.parse('2027-01-29T16:00:00Z'),
  finishing: 15,
  limits: [
    { id: 'limit-1', most: 12, of: 'all', days: null },
    { id: 'limit-2', most: 1, of: 'each', days: null, period: 'year' },
  ],
  showsPlaces: true,
  waits: 48,
  says: {
    early: 'Schools can ask from September on, for the mornings of next March.',
    full: 'All mornings of next March are taken. Now and then a school gives one back: you can wait for it.',
  },
  confirmation:
    'We write to {school} within a week whether your morning is free. Please do not book a bus before that.',
  consent: {
    text: 'The station keeps what you type here, and your name and address, until the visit is over. Outreach and the people on duty that day read it.',
    version: 1,
  },
  withdraws: 'finished',
  prefills: ['school', 'visit_day'],
  slowsRobots: true,
};

/** What somebody saw can be told without a name: nothing about them is kept. */
export const UNNAMED_DOOR = { slug: 'tell-us', name: 'Without a name' } as const;
export const UNNAMED_SET: Partial<DoorDesign> = {
  unnamed: true,
  slowsRobots: true,
  confirmation: 'Site safety reads it on the next working day. As we do not know who you are, nobody can ask you back.',
};
