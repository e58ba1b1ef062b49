import { type Length, type Said, said, type Words } from '@tolvek/words';
import type { Revealed, VisibleChange, VisibleValues } from '../access/index.ts';
import { own } from '../own/index.ts';
import type { NoticeText } from '../telling/index.ts';
import { type Merged, mergeText, type Slot } from '../telling/index.ts';
import type { NoticeCause } from './cause.ts';

/** An email before it is dressed as text and HTML: in codes, or in the words of its reader. */
export interface Letter<Text = string> {
  readonly subject: Text;
  readonly greeting: Text;
  readonly paragraphs: readonly Text[];
  readonly facts: readonly { readonly label: string; readonly shown: Text }[];
  readonly action: { readonly label: Text; readonly note: Text };
  /** What becomes of an answer by email, where the desk reads them. */
  readonly reply?: Text;
  /** Several things in one email, each with where it leads. None when nothing is said. */
  readonly items?: readonly LetterItem<Text>[];
}

/** One thing of several in an email: a path at the desk, with a link of its own by its id where it needs one. */
export interface LetterItem<Text = string> {
  readonly words: Text;
  readonly path: string;
  readonly link: string | null;
}

export interface NoticeContext {
  readonly number: string;
  readonly formTitle: string;
  /** The request's subject as this reader may know it. */
  readonly subject: Revealed<Words>;
  /** The fields this reader may read; nothing else can get into an email. */
  readonly visible: Revealed<VisibleValues>;
  readonly reader: string;
  /** Whose request it is, where a name is known. */
  readonly requester: string;
  /** Until when its button opens the request for whoever has the link, epoch ms; null where they sign in. */
  readonly linkUntil: number | null;
  /** Whether a code by email is asked for besides. */
  readonly needsCode: boolean;
  /** What an answer by email becomes; null where nobody would read it. */
  readonly answers: 'message' | 'note' | null;
}

/** Moments are epoch ms; `due` is null where nothing is due. An empty name is the desk’s own doing. */
export type NoticeEvent =
  | { readonly kind: 'received'; readonly due: number | null }
  | { readonly kind: 'new-link' }
  | { readonly kind: 'new-request'; readonly team: string; readonly due: number | null }
  /** `until`: when the time of its step is over, where it has an end; `again`: they were asked before. */
  | {
      readonly kind: 'approval-asked';
      readonly due: number | null;
      readonly until: number | null;
      readonly again: boolean;
      readonly expires: number;
    }
  | {
      readonly kind: 'approved';
      readonly by: string;
      readonly comment: string;
      readonly silent: boolean;
      readonly due: number | null;
    }
  | { readonly kind: 'refused'; readonly by: string; readonly comment: string; readonly silent: boolean }
  | { readonly kind: 'undecided' | 'nobody-decides'; readonly step: string }
  | { readonly kind: 'nobody-handles'; readonly team: string }
  /** `outside`: to somebody who has no account, and is asked for this one request. */
  | { readonly kind: 'assigned'; readonly by: string; readonly due: number | null; readonly outside: boolean }
  | { readonly kind: 'message'; readonly from: string; readonly text: string; readonly files: readonly string[] }
  | { readonly kind: 'returned'; readonly by: string; readonly text: string }
  | { readonly kind: 'together' | 'apart' }
  | { readonly kind: 'stage'; readonly stage: string; readonly is: 'paused' | 'resumed' | 'finished' }
  /** `name`: what the deadline is called; null for the finish as it is called by itself. */
  | { readonly kind: 'reminder'; readonly name: string | null; readonly left: Length; readonly due: number }
  | { readonly kind: 'escalation'; readonly name: string | null; readonly due: number; readonly handler: string }
  /** To whoever asked. */
  | { readonly kind: 'due'; readonly name: Words; readonly due: number; readonly isPast: boolean }
  /** `follows`: they chose to hear of it. */
  | {
      readonly kind: 'news';
      readonly by: string;
      readonly what: Words;
      readonly text: string;
      readonly follows: boolean;
    }
  | {
      readonly kind: 'proposed';
      readonly by: string;
      readonly form: string;
      /** What of it this reader may read. */
      readonly changes: readonly Pick<VisibleChange, 'label' | 'before' | 'after'>[];
      readonly expires: number;
    }
  | { readonly kind: 'proposal'; readonly accepted: boolean; readonly by: string; readonly reason: string }
  /** What a form sends besides; `theirs`: to whoever asked; `answers`: it shows them. */
  | { readonly kind: 'rule'; readonly name: string; readonly theirs: boolean; readonly answers: boolean };

