import type { houseRoutes } from '@tolvek/contract';
import { openApiDocument } from '@tolvek/contract/openapi';
import { holdersPlanned } from '@tolvek/core/approval';
import { nextChange } from '@tolvek/core/deadline';
import { mayAnywhere, seatsHeldBy, type Viewer, wordOf, worksInWorkshop } from '@tolvek/core/people';
import { ACCENTS } from '@tolvek/core/settings';
import type { Request, Response } from 'express';
import { wordsHeld } from '../approval/queries.ts';
import { calendarNames, calendarOf } from '../calendar/queries.ts';
import { runMailings } from '../desk/mailings.ts';
import { runDueTimers } from '../desk/timers.ts';
import { tellDuties } from '../duty/begins.ts';
import { allForms } from '../form/queries.ts';
import { runLines } from '../intake/lines.ts';
import { tellOfDays } from '../notice/days.ts';
import { lettersLeft } from '../notice/failed.ts';
import { setLanguage } from '../people/commands.ts';
import { allGroups, demoPeople, personById } from '../people/queries.ts';
import { DemoClock, iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { LOGO, pictureVersion } from '../platform/pictures.ts';
import { notFound } from '../platform/problem.ts';
import type { Handlers } from '../platform/serve.ts';
import { giveAgain } from '../platform/signIn/routes.ts';
import { callerOf, cookieOf, cookiePrefix, lengthen } from '../platform/signIn/session.ts';
import { troublesIn } from '../platform/troubles.ts';
import { allRegisters } from '../register/queries.ts';
import { deskOf } from '../settings/queries.ts';
import { countOfWays } from '../workshop/plan.ts';

/** All demo people have this password; outside demo mode it opens nothing. */
export const DEMO_PASSWORD = 'tolvek-demo';

export function houseHandlers(house: House): Handlers<typeof houseRoutes> {
  const { db, clock, config } = house;
  const document = openApiDocument('0.1.0', `${cookiePrefix(config)}.session_token`);

  return {
    health: () => {
      const troubles = troublesIn(house);
      return {
        status: troubles.length === 0 ? 'ok' : 'troubled',
        now: iso(clock.now()),
        troubles,
        letters: lettersLeft(db),
        openWays: countOfWays(db),
      };
    },
    openapi: () => document as { openapi: string },
    me: ({ viewer, request, response }) => {
      if (viewer) goOn(house, request, response);
      const person = viewer ? personById(db, viewer.personId) : undefined;
      return {
        person:
          viewer && person
            ? {
                id: person.id,
                name: person.name,
                kind: person.kind,
                rights: [...viewer.rights],
                // In which groups the desk has put a contact is the desk’s own affair.
                groups: person.kind === 'staff' ? [...viewer.groups] : [],
                worksFloor: worksFloor(db, viewer),
                worksWorkshop: worksInWorkshop(viewer),
                language: person.language,
              }
            : null,
        desk: deskView(house, clock.now()),
        demo:
          config.mode === 'demo'
            ? {
                password: DEMO_PASSWORD,
                people: demoPeople(db).map(({ name, email, does }) => ({ name, email, does })),
              }
            : null,
      };
    },
    setLanguage: ({ viewer, body }) => {
      setLanguage(house, viewer.personId, body.language);
      return { done: true };
    },
    advanceClock: async ({ body }) => {
      if (!(clock instanceof DemoClock)) throw notFound('demoClock');
      clock.advance(body.minutes * 60_000);
      const happened =
        (await runDueTimers(house)) +
        (await runMailings(house)) +
        (await runLines(house)) +
        (await tellDuties(house)) +
        (await tellOfDays(house));
      house.wakeOutbox();
      return { now: iso(clock.now()), happened };
    },
  };
}

/** Lets a session go on for whoever comes back, with its cookie. */
function goOn(house: House, request: Request, response: Response): void {
  const { db, config } = house;
  const session = callerOf(house, request);
  const cookie = cookieOf(request, `${cookiePrefix(config)}.session_token`);
  if (session && cookie !== undefined && lengthen(db, session.token)) giveAgain(response, config, cookie);
}

/**
 * Whether somebody has work on the Floor: coordinators, members of a team, a desk group or a deciding
 * group, and who is asked to decide.
 */
function worksFloor(db: Reader, viewer: Viewer): boolean {
  if (mayAnywhere(viewer, 'read', 'none')) return true;
  const desk = allRegisters(db).flatMap((register) => register.deskGroups);
  const things = new Set(allRegisters(db).flatMap(({ id, holds }) => (holds === 'things' ? [id] : [])));
  const deciding = allForms(db)
    .filter(({ registerId }) => !things.has(registerId))
    .flatMap(({ draft }) => holdersPlanned(draft.approval).map(wordOf));
  const teams = allGroups(db)
    .filter((group) => group.isTeam)
    .map((group) => group.key);
  // An answer may have named them, and no design.
  if (wordsHeld(db, viewer).includes(wordOf({ person: viewer.personId }))) return true;
  return seatsHeldBy(viewer).some((word) => desk.includes(word) || deciding.includes(word) || teams.includes(word));
}

function deskView({ db }: House, now: number) {
  const { name, organisation, language, zone, sender, accent, firstDay, calendar } = deskOf(db);
  const logo = pictureVersion(db, LOGO);
  const said = { name, organisation, language, email: sender.address };
  const about = { ...said, accent: ACCENTS[accent], logo, firstDay, now: iso(now) };
  const calendars = calendarNames(db);
  const hours = calendars.find(({ key }) => key === calendar) ?? calendars[0];
  if (!hours) return { ...about, zone, open: false, until: null };
  const change = nextChange(calendarOf(db, hours.key), now);
  return { ...about, zone, open: change?.open ?? false, until: change ? iso(change.at) : null };
}
