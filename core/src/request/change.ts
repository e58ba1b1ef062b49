import { type Language, type Said, said, type Words } from '@tolvek/words';
import type { ValueChange } from '../access/index.ts';
import { type ApprovalPath, type LeadsTo, NOBODY, type Verdict } from '../approval/index.ts';
import type { Chosen } from '../assignment/index.ts';
import { deadlineName, ESCALATION, FINISH, REMINDER, ringInWords } from '../deadline/index.ts';
import type { TakenIn } from '../intake/index.ts';
import { holderOf } from '../people/index.ts';
import type { Priority, Values } from '../register/index.ts';

/** The way something came in. */
export type Through =
  | { readonly by: 'door'; readonly kind: 'staff' | 'outside' }
  | { readonly by: 'sheet of rows' | 'trial' };

/** A text of a door that somebody agreed to with a change: its version, and the language they read it in where it is known. */
export interface AgreedThen {
  readonly door: string;
  readonly version: number;
  readonly language: Language | null;
}

/** Why values changed: by hand, or as something else happened. */
export type Why =
  | { readonly why: 'changed' | 'numbered' | 'day' }
  /** Whoever did it has a place among the people in a field, or has given it back. */
  | { readonly why: 'joined' | 'left' }
  /** By a form that changes what is there: what it is called, and who sent it where somebody else accepted it. */
  | { readonly why: 'updated'; readonly form: string; readonly by?: string; readonly agreed?: AgreedThen }
  /** A rule was applied to what was there, or that was taken back. */
  | { readonly why: 'rule' | 'taken back'; readonly rule: string }
  /** Computed anew by a release of the form; its id is what computes from now on. */
  | { readonly why: 'recomputed'; readonly release: number; readonly by: string }
  /** What a reference brings along changed; the number of what it points to. */
  | { readonly why: 'followed'; readonly number: string }
  | { readonly why: 'merged'; readonly vocabulary: string }
  /** What a reference pointed to was merged into another, or separated again: the number of what it points to now. */
  | { readonly why: 'pointed'; readonly number: string };

/** A seat that goes to somebody else; holders as words. */
export interface SeatGiven {
  readonly seat: string;
  readonly from: string;
  readonly to: string;
}

/**
 * Something rang: `decide-reminder` for a step of a decision, else a ring of a deadline by its key. Histories of before say
 * nothing of the deadline: it was the finish.
 */
export interface Rang {
  readonly kind: 'rang';
  readonly timer: string;
  /** The deadline by key, and what it was called then; `at`: ms of working time from when it was due. */
  readonly deadline?: string;
  readonly name?: string;
  readonly at?: number;
  /** Working days from then, in its place. */
  readonly days?: number;
  /** Whether anybody was told. */
  readonly tells?: boolean;
}

/**
 * How words came by email. `from`: whose email it was, where it is not whoever is said to have written them: somebody
 * added it. `leftOut`: names of files that could not be taken.
 */
export interface ByEmail {
  readonly from: string;
  readonly leftOut?: readonly string[];
}

/**
 * All that can happen to a request, as data: words are made from it when it is shown, with names as
 * they are then.
 */