/** What an email says, without what all emails share. */
interface Gist {
  readonly subject: Said;
  readonly paragraphs: readonly Words[];
  readonly action: Said;
  readonly note?: Said;
  /** Whether it shows the request’s fields. */
  readonly facts?: boolean;
}

type Of<Kind extends NoticeEvent['kind']> = Extract<NoticeEvent, { kind: Kind }>;

/** Writes the email for one event and one reader: who did what and what is to be done by when, first. */
export function draftNotice(event: NoticeEvent, context: NoticeContext): Letter<Words> {
  const { subject, paragraphs, action, note, facts } = gistOf(event, context);
  return {
    subject,
    greeting: said('emails:dear', { name: context.reader }),
    paragraphs,
    facts: facts
      ? context.visible.fields.filter((field) => field.shown !== '').map(({ label, shown }) => ({ label, shown }))
      : [],
    action: {
      label: action,
      note:
        note ??
        (context.linkUntil === null
          ? ''
          : said(context.needsCode ? 'emails:followNoteCode' : 'emails:followNote', { until: context.linkUntil })),
    },
    ...(context.answers === null ? {} : { reply: answeredWith(context.answers, context.requester) }),
  };
}

/** What an email can put in besides fields, as its reader may have it; nothing where there is none. */
export type Facts = Readonly<Partial<Record<Slot, Words>>>;

/** An email in the words that its form has for it, where it has some. What its reader may not read is not there to be put in. */
export function inOwnWords(
  letter: Letter<Words>,
  { subject, text }: NoticeText,
  { number, formTitle, subject: called, visible, reader, requester }: NoticeContext,
  facts: Facts,
): { readonly letter: Letter<Words>; readonly left: Merged['left'] } {
  const all: Facts = {
    ...facts,
    ...{ 'request.number': number, 'request.form': formTitle, 'request.subject': called },
    ...{ 'requester.name': requester, 'reader.name': reader },
  };
  const shown = new Map(visible.fields.map((field) => [field.key, field.shown]));
  const filled = (name: string): Words | null => own(all, name) ?? shown.get(name) ?? null;
  const head = mergeText(subject, filled);
  const body = mergeText(text, filled);
  const [line] = head.paragraphs;
  return {
    letter: {
      ...letter,
      ...(line === undefined ? {} : { subject: line }),
      ...(body.paragraphs.length === 0 ? {} : { paragraphs: body.paragraphs }),
    },
    left: [...head.left, ...body.left],
  };
}

/** What whoever answers an email is told of where their words go. */
function answeredWith(answers: 'message' | 'note', requester: string): Said {
  if (answers === 'message') return said('emails:answer.message');
  return requester ? said('emails:answer.note', { requester }) : said('emails:answer.noteNobody');
}

function gistOf(event: NoticeEvent, context: NoticeContext): Gist {
  switch (event.kind) {
    case 'received':
      return received(event, context);
    case 'new-link':
      return newLink(context);
    case 'new-request':
      return newRequest(event, context);
    case 'approval-asked':
      return approvalAsked(event, context);
    case 'nobody-handles':
      return nobodyHandles(event, context);
    case 'undecided':
    case 'nobody-decides':
      return undecided(event, context);
    case 'approved':
      return approved(event, context);
    case 'refused':
      return refused(event, context);
    case 'assigned':
      return assigned(event, context);
    case 'message':
      return message(event, context);
    case 'returned':
      return returned(event, context);
    case 'together':
    case 'apart':
      return together(event, context);
    case 'stage':
      return stage(event, context);
    case 'reminder':
      return reminder(event, context);
    case 'escalation':
      return escalation(event, context);
    case 'due':
      return due(event, context);
    case 'news':
      return news(event, context);
    case 'proposed':
      return proposed(event, context);
    case 'proposal':
      return proposal(event, context);
    case 'rule':
      return ruled(event, context);
  }
}

const ruled = ({ name, theirs, answers }: Of<'rule'>, { number, subject, formTitle: form }: NoticeContext): Gist => ({
  subject: said('emails:rule.subject', { name, about: theirs ? form : subject, number }),
  paragraphs: [],
  action: theirs ? followIt : openIt,
  facts: answers,
});

