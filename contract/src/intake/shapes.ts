import type { RevealedFacts } from '@tolvek/core/access';
import { PROVING } from '@tolvek/core/door';
import { LANGUAGES } from '@tolvek/words';
import { z } from 'zod';
import { consent } from '../door/shapes.ts';
import { parts, rule } from '../form/shapes.ts';
import { field, kind, knownFile, knownPerson, knownRequest, vocabulary } from '../register/shapes.ts';
import { exactly } from '../wire/exactly.ts';
import {
  fieldKey,
  fieldValue,
  moment,
  rawAnswers,
  visibleChanges,
  visibleSubject,
  visibleValues,
} from '../wire/shapes.ts';
import { words } from '../wire/words.ts';

const facts = exactly<RevealedFacts>()(
  z.object({
    requesterIsOutside: z.boolean(),
    requesterId: z.string().nullable(),
    requesterGroups: z.array(z.string()),
    department: z.string(),
    profile: z.object({
      fields: z.array(z.object({ key: z.string(), type: kind })),
      values: z.record(z.string(), fieldValue),
    }),
    calendar: z.object({
      ...{ open: z.array(z.boolean()), closed: z.array(z.string()) },
      opened: z.array(z.string()).optional(),
    }),
    door: z.enum(['staff', 'outside']),
    today: z.string(),
    now: z.string(),
    people: z.array(knownPerson),
    files: z.array(knownFile),
    vocabularies: z.array(vocabulary).readonly(),
    references: z.array(knownRequest),
    numbers: z.record(z.string(), z.string()),
  }),
);
/** What was typed and not sent, with the files and requests it names. */
export const keptAnswers = z.object({
  answers: rawAnswers,
  typedAt: z.int(),
  /** What proves since when it has been filled in; null where it was kept before that was known. */
  opened: z.string().nullable(),
  files: z.array(knownFile),
  references: z.array(knownRequest),
});
/** Something of theirs: what stands in the questions, as it would be typed and as it reads. */
export const changeable = z.object({
  ...{ id: z.string(), number: z.string(), subject: visibleSubject, stood: rawAnswers },
  values: visibleValues,
  ...{ files: z.array(knownFile), references: z.array(knownRequest) },
  /** What they sent that waits to be accepted. */
  waiting: z.object({ at: moment, changes: visibleChanges }).nullable(),
});
/** Where somebody asks instead: another form by a door that lets them in, none where it lets nobody in just now; or an address. */
export const leadsTo = z
  .union([
    z.object({ to: z.literal('form'), slug: z.string().nullable(), title: z.string() }),
    z.object({ to: z.literal('address'), address: z.string(), host: z.string() }),
  ])
  .nullable();

export const doorView = z.object({
  slug: z.string(),
  kind: z.enum(['staff', 'outside']),
  title: z.string(),
  /** The language that the form is in. */
  spoken: z.enum(LANGUAGES),
  /** Null when the viewer isn't admitted; the refusal says why. */
  form: z
    .object({
      intro: z.string(),
      release: z.int(),
      /** What proves since when it has been filled in: whoever shows it has the time to finish when the door closes. */
      opened: z.string(),
      consent: consent.nullable(),
      /** Fields whose answers an address may bring along. */
      prefills: z.array(fieldKey),
      /** Whether the device has to work something out before it sends. */
      work: z.boolean(),
      fields: z.array(field).readonly(),
      parts,
      rules: z.array(rule).readonly(),
      facts,
      /** What of theirs its answers change; null for a form that adds. */
      updates: z
        .object({
          /** The question that says whose it is, where one does: it is theirs. */
          whose: fieldKey.nullable(),
          /** The questions by whose answers it is found. */
          by: z.array(fieldKey),
          /** Whether they may add one where none is found, or beside what is found. */
          ...{ adds: z.boolean(), beside: z.boolean() },
          /** Whether a change counts only when it is accepted. */
          waits: z.boolean(),
          /** Whether it was sent to them to look at just that. */
          sent: z.boolean(),
          theirs: z.array(changeable),
        })
        .nullable(),
      /**
       * Fields whose answers the house looks at together while they are filled in: what no two
       * requests may have, and what limits a reference.
       */
      together: z.array(z.array(fieldKey)),
      /** Questions whose answers may lead to another form, or elsewhere. */
      leadsBy: z.array(fieldKey),
      /** What the caller, signed in, typed here before and has not sent. */
      kept: keptAnswers.nullable(),
    })
    .nullable(),
  refusal: words.nullable(),
  /** Whether somebody of whom nothing is here yet may fill it in all the same, to be added once they confirm their address. */
  addsInstead: z.boolean(),
  /** Whether nothing about who asks is stored. */
  unnamed: z.boolean(),
  /** How whoever asks from outside proves their address; null: before it comes in, once on a device. */
  proves: z.enum(PROVING).nullable(),
  /** By the clock of the desk. */
  now: moment,
  /** When it closes, where that is said. */
  closes: moment.nullable(),
  /** How many minutes more they have who are filling in then. */
  finishing: z.int(),
  /** Until when they may still send, where it is closed. */
  finishBy: moment.nullable(),
  /** How many more can send, where that is shown. */
  places: z.int().nullable(),
  /** The caller’s own request for which no other may come in. */
  earlier: z.object({ number: z.string(), subject: words, stage: z.string() }).nullable(),
  /** Where else they can ask. */
  instead: z.object({ slug: z.string(), title: z.string() }).nullable(),
  /** As whom somebody asks from outside who is signed in; null for who is not. */
  asks: z.object({ name: z.string(), email: z.string() }).nullable(),
  /** What the refusal comes from: of the door, or that the register is kept by its own desk. */
  why: z
    .enum(['closed', 'not-yet', 'sign-in', 'inactive', 'not-for-you', 'full', 'kept-by-others', 'owed-closed'])
    .nullable(),
  /** Where they ask instead: another form by a door that lets them in, none where it lets nobody in just now; or an address elsewhere. */
  leadsTo,
  /** How the caller stands to those who wait for a place: they can join them, are among them, or one is held for them until a moment. */
  line: z.object({ is: z.enum(['open', 'in', 'held']), until: moment.nullable() }).nullable(),
  /** Where the form was sent to who calls: why, about what, until when, and whether they may pass it on. */
  sent: z
    .object({
      ...{ id: z.string(), text: z.string(), about: words.nullable(), due: moment.nullable(), passesOn: z.boolean() },
    })
    .nullable(),
});