export type RequestChange =
  | {
      readonly kind: 'arrived';
      readonly through: Through;
      readonly release: number;
      /** What it came to, for all that follows; it stands in the request and not in its history. */
      readonly taken?: TakenIn;
    }
  | ({ readonly kind: 'values'; readonly changes: readonly ValueChange[] } & Why)
  | { readonly kind: 'stage'; readonly from: string; readonly to: string }
  /** Moved by a coordinator from where nobody else could; a decision that waited is withdrawn. */
  | { readonly kind: 'freed'; readonly from: string; readonly to: string; readonly reason: string }
  /** Withdrawn by whoever asked; a decision that waited is withdrawn with it. */
  | { readonly kind: 'withdrawn'; readonly from: string; readonly to: string; readonly reason: string }
  /** It has to be decided anew, as answers changed: by whom, which stands in its rounds and not in its history. */
  | { readonly kind: 'decided-anew'; readonly from: string; readonly to: string; readonly path?: ApprovalPath }
  /** Groups by key; `anew`: by the routing table, as answers changed. */
  | {
      readonly kind: 'team';
      readonly from: string | null;
      readonly to: string;
      readonly anew?: true;
      /** Why it was done by hand. */
      readonly reason?: string;
    }
  | {
      readonly kind: 'priority';
      readonly from: Priority | null;
      readonly to: Priority;
      readonly anew?: true;
      readonly reason?: string;
    }
  /** `chosen`: by a rule, and why nobody else. */
  | {
      readonly kind: 'handler';
      readonly from: string | null;
      readonly to: string | null;
      readonly chosen?: Chosen;
      /** Why it was done by hand. */
      readonly reason?: string;
    }
  /** A rule found nobody who could handle it: it waits for the team, and whoever hears of delays is told. */
  | { readonly kind: 'nobody-handles'; readonly team: string }
  /** Somebody decides in the place of somebody else, at every seat that is not decided yet; people by id. */
  | { readonly kind: 'seat'; readonly from: string; readonly to: string }
  /** Two records turned out to be the same person: what named the one names the other, wherever it stands. */
  | { readonly kind: 'same-person'; readonly from: string; readonly to: string }
  | {
      readonly kind: 'said';
      readonly text: string;
      /** `handler`: somebody from outside who handles it, and nobody else from outside. */
      readonly to: 'desk' | 'requester' | 'handler';
      /** The id of that one. */
      readonly whom?: string;
      readonly byRequester: boolean;
      /** What is sent with it, as files are named where they are kept. */
      readonly files?: readonly string[];
      /** It is a question; the id of whoever it is put to besides those who work on the request, null: to nobody else. */
      readonly question?: { readonly to: string | null };
      /** It came by email. */
      readonly email?: ByEmail;
    }
  | {
      readonly kind: 'decided';
      readonly step: string;
      readonly verdict: Verdict;
      readonly comment: string;
      readonly leadsTo: LeadsTo;
      /** Who was asked, as one word, where somebody with the right to decided for them. */
      readonly insteadOf?: string;
      /** It follows from silence: nobody said it. */
      readonly silent?: true;
      /** The stage to which it goes back when it is approved; the first where it came from none. */
      readonly to?: string;
    }
  /** The time of a step is over and it is not decided: who hears of delays is told, or others are asked instead. */
  | { readonly kind: 'silent'; readonly step: string; readonly gives: readonly SeatGiven[] }
  /** Somebody is asked in place of who was, by hand. */
  | { readonly kind: 'handed'; readonly step: string; readonly gives: readonly SeatGiven[] }
  /** Somebody has it decided, by a path that stands in its rounds and not in its history. */
  | { readonly kind: 'sent-to-decide'; readonly from: string; readonly to: string; readonly path?: ApprovalPath }
  /** Whoever did it takes back what they said at a step, where others still have to say something. */
  | { readonly kind: 'taken-back'; readonly step: string }
  /** Whoever decides asks for more before they do: it waits for whoever asked, and goes on when they answer. */
  | {
      readonly kind: 'returned';
      readonly step: string;
      readonly from: string;
      readonly to: string;
      readonly text: string;
    }
  /** Whoever asked has answered: those who decide are asked again. */
  | { readonly kind: 'answered'; readonly step: string; readonly from: string; readonly to: string }
  /** Too few are left who could decide at a step. */
  | { readonly kind: 'nobody-decides'; readonly step: string }
  /** Somebody may read it besides those who work on it, until a day or for good (null), or no longer. */
  | { readonly kind: 'shared'; readonly with: string; readonly until: string | null }
  | { readonly kind: 'unshared'; readonly with: string }
  /** Whoever it is about says that all of it is still right. */
  | { readonly kind: 'confirmed'; readonly form: string }
  /** Somebody sent a change of it that waits to be accepted; it was refused, or is not wanted any more. */
  /** `proposal`: its id; not said in histories of before. */
  | { readonly kind: 'proposed'; readonly form: string; readonly proposal?: string }
  | { readonly kind: 'proposal-ended'; readonly form: string }
  | { readonly kind: 'proposal-refused'; readonly form: string; readonly reason: string }
  /** Whoever did it hears of it from now on, or no longer. `who`: those whom the routing table has follow it, by id. */
  | { readonly kind: 'followed'; readonly who?: readonly string[] }
  | { readonly kind: 'unfollowed' }
  /** Whoever said that they asked has confirmed their address: it is theirs; people by id. */
  | { readonly kind: 'claimed'; readonly of: string }
  /** The links by which somebody follows it were ended, or ended and sent anew; people by id. */
  | { readonly kind: 'links-ended' | 'link-sent'; readonly of: string }
  /** An email to whoever asked came back; with what their mail server said. */
  | { readonly kind: 'undelivered'; readonly of: string; readonly reason: string }
  /** What it is due by moved, as the calendar it is counted with did; moments are epoch ms. */
  | { readonly kind: 'due'; readonly from: number | null; readonly to: number | null; readonly calendar: string }
  /** It is about the same as another, into which it was merged, by its number; or that was undone. */
  | { readonly kind: 'merged' | 'unmerged'; readonly from: string; readonly to: string; readonly into: string }
  /** Another was merged into it, by its number; or that was undone. */
  | { readonly kind: 'took-in' | 'let-out'; readonly number: string }
  /** It had been deleted, since a moment (epoch ms), and was put back. */
  | { readonly kind: 'put-back'; readonly deletedAt: number }
  /** It has the deadlines of another release from now on: its number, and its id. */
  | { readonly kind: 'replanned'; readonly release: number; readonly by: string }
  | Rang
  /** What a request held at first, where its arrival was not kept as data. */
  | { readonly kind: 'baseline'; readonly values: Values }
  /** What happened before it was kept as data, in the words of then. */
  | { readonly kind: 'told'; readonly words: string };

