import type { BaseLevels, PlanRules } from '@tolvek/core/access';
import { z } from 'zod';
import { accessRules, activity, field, requestReaders } from '../register/shapes.ts';
import { exactly } from '../wire/exactly.ts';
import { routesOf } from '../wire/route.ts';
import { called, fieldKey, groupKeys, keyed, labelled, numbered, versioned } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { accessHeads } from './heads.ts';

const level = z.enum(['hidden', 'read', 'write']);
/** What is written of a plan, as far as it has come: names and fields may still be missing. */
const written = z.strictObject({
  rules: accessRules,
  resting: accessRules,
  /** Keys of the fields whose reading by staff is noted. */
  noted: z.array(fieldKey).max(100).readonly().optional(),
  /** Keys of the fields that have their place; as in the plan in force where it is not said. */
  placed: z.array(fieldKey).max(2_000).readonly().optional(),
  /** Who reads whole requests by a condition. */
  readers: requestReaders.optional(),
  /** What holds where no rule says otherwise; as usual where it is not said. */
  base: exactly<BaseLevels>()(
    z.strictObject({
      desk: level,
      requester: z.strictObject({
        ...{ answers: z.enum(['hidden', 'read']), made: z.enum(['hidden', 'read']) },
        staffOnly: z.enum(['hidden', 'read']),
      }),
      outside: z.strictObject({ answers: level, made: z.enum(['hidden', 'read']), staffOnly: level }).optional(),
    }),
  ).optional(),
});
const planRules = exactly<PlanRules>()(written);
const ruleNames = z.array(z.string());

/** What comes of a plan by field, for whoever it tells apart. */
const grid = z.object({
  /** Who is told apart; a person who was asked for is the last. */
  seats: z.array(words),
  rows: z.array(
    z.object({
      field: z.string(),
      /**
       * One for each seat: the strictest that there can be. `most`: the most, where it hangs on the request; `was`: the
       * level in force, where that is otherwise.
       */
      cells: z.array(z.object({ level, rule: words, most: level.nullable(), was: level.nullable() })),
    }),
  ),
});

/** What a plan that is being written would change of the one in force, and what keeps it from being put in force. */
const draftTells = {
  changes: z.object({
    added: ruleNames,
    changed: ruleNames,
    removed: ruleNames,
    switchedOff: ruleNames,
    switchedOn: ruleNames,
    /** Labels of fields whose reading is noted from then on, and of those whose reading is not any more. */
    noted: ruleNames,
    notNoted: ruleNames,
    /** Labels of fields that have their place from then on. */
    placed: ruleNames,
    /** Whether what holds where no rule says otherwise is otherwise. */
    base: z.boolean(),
    /** Whether who reads whole requests by a condition is otherwise. */
    readers: z.boolean(),
  }),
  problems: z.array(z.object({ field: z.string(), message: words, fix: words })),
  /** Whom each of its rules means today, by the rule’s id. */
  told: z.record(
    z.string(),
    z.object({
      who: words,
      people: z.int(),
      /** Some of them, by name. */
      names: z.array(z.string()),
      /** Who is in a group that is meant, and in one that is left out. */
      caught: z.array(z.string()),
      /** Whether others are meant by what they are to a request. */
      byRequest: z.boolean(),
    }),
  ),
  grid,
  /** How many requests each reader of whole requests would reach, by its id. */
  reached: z.record(z.string(), z.int()),
  /** Keys of the fields that have no place in the draft yet. */
  unplaced: z.array(z.string()),
  /** What the people are called whom rules name, by their ids. */
  people: z.record(z.string(), z.string()),
};
const change = {
  field: z.string(),
  label: z.string(),
  before: level,
  after: level,
};

/** A way by which a form in force tells somebody more than they may read, step by step. */
const opening = z.object({ form: z.string(), title: z.string(), message: words, way: z.array(words) });