const dueOn = (due: number | null): readonly Said[] => (due === null ? [] : [said('emails:dueOn', { due })]);
const openIt = said('emails:openRequest');
const followIt = said('emails:follow');

const received = ({ due }: Of<'received'>, { number, formTitle: form }: NoticeContext): Gist => ({
  subject: said('emails:received.subject', { form, number }),
  paragraphs: [
    due === null ? said('emails:received.body') : said('emails:received.plan', { due }),
    said('emails:received.sent'),
  ],
  action: followIt,
  facts: true,
});

const newLink = ({ number, formTitle: form }: NoticeContext): Gist => ({
  subject: said('emails:newLink.subject', { form, number }),
  paragraphs: [said('emails:newLink.body')],
  action: followIt,
});

const newRequest = ({ team, due }: Of<'new-request'>, { number, subject, requester }: NoticeContext): Gist => ({
  subject: said('emails:new.subject', { team, subject, number }),
  paragraphs: [
    requester ? said('emails:new.from', { requester, team }) : said('emails:new.nobody', { team }),
    ...(due === null ? [] : [said('emails:finishBy', { due })]),
  ],
  action: openIt,
  facts: true,
});

const approvalAsked = (
  { due, until, again, expires }: Of<'approval-asked'>,
  { number, subject, requester }: NoticeContext,
): Gist => ({
  subject: again
    ? said('emails:approve.again', { subject, number })
    : requester
      ? said('emails:approve.subject', { requester, subject, number })
      : said('emails:approve.subjectNobody', { subject, number }),
  paragraphs: [
    requester ? said('emails:approve.from', { requester }) : said('emails:approve.nobody'),
    ...(until === null ? [] : [said('emails:approve.until', { until })]),
    ...dueOn(due),
  ],
  action: said('emails:approve.action'),
  note: said('emails:approve.note', { expires }),
  facts: true,
});

const undecided = ({ kind, step }: Of<'undecided' | 'nobody-decides'>, { number, subject }: NoticeContext): Gist => {
  const is = kind === 'undecided' ? 'undecided' : 'nobodyDecides';
  return {
    subject: said(`emails:${is}.subject`, { subject, number }),
    paragraphs: [said(`emails:${is}.body`, { step }), said('emails:freeIt')],
    action: openIt,
  };
};

const nobodyHandles = ({ team }: Of<'nobody-handles'>, { number, subject }: NoticeContext): Gist => ({
  subject: said('emails:nobodyHandles.subject', { subject, number }),
  paragraphs: [said('emails:nobodyHandles.body', { team })],
  action: openIt,
});

const approved = ({ by, comment, silent, due }: Of<'approved'>, { number, formTitle: form }: NoticeContext): Gist => ({
  subject: said('emails:approved.subject', { form, number }),
  paragraphs: [
    silent ? said('emails:approved.silent') : by ? said('emails:approved.by', { by }) : said('emails:approved.us'),
    ...(comment ? [said('emails:comment', { comment })] : []),
    due === null ? said('emails:approved.nextNoDate') : said('emails:approved.next', { due }),
  ],
  action: followIt,
});

const refused = ({ by, comment: reason, silent }: Of<'refused'>, { number, formTitle: form }: NoticeContext): Gist => ({
  subject: said('emails:refused.subject', { form, number }),
  paragraphs: [
    silent ? said('emails:refused.silent') : by ? said('emails:refused.by', { by }) : said('emails:refused.us'),
    ...(reason ? [said('emails:reason', { reason })] : []),
  ],
  action: said('emails:seeRequest'),
});

const assigned = ({ by, due, outside }: Of<'assigned'>, { number, subject }: NoticeContext): Gist => ({
  subject: said(outside ? 'emails:assigned.outsideSubject' : 'emails:assigned.subject', { subject, number }),
  paragraphs: outside
    ? [
        by ? said('emails:assigned.outside', { by }) : said('emails:assigned.outsideUs'),
        said('emails:assigned.noAccount'),
        ...dueOn(due),
      ]
    : [by ? said('emails:assigned.by', { by }) : said('emails:assigned.us'), ...dueOn(due)],
  action: openIt,
  facts: true,
});

const together = ({ kind }: Of<'together' | 'apart'>, { number, formTitle: form }: NoticeContext): Gist => ({
  subject: said(`emails:${kind}.subject`, { form, number }),
  paragraphs: [said(`emails:${kind}.body`), said('emails:together.next')],
  action: followIt,
});