/** What people and the clock do from now on; the rest only stands in histories of before. */
export type Happening = Exclude<RequestChange, { kind: 'baseline' | 'told' }>;

/** What the words of a change name: stages, groups and calendars by key and people by id, as they are called now. */
export interface ChangeNames {
  readonly stage: (key: string) => string;
  readonly person: (id: string) => string;
  readonly group: (key: string) => string;
  readonly calendar: (key: string) => string;
}

/** Deadlines that were told of in words of their own from the start: the finish, its reminder and what comes after it. */
const RANG: Readonly<Record<string, Said>> = {
  [REMINDER]: said('history:reminded'),
  [ESCALATION]: said('history:escalated'),
  'decide-reminder': said('history:deciderReminded'),
};

function rangInWords({ timer, deadline = FINISH, name = '', at, days, tells = true }: Rang): Said {
  const known = deadline === FINISH && name === '' && tells ? RANG[timer] : undefined;
  if (known) return known;
  const when = ringInWords({ at: at ?? 0, days });
  return said(tells ? 'history:rang' : 'history:rangSilently', {
    deadline: deadlineName({ key: deadline, name }),
    when,
  });
}

const PRIORITIES: Readonly<Record<string, Said>> = {
  high: said('priorities:high'),
  normal: said('priorities:normal'),
  low: said('priorities:low'),
};

/** A priority as people read it. */
export const priorityInWords = (priority: string): Words => PRIORITIES[priority] ?? priority;

/** Who holds something, by the word that says it, as they are called now. */
function holderInWords(word: string, names: ChangeNames): Words {
  if (word === NOBODY) return said('history:nobody');
  const holder = holderOf(word);
  return 'group' in holder ? names.group(holder.group) : names.person(holder.person);
}

function decisionInWords(
  { verdict, step, insteadOf, silent }: Extract<RequestChange, { kind: 'decided' }>,
  names: ChangeNames,
): Said {
  const is = verdict === 'approve' ? 'approved' : 'refused';
  if (silent) return said(`history:${is}Silently`, { step });
  return insteadOf === undefined
    ? said(`history:${is}`, { step })
    : said(`history:${is}For`, { step, who: holderInWords(insteadOf, names) });
}

/** How an email that became part of a request is told: whose words it is, from whom, and what of it could not be kept. */
function emailInWords(
  { byRequester }: Extract<RequestChange, { kind: 'said' }>,
  { from, leftOut = [] }: ByEmail,
): Words {
  const files = leftOut.length > 0 ? said('history:emailWithout', { files: leftOut }) : '';
  if (byRequester)
    return from === ''
      ? said('history:emailFromRequester', { without: files })
      : said('history:emailFromRequesterAt', { from, without: files });
  return from === ''
    ? said('history:noteByEmail', { without: files })
    : said('history:emailAdded', { from, without: files });
}

