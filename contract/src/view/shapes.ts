import { SILENCES } from '@tolvek/core/approval';
import type { Fuse } from '@tolvek/core/deadline';
import { AGAIN } from '@tolvek/core/door';
import { priorities } from '@tolvek/core/register';
import { OUTCOMES } from '@tolvek/core/routing';
import { z } from 'zod';
import { consent } from '../door/shapes.ts';
import { owedState } from '../mailing/shapes.ts';
import { person } from '../people/shapes.ts';
import { kind, knownPerson, knownRequest, stage, vocabulary } from '../register/shapes.ts';
import { moment, visibleChanges, visibleReason, visibleSubject, visibleTexts, visibleValues } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';

export const fuse = z.object({
  state: z.enum(['calm', 'soon', 'late', 'paused', 'done']),
  burned: z.array(z.object({ from: z.number(), to: z.number() })),
  ticks: z.array(z.number()),
  words,
  left: z.number(),
}) as unknown as z.ZodType<Fuse>;
/** The stops of a request’s way. */
export const hopNames = ['sent', 'routed', 'decision', 'work', 'end'] as const;
export const hop = z.object({
  /** Which stop of the way it is. */
  is: z.enum(hopNames),
  label: words,
  state: z.enum(['past', 'now', 'ahead']),
  detail: words,
});
export const ledgerRow = z.object({
  ...{ number: z.string(), version: z.int() },
  subject: visibleSubject,
  requester: z.string(),
  form: z.string(),
  stage,
  team: z.string(),
  handler: z.string().nullable(),
  /** Priority and all about time are null for things. */
  priority: z.enum(priorities).nullable(),
  /** Something other forms point to: nothing is due, nobody handles it. */
  thing: z.boolean(),
  /** What is due next. */
  fuse: fuse.nullable(),
  /** What that is called; null where it is to be finished. */
  dueFor: words.nullable(),
  due: moment.nullable(),
  updatedAt: moment,
});
/** A file that was sent with a message. */
const messageFile = z.object({ id: z.string(), name: z.string() });
export const historyEntry = z.object({
  id: z.string(),
  at: moment,
  who: z.string(),
  what: words,
  changes: visibleChanges,
  comment: z
    .object({ text: z.string(), visibility: z.enum(['internal', 'requester', 'handler']), files: z.array(messageFile) })
    .nullable(),
  /** What whoever did it agreed to; null where nothing was asked. */
  agreed: consent.nullable(),
});
/** A step of a decision. `since`: since when it is asked; null where it is not yet. */
const decisionStep = z.object({
  ...{ label: z.string(), needed: z.int(), since: moment.nullable() },
  /** Until when it is decided, what silence means then, and what it has come to; null where there is no end of it. */
  until: moment.nullable(),
  silence: z.enum(SILENCES).nullable(),
  silently: z.enum(['approved', 'refused']).nullable(),
  seats: z.array(
    z.object({
      /** Empty where nobody can decide. */
      who: z.string(),
      /** By what they are asked, where no design names them: a field, or somebody whose place it was. */
      as: words.nullable(),
      state: z.enum(['ahead', 'open', 'approved', 'refused', 'closed']),
      ...{ by: z.string().nullable(), at: moment.nullable(), comment: z.string().nullable() },
      /**
       * What was in view when it was decided, of what its reader may read: labels of fields, and which of them have changed
       * since. Null where nothing was decided, or that is not kept.
       */
      read: z.object({ fields: z.array(z.string()), changed: z.array(z.string()) }).nullable(),
    }),
  ),
});
/** What the desk asks whoever asked: in its words, by whom. */
export const asked = z.object({ text: z.string(), from: z.string(), at: moment });
/** A form that somebody has to fill in. */
export const toFill = z.object({
  ...{ id: z.string(), slug: z.string(), title: z.string(), about: words.nullable() },
  ...{ due: moment.nullable(), late: z.boolean(), passesOn: z.boolean() },
});
const proposal = z.object({
  ...{ id: z.string(), at: moment, form: z.string(), changes: visibleChanges },
});
/** A change that waits, for whoever may accept it. */
export const proposalTold = proposal.extend({ by: z.string(), whyNot: words.nullable(), seen: z.string() });
/** What can be done beside a request, each with the words it stands at, by their place. */
const actions = z.array(
  z.discriminatedUnion('does', [
    z.object({
      ...{ at: z.int(), id: z.string(), does: z.literal('take-part'), label: z.string(), back: z.string() },
      /** Whether its reader takes part. */
      isIn: z.boolean(),
      /** How many places are free, where its reader may read who takes part; null where nothing limits them. */
      left: z.int().nullable(),
      /** Why they can’t. */
      whyNot: words.nullable(),
    }),
    z.object({ at: z.int(), id: z.string(), does: z.literal('ask'), label: z.string() }),
    /** Why it can’t be decided by it now; null where it can. */
    z.object({ at: z.int(), id: z.string(), does: z.literal('begin'), label: z.string(), whyNot: words.nullable() }),
    z.object({ at: z.int(), does: z.literal('write'), label: z.string(), to: z.string() }),
  ]),
);
export const requesterView = z.object({
  number: z.string(),
  version: z.int(),
  form: z.string(),
  /** Who asked on the caller’s behalf, and on whose behalf the caller asked; by name. */
  askedBy: z.string().nullable(),
  onBehalf: z.string().nullable(),
  subject: visibleSubject,
  stage: z.string(),
  finished: z.boolean(),
  /** Whether it is handled together with another about the same. */
  together: z.boolean(),
  sentAt: moment,
  /** What the requester may count on; null when it is finished. */
  promise: words.nullable(),
  /** What it waits for, where it waits for its reader and the desk wrote it. */
  question: asked.nullable(),
  values: visibleValues,
  /** What is said beside it to whom it is given so, and what they can do there. */
  words: visibleTexts,
  actions,
  /** Of the answers that they may change: their kinds, their help, and the vocabularies these need. */
  changing: z.object({
    types: z.record(z.string(), kind),
    help: z.record(z.string(), z.string()),
    vocabularies: z.array(vocabulary).readonly(),
    /** What a changed answer has done anew. */
    again: z.array(z.enum(AGAIN)).readonly(),
    /** The keys of those by whose change who decides is asked again. */
    asksAgain: z.array(z.string()).readonly(),
  }),
  /** The labels of what the desk has begun to change just now, as far as its reader may read it. */
  atWork: z.array(z.string()),
  /** Whether its answers are open to be changed at once, as its reader is given it. */
  opensToChange: z.boolean(),
  /** Its days and moments that its reader may read, on the clock of the desk (ISO 8601). */
  dates: z.array(z.object({ key: z.string(), label: z.string(), at: z.string() })),
  /** The slug by which its reader can ask the same again; null where that is not open to them. */
  again: z.string().nullable(),
  /** What its reader is asked about it, and has not answered. */
  toFill: z.array(toFill),
  /** How many links to it work, and until when the last of them does. */
  links: z.object({
    ...{ working: z.int(), until: moment.nullable(), needsCode: z.boolean() },
    /** Those that work; `here`: the one its reader came by. */
    each: z.array(z.object({ id: z.string(), made: moment.nullable(), until: moment, here: z.boolean() })),
    /** Whether its reader can have a new one sent to their address. */
    mayRenew: z.boolean(),
  }),
  /** Changes that its reader sent and that wait to be accepted. */
  proposals: z.array(proposal),
  /** Whether its reader can withdraw it. */
  mayWithdraw: z.boolean(),
  /** The text that was agreed to when it was sent. */
  consent: consent.nullable(),
  hops: z.array(hop),
  /** How it went and what is planned, in the words of its requester: in the order of time. */
  course: z.array(z.object({ at: moment, what: words, state: z.enum(['past', 'now', 'ahead']) })),
  /**
   * The steps by which it is decided, while it is, as far as its reader may know. `who`: who is asked just now, of whom
   * `needed` of `of` still have to agree; `until`: until when, where that is said.
   */
  deciding: z.array(
    z.object({
      ...{ label: z.string(), state: z.enum(['over', 'asked', 'ahead']), who: z.array(z.string()) },
      ...{ needed: z.int(), of: z.int(), since: moment.nullable(), until: moment.nullable() },
    }),
  ),
  messages: z.array(
    z.object({ at: moment, from: z.string(), mine: z.boolean(), text: z.string(), files: z.array(messageFile) }),
  ),
});
/** A request as somebody from outside sees it who was asked to handle or to decide it. */
export const given = z.object({
  ...{ number: z.string(), version: z.int(), form: z.string(), subject: visibleSubject, stage: z.string() },
  /** Who asked, by name; empty where nobody said. */
  requester: z.string(),
  due: moment.nullable(),
  values: visibleValues,
  words: visibleTexts,
  hops: z.array(hop),
  /** Whether its reader handles it. */
  handles: z.boolean(),
  /** Where they can move it to, as requesters read the stages. */
  moves: z.array(z.object({ key: z.string(), label: z.string() })),
  changing: z.object({
    types: z.record(z.string(), kind),
    help: z.record(z.string(), z.string()),
    vocabularies: z.array(vocabulary).readonly(),
    asksAgain: z.array(z.string()).readonly(),
  }),
  /** Whether its requester can be written to. */
  mayWrite: z.boolean(),
  /** What was written to and by its requester, one’s own notes to the desk, and what it wrote to oneself `alone`. */
  messages: z.array(
    z.object({
      ...{ at: moment, from: z.string(), mine: z.boolean(), text: z.string(), files: z.array(messageFile) },
      /** Whether only the desk reads it. */
      note: z.boolean(),
      alone: z.boolean(),
    }),
  ),
  /** What they are asked to decide; null where they are not. */
  decision: z
    .object({ step: z.string(), until: moment.nullable(), mayReturn: z.boolean(), seen: z.string() })
    .nullable(),
});