const returned = ({ by, text }: Of<'returned'>, { number, formTitle: form }: NoticeContext): Gist => ({
  subject: said('emails:returned.subject', { form, number }),
  paragraphs: [
    by ? said('emails:returned.by', { by }) : said('emails:returned.us'),
    text,
    said('emails:returned.next'),
  ],
  action: said('emails:message.action'),
});

const message = (
  { from, text, files }: Of<'message'>,
  { number, formTitle: form, linkUntil: until, answers }: NoticeContext,
): Gist => ({
  subject: from
    ? said('emails:message.subject', { from, form, number })
    : said('emails:message.subjectUs', { form, number }),
  paragraphs: [
    from ? said('emails:message.from', { from, number }) : said('emails:message.us', { number }),
    text,
    ...(files.length > 0 ? [said('emails:message.files', { files, count: files.length })] : []),
  ],
  action: said('emails:message.action'),
  ...(answers === null
    ? { note: until === null ? said('emails:message.note') : said('emails:message.noteLink', { until }) }
    : {}),
});

function stage({ stage: at, is }: Of<'stage'>, { number, formTitle: form }: NoticeContext): Gist {
  const about = { form, number };
  switch (is) {
    case 'paused':
      return {
        subject: said('emails:paused.subject', about),
        paragraphs: [said('emails:paused.body', { stage: at })],
        action: said('emails:message.action'),
      };
    case 'resumed':
      return {
        subject: said('emails:resumed.subject', about),
        paragraphs: [said('emails:resumed.body', { stage: at })],
        action: followIt,
      };
    case 'finished':
      return {
        subject: said('emails:finished.subject', about),
        paragraphs: [said('emails:finished.body', { stage: at })],
        action: said('emails:seeRequest'),
      };
  }
}

const news = ({ by, what, text, follows }: Of<'news'>, { number, subject }: NoticeContext): Gist => ({
  subject: said('emails:news.subject', { subject, number }),
  paragraphs: [by ? said('emails:news.by', { by, what }) : what, ...(text ? [text] : [])],
  action: openIt,
  ...(follows ? { note: said('emails:news.note') } : {}),
});

const proposed = ({ by, form, changes, expires }: Of<'proposed'>, { number, subject }: NoticeContext): Gist => ({
  subject: said('emails:proposed.subject', { subject, number }),
  paragraphs: [
    said('emails:proposed.by', { by, form }),
    ...changes.map(({ label, before, after }) =>
      said('emails:proposed.change', {
        label,
        before: before || said('emails:nothing'),
        after: after || said('emails:nothing'),
      }),
    ),
  ],
  action: said('emails:proposed.action'),
  note: said('emails:approve.note', { expires }),
});

const proposal = ({ accepted, by, reason }: Of<'proposal'>, { number, subject }: NoticeContext): Gist => ({
  subject: said(accepted ? 'emails:proposal.accepted' : 'emails:proposal.refused', { subject, number }),
  paragraphs: [
    said(accepted ? 'emails:proposal.acceptedBy' : 'emails:proposal.refusedBy', { by }),
    ...(reason ? [said('emails:reason', { reason })] : []),
  ],
  action: said('emails:seeRequest'),
});

const reminder = ({ name, left, due }: Of<'reminder'>, { number, subject }: NoticeContext): Gist => ({
  subject:
    name === null
      ? said('emails:reminder.subject', { left, subject, number })
      : said('emails:reminder.named', { name, left, subject, number }),
  paragraphs: [
    name === null ? said('emails:reminder.body', { due }) : said('emails:reminder.namedBody', { name, due }),
  ],
  action: openIt,
});

const escalation = ({ name, due, handler }: Of<'escalation'>, { number, subject }: NoticeContext): Gist => ({
  subject:
    name === null
      ? said('emails:overdue.subject', { subject, number })
      : said('emails:overdue.named', { name, subject, number }),
  paragraphs: [
    name === null ? said('emails:overdue.body', { due }) : said('emails:overdue.namedBody', { name, due }),
    handler ? said('emails:overdue.handler', { handler }) : said('emails:overdue.nobody'),
  ],
  action: openIt,
});

