import { CHOICES, type Hearing, WAYS } from '@tolvek/core/notice';
import { ACCENT_KEYS, type DeskSettings, type SkillSource } from '@tolvek/core/settings';
import { z } from 'zod';
import { language, person } from '../people/shapes.ts';
import { exactly } from '../wire/exactly.ts';
import { clockTime, day, moment, weekDays } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';

const days = z.int().min(0).max(10_000);

const deskWay = z.strictObject({ way: z.enum(WAYS), choice: z.enum(CHOICES) });
/** When staff get emails, and what of that they may choose. */
export const deskHearing = z.strictObject({
  ...{ decide: deskWay, mine: deskWay, team: deskWay, due: deskWay, late: deskWay, news: deskWay, own: deskWay },
});
const way = z.enum(WAYS).optional();
/** What somebody chose of their emails. */
export const hearing = exactly<Hearing>()(
  z.strictObject({
    ways: z.strictObject({ decide: way, mine: way, team: way, due: way, late: way, news: way, own: way }),
    digest: z.strictObject({ at: clockTime, days: weekDays.min(1).readonly() }),
    quiet: z.strictObject({ from: clockTime, to: clockTime }).nullable(),
  }),
);

const part = z.string().max(64);
/** Where it is kept who can do what. */
const skillSource = exactly<SkillSource>()(
  z.strictObject({ register: part.min(1), person: part.min(1), skill: part.min(1), level: part, checked: part }),
);
export const deskSettings = exactly<DeskSettings>()(
  z.strictObject({
    organisation: z.string().trim().max(80),
    name: z.string().trim().max(60),
    zone: z.string().max(64),
    language,
    firstDay: z.enum(['monday', 'saturday', 'sunday']),
    calendar: z.string().max(64),
    accent: z.enum(ACCENT_KEYS),
    sender: z.strictObject({ name: z.string().trim().max(80), address: z.string().trim().max(254) }),
    signature: z.string().trim().max(500),
    links: z.strictObject({ confirm: days, decide: days, follow: days, resume: days, invite: days }),
    keeps: z.strictObject({ emails: days, unconfirmed: days }),
    hears: deskHearing,
    hosts: z.array(z.string().max(253)).max(50).readonly().optional(),
    texts: z.string().max(64).optional(),
    skills: skillSource.optional(),
  }),
);

/** An email address; it is kept in small letters. */
export const address = z.string().trim().max(254);
export const personName = z.string().trim().max(120);
export const password = z.string().max(1_000);
export const role = z.enum(['administrator', 'coordinator', 'member']);

/** When somebody is away. */
export const absence = z.object({
  id: z.string(),
  from: day,
  /** Null until it is ended. */
  until: day.nullable(),
  substitute: person.nullable(),
  /** Whether they are away today. */
  now: z.boolean(),
});

/** Where somebody is signed in. */
export const session = z.object({
  id: z.string(),
  /** Whether it is the one that asks. */
  here: z.boolean(),
  since: moment,
  seen: moment,
  /** What the browser said of itself; empty where it said nothing. */
  browser: z.string(),
  address: z.string(),
});

/** A token or key of something outside, as it is listed: never itself. */
export const bearer = z.object({
  ...{ id: z.string(), name: z.string(), by: z.string(), made: moment },
  /** Null until it was used. */
  used: moment.nullable(),
  /** Null where it does not end by itself. */
  ends: moment.nullable(),
  state: z.enum(['works', 'ended', 'expired']),
});

/** One line of what was set, by whom and when. */
export const groundLine = z.object({
  id: z.string(),
  at: moment,
  by: words,
  words,
  /** Whether it can be undone by itself. */
  undoable: z.boolean(),
  /** Why, in the words of whoever set it; empty where they did not say. */
  why: z.string(),
  /** The id of who set it; empty for the application itself. */
  setter: z.string(),
});