/** Whose portrait it is, and what changes when it does; null where there is none. */
const face = z.object({ id: z.string(), portrait: z.string() }).nullable();
export const sheet = z.object({
  number: z.string(),
  version: z.int(),
  subject: visibleSubject,
  form: z.string(),
  release: z.int(),
  /** The key of its form, for whoever builds it. */
  builds: z.string().nullable(),
  trial: z.boolean(),
  /** The request it was merged into, and those that were merged into it, as far as whoever reads works on them. */
  merged: z.object({
    into: z.object({ number: z.string(), subject: visibleSubject }).nullable(),
    took: z.array(z.object({ number: z.string(), subject: visibleSubject })),
  }),
  /** Something other forms point to: nothing is due, nobody handles it. */
  thing: z.boolean(),
  /** Null where the desk made it itself. */
  door: z.enum(['staff', 'outside']).nullable(),
  /** The text that who asked agreed to; an empty one where it is not known any more. */
  consent: consent.nullable(),
  /** Without a name where nobody said who asks. */
  requester: z.object({
    ...{ name: z.string(), outside: z.boolean(), face },
    /** The address they gave and have not confirmed; null where they have, or gave none. */
    unconfirmed: z.string().nullable(),
  }),
  /** On whose behalf, and who typed it in, where these are others. */
  onBehalf: z.string().nullable(),
  enteredBy: z.string().nullable(),
  stage,
  /** The ways on from here. */
  /** What its reader has the right to do with it. */
  may: z.object({
    change: z.boolean(),
    move: z.boolean(),
    assign: z.boolean(),
    delete: z.boolean(),
    share: z.boolean(),
    history: z.boolean(),
  }),
  /** Who can give its reader the rights that they lack, by name. */
  givers: z.array(z.string()),
  /** Who reads it besides those who work on it, until which day. */
  shares: z.array(z.object({ holder: z.string(), name: z.string(), until: z.iso.date().nullable() })),
  /** Who else follows it, by name, and whether whoever calls does. */
  followers: z.object({ others: z.array(z.string()), mine: z.boolean() }),
  moves: z.array(stage),
  /** The ways on that this viewer can’t take now, by the stage they lead to, and why not. */
  notNow: z.array(z.object({ label: z.string(), whyNot: words })),
  team: z.string(),
  handler: person.extend({ face, outside: z.boolean() }).nullable(),
  assignable: z.array(person),
  /** The teams it can be handed over to, and its own among them. */
  teams: z.array(z.object({ key: z.string(), name: z.string(), here: z.boolean() })),
  /** Where a coordinator can free it to; nowhere for anybody else. */
  frees: z.array(stage),
  /** Priority, routing and all about time are null for things. */
  priority: z.enum(priorities).nullable(),
  values: visibleValues,
  /** In which edition its reader is given it, and the fields that it leaves out; null: as the form is. */
  edition: z.object({ name: z.string(), leftOut: z.array(z.string()), opensToChange: z.boolean() }).nullable(),
  /** What that edition says beside it, and what its reader can do there. */
  words: visibleTexts,
  actions,
  /** Why its handler is: by which rule, and why nobody else. */
  handlerWhy: z.array(words).readonly(),
  /** The keys of fields by whose change who decides is asked again. */
  asksAgain: z.array(z.string()).readonly(),
  fieldTypes: z.record(z.string(), kind),
  /** What the form says to whoever fills a field in, by field; the same helps at the desk. */
  help: z.record(z.string(), z.string()),
  /** Who can be picked in its fields for people. */
  people: z.array(knownPerson),
  /** What its fields take terms from, and what its references point to. */
  vocabularies: z.array(vocabulary).readonly(),
  references: z.array(knownRequest),
  /** The numbers of those the viewer works on, and may open. */
  opens: z.array(z.string()),
  /** Requests that point to this one, as far as the viewer works on them. */
  pointing: z.array(z.object({ number: z.string(), subject: visibleSubject, field: z.string() })),
  /** The mailings that could ask about it now; none for who may not change it. */
  asks: z.array(z.object({ id: z.string(), name: z.string(), form: z.string() })),
  /** What was asked about it by mailings, and what was answered as far as its reader may know. */
  asked: z.array(
    z.object({
      ...{ name: z.string(), form: z.string() },
      rows: z.array(
        z.object({
          ...{ person: z.string(), state: owedState, sent: moment, due: moment.nullable(), closed: moment.nullable() },
          answer: z.object({ number: z.string(), values: visibleValues }).nullable(),
        }),
      ),
      means: z.array(z.object({ label: z.string(), count: z.int(), shown: words })),
    }),
  ),
  /** The links by which it is followed without signing in, for whoever may change it. */
  links: z.array(
    z.object({
      ...{ id: z.string(), person: z.string(), made: moment.nullable(), until: moment },
      state: z.enum(['works', 'ended', 'expired']),
      /** Whether a code by email is asked for besides. */
      needsCode: z.boolean(),
    }),
  ),
  /** Changes that somebody sent by a form and that wait to be accepted. */
  proposals: z.array(proposalTold),
  /** All that it is due by: what is open first, the nearest first. */
  deadlines: z.array(
    z.object({
      key: z.string(),
      name: words,
      due: moment,
      fuse,
      state: z.enum(['open', 'over', 'ended']),
      /** How the moment was reckoned. */
      why: z.array(words),
      /** What will ring for it, and who hears of it; in order. */
      rings: z.array(z.object({ at: moment, what: words })),
    }),
  ),
  /** What whoever asked wished for, as they said it; null where they were not asked, said nothing, or it may not be read. */
  wishes: z.object({ priority: words.nullable(), due: words.nullable() }),
  hops: z.array(hop),
  routing: z
    .object({
      /** Null where it rests on what this reader may not read. */
      row: z.int().nullable(),
      outcome: words,
      rows: z.array(
        z.object({
          ...{ row: z.int(), note: words, won: z.boolean(), cells: z.array(visibleReason) },
          /** What the row set, in a table in which several rows do. */
          says: z.array(z.enum(OUTCOMES)).readonly().optional(),
        }),
      ),
    })
    .nullable(),
  approval: z
    .object({
      label: z.string(),
      group: z.string(),
      /** Who decides in the place of those who are away today, by name. */
      instead: z.array(z.string()),
      state: z.enum(['waiting', 'approved', 'refused', 'withdrawn']),
      decidedBy: z.string().nullable(),
      comment: z.string().nullable(),
      mayDecide: z.boolean(),
      /** Whether its reader may decide for those who are asked, and says why. */
      mayDecideFor: z.boolean(),
      /** Whether whoever asked can be asked for more first; it waits for that already where its stage is paused. */
      mayReturn: z.boolean(),
      /** Whether its reader may ask somebody else to decide instead. */
      mayHand: z.boolean(),
      /** Whether its reader may take back what they have said, as nothing has followed from it. */
      mayTakeBack: z.boolean(),
      /** Since when nobody can decide who could bring it to an end. */
      nobodySince: moment.nullable(),
      /** Stands for what is in view; a decision says it, so that it is on what was read. */
      seen: z.string(),
      whyNot: words.nullable(),
      /** All its steps, in turn, each with those who are asked and what they said. */
      steps: z.array(decisionStep),
    })
    .nullable(),
  history: z.array(historyEntry),
});
export const trayKeys = [
  ...([
    'arrived',
    'mine',
    'team',
    'deciding',
    'undecided',
    'proposed',
    'paused',
    'late',
    'followed',
    'shared',
  ] as const),
  ...(['all', 'things'] as const),
] as const;
export type TrayKey = (typeof trayKeys)[number];
