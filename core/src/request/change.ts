import type { ValueChange } from '../access/index.ts';
import type { LeadsTo, Verdict } from '../approval/index.ts';
import type { TakenIn } from '../intake/index.ts';
import type { Priority, Values } from '../register/index.ts';

/** The way something came in. */
export type Through =
  | { readonly by: 'door'; readonly kind: 'staff' | 'outside' }
  | { readonly by: 'sheet of rows' | 'trial' };

/** Why values changed: by hand, or as something else happened. */
export type Why =
  | { readonly why: 'changed' | 'numbered' | 'day' }
  /** A rule was applied to what was there, or that was taken back. */
  | { readonly why: 'rule' | 'taken back'; readonly rule: string }
  /** Computed anew by a release of the form; its id is what computes from now on. */
  | { readonly why: 'recomputed'; readonly release: number; readonly by: string }
  /** What a reference brings along changed; the number of what it points to. */
  | { readonly why: 'followed'; readonly number: string }
  | { readonly why: 'merged'; readonly vocabulary: string };

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
  /** Groups by key. */
  | { readonly kind: 'team'; readonly from: string | null; readonly to: string }
  | { readonly kind: 'priority'; readonly from: Priority | null; readonly to: Priority }
  | { readonly kind: 'handler'; readonly from: string | null; readonly to: string | null }
  | { readonly kind: 'said'; readonly text: string; readonly to: 'desk' | 'requester'; readonly byRequester: boolean }
  | {
      readonly kind: 'decided';
      readonly step: string;
      readonly verdict: Verdict;
      readonly comment: string;
      readonly leadsTo: LeadsTo;
    }
  /** What it is due by moved, as the calendar it is counted with did; moments are epoch ms. */
  | { readonly kind: 'due'; readonly from: number | null; readonly to: number | null; readonly calendar: string }
  | { readonly kind: 'rang'; readonly timer: 'reminder' | 'escalation' }
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
  /** A moment, epoch ms. */
  readonly moment: (at: number) => string;
}

/** A change in a sentence, without the values of fields: those are revealed beside it. */
export function changeInWords(change: RequestChange, names: ChangeNames): string {
  switch (change.kind) {
    case 'arrived':
      return arrivalInWords(change);
    case 'values':
      return whyInWords(change);
    case 'stage':
      return `${names.stage(change.from)} → ${names.stage(change.to)}`;
    case 'freed':
      return `Freed by a coordinator: ${names.stage(change.from)} → ${names.stage(change.to)}`;
    case 'team':
      return `Handed over to ${names.group(change.to)}`;
    case 'priority':
      return `Priority: ${change.from ?? 'none'} → ${change.to}`;
    case 'handler':
      return change.to === null ? 'Given back to the team' : `Given to ${names.person(change.to)}`;
    case 'said':
      if (change.byRequester) return 'Message from the requester';
      return change.to === 'desk' ? 'Note for the desk' : 'Message to the requester';
    case 'decided':
      return `${change.step}: ${change.verdict === 'approve' ? 'approved' : 'refused'}`;
    case 'baseline':
      return '';
    case 'told':
      return change.words;
    case 'due': {
      const due = (at: number | null): string => (at === null ? 'never' : names.moment(at));
      return `Due ${due(change.from)} → ${due(change.to)}, as the calendar “${names.calendar(change.calendar)}” changed`;
    }
    case 'rang':
      return change.timer === 'reminder'
        ? 'A reminder went out before the deadline'
        : 'The deadline passed; the lead was told';
  }
}

function arrivalInWords({ through, release }: Extract<RequestChange, { kind: 'arrived' }>): string {
  switch (through.by) {
    case 'door':
      return `Sent through the ${through.kind} door, release ${release}`;
    case 'sheet of rows':
      return `Taken in from a sheet, release ${release}`;
    case 'trial':
      return 'Trial request, sent from the proof';
  }
}

function whyInWords(why: Why): string {
  switch (why.why) {
    case 'changed':
      return 'Fields changed';
    case 'numbered':
      return 'A number was given out';
    case 'day':
      return 'A new day';
    case 'rule':
      return `Rule “${why.rule}” was applied to what was there`;
    case 'taken back':
      return `What rule “${why.rule}” changed was taken back`;
    case 'recomputed':
      return `Computed anew by release ${why.release}`;
    case 'followed':
      return `Followed a change of ${why.number}`;
    case 'merged':
      return `Terms of “${why.vocabulary}” were merged`;
  }
}
