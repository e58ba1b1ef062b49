import { RIGHTS } from '@tolvek/core/people';
import { z } from 'zod';
import { language, whoAudience } from '../people/shapes.ts';
import { profileField, vocabulary } from '../register/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { day, key, keyed, moment, named, rawAnswers, versioned } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { peopleHeads } from './heads.ts';
import { absence, address, groundLine, personName, role, session } from './shapes.ts';

const kind = z.enum(['staff', 'contact']);
const withId = z.strictObject({ id: z.string().max(64) });

/** A row of the list of people. */
const row = z.object({
  id: z.string(),
  name: z.string(),
  email: z.string(),
  kind,
  role,
  active: z.boolean(),
  /** Whether they have signed in once, or could: a password is set. */
  signsIn: z.boolean(),
  invited: moment.nullable(),
  groups: z.array(named),
  /** Unfinished requests they are the handler of, and seats they are asked to decide at. */
  openWork: z.int(),
  /** Whether others here have the same name. */
  namesake: z.boolean(),
  /** Whether they are away today. */
  away: z.boolean(),
  /** The version of their portrait; null for none. */
  portrait: z.string().nullable(),
  /** What stands in the fields of profiles that lists show, by key. */
  profile: z.record(z.string(), words),
});

const entry = z.object({
  id: z.string(),
  /** Who comes in by it: a person or a group. */
  member: z.union([
    z.object({ person: z.string(), name: z.string(), email: z.string(), active: z.boolean() }),
    z.object({ group: z.string(), name: z.string() }),
  ]),
  from: day.nullable(),
  until: day.nullable(),
  /** Whether it counts today. */
  now: z.boolean(),
  /** `rule`: the rule of the group lets them in. */
  source: z.enum(['local', 'directory', 'rule']),
});

const groupRow = z.object({
  key: z.string(),
  name: z.string(),
  about: z.string(),
  isTeam: z.boolean(),
  retired: z.boolean(),
  source: z.enum(['local', 'directory']),
  /** Who is in it today, through groups in it as well. */
  members: z.int(),
  /** Names of the groups in it. */
  inside: z.array(z.string()),
  /** Whether a rule says who is in it. */
  ruled: z.boolean(),
  /** Where its members get together what goes to the group; empty: each gets theirs. */
  mailbox: z.string(),
});

/** How many people, and some of them by name. */
const someNames = z.object({ count: z.int(), names: z.array(z.string()) });

/** A right that somebody has, and by which ways it came to them. */
const rightByWays = z.object({
  right: z.enum(RIGHTS),
  words,
  ways: z.array(
    z.union([
      z.object({ by: z.enum(['everyone', 'person']) }),
      z.object({ by: z.literal('group'), group: z.string() }),
    ]),
  ),
});