const due = ({ name, due: at, isPast }: Of<'due'>, { number, subject }: NoticeContext): Gist => ({
  subject: said('emails:due.subject', { name, subject, number }),
  paragraphs: [said(isPast ? 'emails:due.past' : 'emails:due.body', { name, due: at })],
  action: said('emails:seeRequest'),
});

/**
 * The email that asks an outside requester to confirm their address. It repeats nothing of what
 * was typed. `expires`: epoch ms.
 */
export const draftConfirmation = ({
  form,
  number,
  expires,
}: {
  form: string;
  /** Of the request that came in already; null where confirming sends it. */
  number: string | null;
  expires: number;
}): Letter<Words> => ({
  subject: number === null ? said('emails:confirm.subject', { form }) : said('emails:claim.subject', { form, number }),
  greeting: said('emails:goodDay'),
  paragraphs: [
    number === null ? said('emails:confirm.body') : said('emails:claim.body', { number }),
    said(number === null ? 'emails:confirm.notYou' : 'emails:claim.notYou'),
  ],
  facts: [],
  action: {
    label: said(number === null ? 'emails:confirm.action' : 'emails:claim.action'),
    note: said('emails:confirm.note', { expires }),
  },
});

/**
 * The email with the link to continue a form that was started. It repeats nothing of what was
 * typed. `expires`: epoch ms.
 */
export const draftGoingOn = ({ form, expires }: { form: string; expires: number }): Letter<Words> => ({
  subject: said('emails:later.subject', { form }),
  greeting: said('emails:goodDay'),
  paragraphs: [said('emails:later.body'), said('emails:later.notYou')],
  facts: [],
  action: { label: said('emails:later.action'), note: said('emails:later.note', { expires }) },
});

/** The email that lets one of the staff in for the first time. `expires`: epoch ms; `by`: empty for nobody. */
export const draftInvitation = ({
  reader,
  desk,
  by,
  expires,
}: {
  readonly reader: string;
  readonly desk: string;
  readonly by: string;
  readonly expires: number;
}): Letter<Words> => ({
  subject: said('emails:invite.subject', { house: desk }),
  greeting: said('emails:dear', { name: reader }),
  paragraphs: [
    by ? said('emails:invite.by', { by, house: desk }) : said('emails:invite.us', { house: desk }),
    said('emails:invite.password'),
  ],
  facts: [],
  action: { label: said('emails:invite.action'), note: said('emails:invite.note', { expires }) },
});

/** The email about a duty: moments are epoch ms; `by`: who offers, takes or declines it. */
export const draftDuty = ({
  reader,
  did,
  by,
  ...about
}: {
  readonly reader: string;
  readonly did: 'offered' | 'taken' | 'declined' | 'begins';
  readonly roster: string;
  readonly by: string;
  readonly from: number;
  readonly to: number;
  readonly note: string;
}): Letter<Words> => ({
  subject: said(`emails:duty.${did}Subject`, { by, ...about }),
  greeting: said('emails:dear', { name: reader }),
  paragraphs: [said(`emails:duty.${did}`, { by, ...about }), ...(about.note === '' ? [] : [about.note])],
  facts: [],
  action: { label: said(did === 'offered' ? 'emails:duty.answer' : 'emails:duty.open'), note: '' },
});

/** The email that a frozen copy of a report is there: what came, went and is open, and its figures. */
export const draftReport = ({
  reader,
  cause: { name, over, from, facts, times },
}: {
  readonly reader: string;
  readonly cause: Extract<NoticeCause, { kind: 'report' }>;
}): Letter<Words> => {
  const days = said(`views:stretch.${over}`, { day: from });
  return {
    subject: said('emails:report.subject', { report: name, days }),
    greeting: said('emails:dear', { name: reader }),
    paragraphs: [
      said('emails:report.body', { report: name, days }),
      ...(times ? [said('emails:report.times', times)] : []),
    ],
    facts: facts.map(({ label, shown }) => ({ label, shown })),
    action: { label: said('emails:report.action'), note: said('emails:report.note') },
  };
};

/** The email with a link to choose another password. `expires`: epoch ms. */
export const draftReset = ({
  reader,
  desk,
  expires,
}: {
  readonly reader: string;
  readonly desk: string;
  readonly expires: number;
}): Letter<Words> => ({
  subject: said('emails:reset.subject', { house: desk }),
  greeting: said('emails:dear', { name: reader }),
  paragraphs: [said('emails:reset.body', { house: desk }), said('emails:reset.notYou')],
  facts: [],
  action: { label: said('emails:reset.action'), note: said('emails:invite.note', { expires }) },
});