/** By what is looked at who reads what: the draft, what is in force, or what was on a day that is over. */
const looking = z.strictObject({ plan: z.enum(['force', 'draft']).default('force'), day: z.iso.date().optional() });
/** Since which day it is written down who could do what; null where the day that is asked for is not before it. */
const sinceWhen = z.iso.date().nullable();
/** A level that somebody has a field at, on how many requests. `example`: one of them, if the caller works on it. */
const levelOver = z.object({ level, rule: words, requests: z.int(), example: z.string().nullable() });

/** The access plans of registers: written in a draft, looked at, put in force. */
export const accessRoutes = routesOf(accessHeads, {
  accessPlan: {
    says: 'The access plan of a register: its rules in force and as they are being written, whom they mean, and what comes of them.',
    params: keyed,
    answer: z.object({
      key: z.string(),
      name: z.string(),
      version: z.int(),
      holds: z.enum(['requests', 'things']),
      /** The forms that ask into it. */
      forms: z.array(z.object({ key: z.string(), title: z.string() })),
      inForce: planRules,
      draft: planRules,
      ...draftTells,
      /** The stages that rules can hang on. */
      stages: z.array(labelled),
      fields: z.array(field).readonly(),
      /** The same by key, as they stand together where they are asked for, or are not. */
      together: z.array(
        z.object({
          ...{ form: z.string().nullable(), title: z.string().nullable(), kind: z.enum(['asked', 'staff', 'made']) },
          fields: z.array(z.string()).readonly(),
        }),
      ),
      /** The plan before the last change of it, whose that was and when; null where there is none. `own`: the caller’s. */
      before: z.object({ ...written.shape, by: z.string(), at: z.string(), own: z.boolean() }).nullable(),
    }),
  },
  keepAccessPlan: {
    says: 'Keeps an access plan as it is being written. Nothing of it is in force before it is put there.',
    params: keyed,
    body: planRules,
    answer: versioned.extend(draftTells),
  },
  accessPlanGrid: {
    says: 'What comes of an access plan as it is being written for requests at one stage, in one of the things that are done with them, or for one person more.',
    params: keyed,
    query: z.strictObject({
      stage: z.string().max(64).optional(),
      /** `asking`: while somebody asks. */
      activity: z.union([activity, z.literal('asking')]).optional(),
      person: z.string().max(64).optional(),
    }),
    answer: grid,
  },
  fieldReaders: {
    says: 'Who can see a field of a register and who can change it, over all its requests, with the rule that decides; by the plan in force, by the draft, or as it was on a day.',
    params: keyed,
    query: looking.extend({ field: z.string().max(130) }),
    answer: z.object({
      since: sinceWhen,
      /** How many people can change it on some request, can read it on some, and neither. */
      counts: z.object({ write: z.int(), read: z.int(), hidden: z.int() }),
      /** Who has to do with its requests, two hundred at most; who can do most comes first. */
      people: z.array(z.object({ id: z.string(), name: z.string(), email: z.string(), levels: z.array(levelOver) })),
      more: z.int(),
    }),
  },
  personReads: {
    says: 'What somebody can see and change of the requests of a register, field by field, with the rule that decides; by the plan in force, by the draft, or as it was on a day.',
    params: keyed,
    query: looking.extend({ person: z.string().max(64) }),
    answer: z.object({
      since: sinceWhen,
      name: z.string(),
      /** With how many requests they have to do. */
      requests: z.int(),
      fields: z.array(z.object({ field: z.string(), label: z.string(), levels: z.array(levelOver) })),
    }),
  },
  fieldReach: {
    says: 'Everything that the value of a field reaches: what rules, formulas, routing and checks of the forms make of it, with the way there and who learns of it that may not read it; what requests are called, emails, moves, and references of other registers.',
    params: keyed,
    query: z.strictObject({ field: z.string().max(130), plan: z.enum(['force', 'draft']).default('force') }),
    answer: z.object({
      /** The forms in force, those with places alone. `places`: null where the plan tells too many kinds of people apart. */
      forms: z.array(
        z.object({
          key: z.string(),
          title: z.string(),
          places: z
            .array(
              z.object({
                says: words,
                how: z.enum(['value', 'verdict']),
                way: z.array(words),
                leaksTo: words.nullable(),
              }),
            )
            .nullable(),
        }),
      ),
      /** Whether requests are called by it. */
      isCalled: z.boolean(),
      /** Whether emails may hold it: nobody of the desk is kept out of it there. */
      inEmails: z.boolean(),
      /** Labels of the stages from which a move asks for it. */
      moves: z.array(z.string()),
      /** Reference fields of other registers that show it or carry it along, if it is open to all of the desk. */
      references: z.array(z.object({ register: z.string(), field: z.string(), isOpen: z.boolean() })),
    }),
  },
  seeAs: {
    says: 'A request as somebody else is given it, at any stage, by the plan in force or by the draft; what is hidden from the caller stays hidden. It is noted who looked.',
    params: numbered,
    body: z.strictObject({
      /** A person, an invented member of the staff in some groups, or null: somebody who is not known. */
      as: z.union([z.strictObject({ person: z.string().max(64) }), z.strictObject({ groups: groupKeys })]).nullable(),
      plan: z.enum(['force', 'draft']),
      /** The key of a stage that it is looked at as if it were at it; null: where it stands. */
      stage: z.string().max(64).nullable(),
      /** The id of an edition that it is looked at in, null: the form as it is; left out: the one they are given. */
      edition: z.string().max(64).nullable().optional(),
    }),
    answer: z.object({
      who: words,
      /** Whether they are given the sheet of the desk, their own page, or nothing. */
      sees: z.enum(['sheet', 'own', 'given', 'nothing']),
      number: z.string(),
      stage: z.string(),
      /** What the request is called to them; there, in lists, and in emails. */
      subject: words.nullable(),
      inLists: words.nullable(),
      inEmails: words.nullable(),
      fields: z.array(
        z.object({
          ...{ key: z.string(), label: z.string(), level, rule: words, shown: words },
          /** How the edition that they are given lays it out, where it does. */
          layout: z.enum(['left-out', 'locked']).nullable(),
          /** They read it; it is hidden from the caller. */
          isMasked: z.boolean(),
          /** It is not in emails to them, or not in a file they export. */
          notInEmails: z.boolean(),
          notInFiles: z.boolean(),
        }),
      ),
      /** The edition in which it is looked at; null: as the form is. */
      edition: z.string().nullable(),
      /** The editions of its form that it can be looked at in. */
      editions: z.array(called),
      /** Whether they may export requests such as this. */
      mayExport: z.boolean(),
    }),
  },
  accessPlanEffect: {
    says: 'What putting the written access plan in force would change: for whom, which field, on how many requests.',
    params: keyed,
    answer: z.object({
      /** Whoever has to do with requests on which something changes, two hundred at most. */
      people: z.array(
        z.object({
          id: z.string(),
          name: z.string(),
          email: z.string(),
          fields: z.array(z.object({ ...change, activity, requests: z.int() })),
        }),
      ),
      /** How many more people there are. */
      more: z.int(),
      /** The same by field: for how many people, and on how many requests at most for one of them. */
      fields: z.array(
        z.object({ ...change, activity, people: z.int(), requests: z.int(), names: z.array(z.string()) }),
      ),
      /** What changes while somebody asks, by the forms in force: for how many of the staff, and for people from outside. */
      asking: z.array(z.object({ ...change, people: z.int(), names: z.array(z.string()), outside: z.boolean() })),
      /** What changes for the caller on requests they work on. */
      yours: z.array(z.object(change)),
      /** Ways by which forms in force would tell somebody more than before. */
      opens: z.array(opening),
      /** Ways that are open and would be closed. */
      closes: z.array(opening),
      /** Labels of fields that it opens further than the caller has them open. */
      mayNotOpen: z.array(words),
    }),
  },
  putAccessPlan: {
    says: 'Puts the written access plan in force, for all requests of its register.',
    params: keyed,
    body: z.strictObject({
      /** Why; others read it later. */
      note: z.string().max(500),
      /** Yes to closing something to oneself. */
      closesToMyself: z.boolean(),
    }),
    answer: versioned,
  },
});