/** People and groups. */
export const peopleRoutes = routesOf(peopleHeads, {
  people: {
    says: 'Staff or contacts by name, a hundred at a time, as far as they are looked for.',
    query: z.strictObject({
      kind: kind.optional(),
      /** Part of a name, an address or the name of a group. */
      find: z.string().max(200).optional(),
      group: z.string().max(64).optional(),
      state: z.enum(['active', 'inactive', 'not-invited']).optional(),
      /** Fields of profiles, and what stands in each: `title=skipper&site=pier`. */
      where: z.string().max(400).optional(),
      /** By name, by address, the newest first, or by a field of profiles. */
      sort: z.string().max(64).optional(),
      /** Where to go on: what `next` said. */
      after: z.string().max(400).optional(),
    }),
    answer: z.object({
      people: z.array(row),
      /** How many in all; null where over a thousand are found by words. */
      total: z.int().nullable(),
      next: z.string().nullable(),
    }),
  },
  person: {
    says: 'Somebody: who they are, the groups they are in and by which way, what hangs on them, and what was set.',
    params: withId,
    answer: row.extend({
      version: z.int(),
      language: language.nullable(),
      source: z.enum(['local', 'directory']),
      addresses: z.array(z.string()),
      /** What stands in their profile, as it would be typed. */
      typed: rawAnswers,
      /** Absences that are not over. */
      absences: z.array(absence),
      /** Whose place they take today when a decision is asked for, by name. */
      standsIn: z.array(z.string()),
      /** Whether they are asked for a code after their password. */
      code: z.boolean(),
      /** How many keys of devices they sign in with. */
      passkeys: z.int(),
      /** Providers that they have signed in by, by name. */
      providers: z.array(z.string()),
      /** Where they are signed in, the newest first. */
      sessions: z.array(session),
      /** The groups they are in today, each with the ways in. */
      ways: z.array(
        named.extend({
          /** `byRule`: the rule of the first of these groups lets them in. */
          ways: z.array(
            z.object({
              through: z.array(z.string()),
              days: words,
              byRule: z.literal(true).optional(),
              entry: z.string().nullable(),
            }),
          ),
        }),
      ),
      /** What hangs on them, in words: with how many, and where one sees them. */
      hangs: z.array(z.object({ words, to: z.string().nullable() })),
      /** What they may do at the desk, and by which way. */
      rights: z.array(rightByWays),
      /** Registers in which they may do more or less than that. */
      elsewhere: z.array(
        z.object({
          ...{ key: z.string(), name: z.string(), more: z.array(rightByWays) },
          less: z.array(z.object({ right: z.enum(RIGHTS), words })),
        }),
      ),
      /** Whether whoever asks may change what this person may do. */
      mayGiveRole: z.boolean(),
      history: z.array(groundLine),
    }),
  },
  addPerson: {
    says: 'Adds one of the staff or a contact. No email is sent.',
    body: z.strictObject({
      kind,
      name: personName,
      email: address,
      role: role.optional(),
      language: language.nullable().optional(),
      groups: z.array(key).max(50).optional(),
      profile: rawAnswers.optional(),
    }),
    answer: z.object({ id: z.string() }),
  },
  changePerson: {
    says: 'Changes who somebody is, whether they may come in, and what they may do.',
    params: withId,
    body: z.strictObject({
      name: personName.optional(),
      email: address.optional(),
      role: role.optional(),
      language: language.nullable().optional(),
      active: z.boolean().optional(),
      /** Fields of the profile that are set; empty answers empty them. */
      profile: rawAnswers.optional(),
    }),
    answer: versioned,
  },
  invite: {
    says: 'Sends people of the staff an email each, with a link to choose a password. Who has one gets none.',
    body: z.strictObject({ people: z.array(z.string().max(64)).min(1).max(1_000) }),
    answer: z.object({ sent: z.int() }),
  },
  handOverPlan: {
    says: 'What handing over would come to, with one other person or with nobody. Keeps nothing.',
    params: withId,
    query: z.strictObject({ to: z.string().max(64).optional() }),
    answer: z.object({
      given: z.int(),
      back: z.int(),
      /** Requests on which the other person would decide. */
      decides: z.int(),
      /** Requests on which nobody else would decide: there is nobody to, or they asked for it themselves. */
      waits: z.int(),
      groups: z.int(),
      /** Rosters that they are on: the other person has their turns, or those after them. */
      rosters: z.int(),
      /** Forms that they were still to fill in: which the other person fills in, and which end. */
      forms: z.object({ given: z.int(), ended: z.int() }),
    }),
  },
  handOver: {
    says: 'Hands all over that hangs on somebody who leaves, to one other person or back to the teams; they can’t come in any more.',
    params: withId,
    body: z.strictObject({ to: z.string().max(64).nullable() }),
    answer: z.object({
      /** Requests that the other person handles now. */
      given: z.int(),
      /** Requests whose team has them back. */
      back: z.int(),
      groups: z.int(),
    }),
  },
  mergePlan: {
    says: 'What merging another record of the same person into this one would come to. Keeps nothing.',
    params: withId,
    query: z.strictObject({ other: z.string().max(64) }),
    answer: z.object({
      /** Requests that name the other record: as requester, handler, on whose behalf, by whom typed in, or in a field. */
      requests: z.int(),
      /** Groups that this one comes into, by name. */
      groups: z.array(z.string()),
      addresses: z.array(z.string()),
      /** Rights of the other itself that this one has not. */
      rights: z.int(),
      /** Forms whose approval asks the other record. */
      named: z.int(),
    }),
  },
  mergePeople: {
    says: 'Merges another record of the same person into this one: all that names it names this one, and its addresses find this one.',
    params: withId,
    body: z.strictObject({ other: z.string().max(64) }),
    answer: z.object({ requests: z.int() }),
  },
  groups: {
    says: 'All groups by name.',
    answer: z.object({ groups: z.array(groupRow) }),
  },
  group: {
    says: 'A group: who is in it and how, what it is in, what refers to it, and what was set.',
    params: keyed,
    answer: groupRow.extend({
      version: z.int(),
      entries: z.array(entry),
      /** Whom it holds by rule; null where it has none. */
      rule: whoAudience.nullable(),
      /** What people are called whom its rule names, by id. */
      named: z.record(z.string(), z.string()),
      /** The fields of profiles that a rule may ask, and the terms that may stand in them. */
      profile: z.array(profileField).readonly(),
      vocabularies: z.array(vocabulary).readonly(),
      /** The groups it is in. */
      within: z.array(named),
      /** The forms, registers and doors that name it, and where. */
      uses: z.array(z.object({ title: words, at: words, to: z.string() })),
      history: z.array(groundLine),
    }),
  },
  addGroup: {
    says: 'Makes a group.',
    body: z.strictObject({ name: personName, about: z.string().trim().max(500).optional(), isTeam: z.boolean() }),
    answer: z.object({ key: z.string() }),
  },
  changeGroup: {
    says: 'Changes what a group is called and is for, and whether it is offered any more.',
    params: keyed,
    body: z.strictObject({
      name: personName.optional(),
      about: z.string().trim().max(500).optional(),
      /** Where its members get together what goes to the group; empty: each gets theirs. */
      mailbox: address.optional(),
      isTeam: z.boolean().optional(),
      retired: z.boolean().optional(),
      rule: whoAudience.nullable().optional(),
    }),
    answer: versioned,
  },
  tryRule: {
    says: 'Whom another rule of a group would let in, and whom no longer. Keeps nothing.',
    params: keyed,
    body: z.strictObject({ rule: whoAudience }),
    answer: z.object({
      /** How many it means in all. */
      means: z.int(),
      comes: someNames,
      goes: someNames,
    }),
  },
  enterGroup: {
    says: 'Lets a person or a group into a group, for good or between two days.',
    params: keyed,
    body: z.strictObject({
      person: z.string().max(64).optional(),
      group: z.string().max(64).optional(),
      from: day.nullable(),
      until: day.nullable(),
    }),
    answer: z.object({ id: z.string() }),
  },
  leaveGroup: {
    says: 'Ends a way into a group, at once.',
    params: z.strictObject({ key: z.string().max(64), entry: z.string().max(64) }),
    answer: z.object({ done: z.literal(true) }),
  },
});