/** The email by which a contact signs in. `code`: six digits. */
export const draftSignIn = ({
  reader,
  desk,
  code,
  expires,
}: {
  readonly reader: string;
  readonly desk: string;
  readonly code: string;
  readonly expires: number;
}): Letter<Words> => ({
  subject: said('emails:signIn.subject', { code, house: desk }),
  greeting: said('emails:dear', { name: reader }),
  paragraphs: [said('emails:signIn.body', { code, house: desk }), said('emails:signIn.notYou')],
  facts: [],
  action: { label: said('emails:signIn.action'), note: said('emails:invite.note', { expires }) },
});

/** Forms that somebody has to fill in. Moments are epoch ms. */
export interface ToFillIn {
  readonly reader: string;
  readonly form: string;
  /** How many, and what one of them is about where it is one. */
  readonly count: number;
  readonly about: Words | null;
  readonly due: number | null;
  /** Why it is asked, as the desk wrote it. */
  readonly text: string;
  /** Whether it was sent before, and by when its link ends; null where they sign in. */
  readonly again: boolean;
  readonly expires: number | null;
  /** Who passed it on to them. */
  readonly by?: string;
}

/** The email by which a form is sent to somebody who has to fill it in, or is reminded of it. */
export function draftToFillIn({ reader, form, count, about, due, text, again, expires, by }: ToFillIn): Letter<Words> {
  const named =
    about === null ? said('emails:fillIn.form', { form, count }) : said('emails:fillIn.formAbout', { form, about });
  return {
    subject: said(again ? 'emails:fillIn.subjectAgain' : 'emails:fillIn.subject', { what: named }),
    greeting: said('emails:dear', { name: reader }),
    paragraphs: [
      by === undefined
        ? said(again ? 'emails:fillIn.bodyAgain' : 'emails:fillIn.body', { what: named })
        : said('emails:fillIn.passedOn', { by, what: named }),
      ...(text.trim() === '' ? [] : [text]),
      ...(due === null ? [] : [said('emails:fillIn.due', { due })]),
    ],
    facts: [],
    action: {
      label: said('emails:fillIn.action', { count }),
      note: expires === null ? said('emails:fillIn.note') : said('emails:invite.note', { expires }),
    },
  };
}

/** What is written to whom a place is held for: by when they have to send, epoch ms. */
export const draftPlaceFree = ({
  reader,
  form,
  until,
}: {
  readonly reader: string;
  readonly form: string;
  readonly until: number;
}): Letter<Words> => ({
  subject: said('emails:place.subject', { form }),
  greeting: said('emails:dear', { name: reader }),
  paragraphs: [said('emails:place.body', { form, until }), said('emails:place.other')],
  facts: [],
  action: { label: said('emails:place.action'), note: '' },
});

/** Several things that somebody hears of together, each in the words of its own email. */
export const draftDigest = ({
  reader,
  items,
}: {
  readonly reader: string;
  readonly items: readonly LetterItem[];
}): Letter<Words> => ({
  subject: said('emails:digest.subject', { count: items.length, first: items[0]?.words ?? '' }),
  greeting: said('emails:dear', { name: reader }),
  paragraphs: [said('emails:digest.body')],
  facts: [],
  items,
  action: { label: said('emails:digest.action'), note: said('emails:digest.note') },
});

/** The email that shows that emails arrive. */
export const draftTest = ({ reader, desk }: { readonly reader: string; readonly desk: string }): Letter<Words> => ({
  subject: said('emails:test.subject', { house: desk }),
  greeting: said('emails:dear', { name: reader }),
  paragraphs: [said('emails:test.body')],
  facts: [],
  action: { label: said('emails:test.action'), note: '' },
});

/** An email in the words of its reader. */
export const spokenLetter = (letter: Letter<Words>, told: (words: Words) => string): Letter => ({
  subject: told(letter.subject),
  greeting: told(letter.greeting),
  paragraphs: letter.paragraphs.map(told),
  facts: letter.facts.map(({ label, shown }) => ({ label, shown: told(shown) })),
  ...(letter.items ? { items: letter.items.map((item) => ({ ...item, words: told(item.words) })) } : {}),
  action: { label: told(letter.action.label), note: told(letter.action.note) },
  ...(letter.reply === undefined ? {} : { reply: told(letter.reply) }),
});