/** A change in a sentence, without the values of fields: those are revealed beside it. */
export function changeInWords(change: RequestChange, names: ChangeNames): Words {
  switch (change.kind) {
    case 'arrived':
      return arrivalInWords(change);
    case 'values':
      return whyInWords(change, names);
    case 'stage':
      return said('history:stage', { from: names.stage(change.from), to: names.stage(change.to) });
    case 'withdrawn':
      return said('history:withdrawn', { from: names.stage(change.from) });
    case 'freed':
      return said('history:freed', { from: names.stage(change.from), to: names.stage(change.to) });
    case 'decided-anew':
      return said('history:decidedAnew', { from: names.stage(change.from), to: names.stage(change.to) });
    case 'team':
      return said(change.anew ? 'history:teamAnew' : 'history:team', { team: names.group(change.to) });
    case 'priority': {
      const from = change.from === null ? said('history:noPriority') : priorityInWords(change.from);
      return said(change.anew ? 'history:priorityAnew' : 'history:priority', { from, to: priorityInWords(change.to) });
    }
    case 'handler':
      return change.to === null
        ? said('history:backToTeam')
        : change.chosen
          ? said(`history:handlerBy.${change.chosen.by}`, { person: names.person(change.to) })
          : said('history:handler', { person: names.person(change.to) });
    case 'nobody-handles':
      return said('history:nobodyHandles', { team: names.group(change.team) });
    case 'seat':
      return said('history:seat', { from: names.person(change.from), to: names.person(change.to) });
    case 'same-person':
      return said('history:samePerson', { name: names.person(change.to) });
    case 'said':
      if (change.email) return emailInWords(change, change.email);
      if (change.byRequester) return said('history:messageFromRequester');
      if (change.question) return said('history:question');
      if (change.to === 'handler') return said('history:messageToHandler', { person: names.person(change.whom ?? '') });
      return said(change.to === 'desk' ? 'history:note' : 'history:messageToRequester');
    case 'decided':
      return decisionInWords(change, names);
    case 'silent':
      return change.gives.length === 0
        ? said('history:silent', { step: change.step })
        : said('history:passedOn', { step: change.step, who: newHolders(change, names) });
    case 'handed':
      return said('history:handed', { step: change.step, who: newHolders(change, names) });
    case 'sent-to-decide':
      return said('history:sentToDecide', { from: names.stage(change.from), to: names.stage(change.to) });
    case 'taken-back':
      return said('history:takenBack', { step: change.step });
    case 'returned':
      return said('history:returned', { step: change.step });
    case 'answered':
      return said('history:answered', { step: change.step });
    case 'nobody-decides':
      return said('history:nobodyDecides', { step: change.step });
    case 'shared': {
      const who = holderInWords(change.with, names);
      return change.until === null
        ? said('history:shared', { who })
        : said('history:sharedUntil', { who, until: change.until });
    }
    case 'unshared':
      return said('history:unshared', { who: holderInWords(change.with, names) });
    case 'claimed':
      return said('history:claimed');
    case 'links-ended':
      return said('history:linksEnded', { name: names.person(change.of) });
    case 'undelivered':
      return change.reason === ''
        ? said('history:undeliveredBare', { name: names.person(change.of) })
        : said('history:undelivered', { name: names.person(change.of), reason: change.reason });
    case 'link-sent':
      return said('history:linkSent', { name: names.person(change.of) });
    case 'confirmed':
      return said('history:confirmed', { form: change.form });
    case 'proposed':
      return said('history:proposed', { form: change.form });
    case 'proposal-refused':
      return said('history:proposalRefused', { form: change.form });
    case 'proposal-ended':
      return said('history:proposalEnded', { form: change.form });
    case 'followed':
      return change.who
        ? said('history:followsByTable', { names: change.who.map((id) => names.person(id)) })
        : said('history:follows');
    case 'unfollowed':
      return said('history:followsNoMore');
    case 'baseline':
      return '';
    case 'told':
      return change.words;
    case 'due': {
      const due = (at: number | null): Said => (at === null ? said('history:dueNever') : said('history:dueAt', { at }));
      const calendar = names.calendar(change.calendar);
      return said('history:due', { from: due(change.from), to: due(change.to), calendar });
    }
    case 'merged':
    case 'unmerged':
      return said(`history:${change.kind}With`, { number: change.into });
    case 'took-in':
      return said('history:tookIn', { number: change.number });
    case 'let-out':
      return said('history:letOut', { number: change.number });
    case 'put-back':
      return said('history:putBack', { at: change.deletedAt });
    case 'replanned':
      return said('history:replanned', { release: change.release });
    case 'rang':
      return rangInWords(change);
  }
}

const newHolders = ({ gives }: { readonly gives: readonly SeatGiven[] }, names: ChangeNames): readonly Words[] =>
  gives.map(({ to }) => holderInWords(to, names));

function arrivalInWords({ through, release }: Extract<RequestChange, { kind: 'arrived' }>): Said {
  switch (through.by) {
    case 'door':
      return said(through.kind === 'staff' ? 'history:arrivedByStaff' : 'history:arrivedFromOutside', { release });
    case 'sheet of rows':
      return said('history:imported', { release });
    case 'trial':
      return said('history:trial');
  }
}

function whyInWords(why: Why, names: ChangeNames): Said {
  switch (why.why) {
    case 'changed':
      return said('history:changed');
    case 'updated':
      return why.by === undefined
        ? said('history:updated', { form: why.form })
        : said('history:updateAccepted', { form: why.form, who: names.person(why.by) });
    case 'joined':
    case 'left':
      return said(why.why === 'joined' ? 'history:joined' : 'history:leftAgain');
    case 'numbered':
      return said('history:numbered');
    case 'day':
      return said('history:newDay');
    case 'rule':
      return said('history:ruleApplied', { rule: why.rule });
    case 'taken back':
      return said('history:ruleUndone', { rule: why.rule });
    case 'recomputed':
      return said('history:recomputed', { release: why.release });
    case 'followed':
      return said('history:followed', { number: why.number });
    case 'merged':
      return said('history:merged', { vocabulary: why.vocabulary });
    case 'pointed':
      return said('history:pointed', { number: why.number });
  }
}
