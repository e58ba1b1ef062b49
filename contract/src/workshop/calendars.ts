import { z } from 'zod';
import { release } from '../form/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { keyed, versioned, visibleSubject } from '../wire/shapes.ts';
import { calendarHeads } from './heads.ts';

const clock = z.string().max(5);
const stretch = z.tuple([clock, clock]).readonly();
const day = z.array(stretch).max(12).readonly();
/** The hours and days that count; its key stands in the address. */
const workingTime = z.strictObject({
  name: z.string().trim().max(200),
  zone: z.string().max(64),
  week: z.tuple([day, day, day, day, day, day, day]).readonly(),
  holidays: z
    .array(z.strictObject({ date: z.string().max(10), name: z.string().trim().max(200), hours: day.optional() }))
    .max(2_000)
    .readonly(),
  retired: z.boolean().optional(),
});
export const calendar = workingTime.extend({ key: z.string().max(64) });
const moment = z.string();

/** Working calendars: what counts, what it was, and what a change would move. */
export const calendarRoutes = routesOf(calendarHeads, {
  calendars: {
    says: 'All working calendars by name, and how many forms count by each.',
    answer: z.object({
      calendars: z.array(
        z.object({ key: z.string(), name: z.string(), zone: z.string(), forms: z.int(), retired: z.boolean() }),
      ),
    }),
  },
  createCalendar: {
    says: 'Makes a working calendar, in force at once.',
    body: z.strictObject({ calendar: workingTime }),
    answer: z.object({ key: z.string() }),
  },
  countries: {
    says: 'The countries whose public holidays are known, and their regions, in the language of the caller.',
    answer: z.object({
      countries: z.array(
        z.object({
          code: z.string(),
          name: z.string(),
          regions: z.array(z.object({ code: z.string(), name: z.string() })),
        }),
      ),
    }),
  },
  holidays: {
    says: 'The public holidays of a country (ISO 3166-1) or of a region of it, over some years.',
    params: z.strictObject({ country: z.string().max(2) }),
    query: z.strictObject({
      region: z.string().max(10).optional(),
      from: z.coerce.number().int().min(1970).max(2_100),
      to: z.coerce.number().int().min(1970).max(2_100),
    }),
    answer: z.object({ holidays: z.array(z.object({ date: z.string(), name: z.string() })) }),
  },
  calendar: {
    says: 'A working calendar as it is in force, the forms that count by it, and what was in force before.',
    params: keyed,
    answer: z.object({
      key: z.string(),
      version: z.int(),
      calendar,
      /** Titles of the forms whose deadlines count by it. */
      countedBy: z.array(z.string()),
      states: z.array(release.extend({ calendar })),
    }),
  },
  tryCalendar: {
    says: 'What another state of a calendar would do to the requests that are there. Keeps nothing.',
    params: keyed,
    body: z.strictObject({ calendar: workingTime }),
    answer: z.object({
      /** How many requests would be due at another moment. */
      moved: z.int(),
      /** How many of them would be late at once, and how many would be late no more. */
      late: z.int(),
      inTime: z.int(),
      /** How many reminders and messages to leads would go out at once. */
      rings: z.int(),
      /** The first thirty. */
      requests: z.array(z.object({ number: z.string(), subject: visibleSubject, from: moment, to: moment })),
    }),
  },
  changeCalendar: {
    says: 'Puts another state of a calendar in force at once: what is open is counted by it, with a line in each history.',
    params: keyed,
    body: z.strictObject({
      calendar: workingTime,
      /** Why; others read it later. */
      note: z.string().max(500),
      /** Whether reminders that would go out at once are held back. */
      hold: z.boolean().optional(),
    }),
    answer: versioned.extend({ moved: z.int() }),
  },
});
