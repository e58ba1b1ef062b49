import type { Words } from '@tolvek/words';
import type { RequestChange } from '../request/index.ts';
import type { GroupCount } from './groups.ts';
import type { Heard } from './heard.ts';

/** What whoever follows a request is told of. */
export type News = Extract<
  RequestChange,
  {
    readonly kind:
      | 'stage'
      | 'freed'
      | 'withdrawn'
      | 'team'
      | 'priority'
      | 'handler'
      | 'decided'
      | 'decided-anew'
      | 'said'
      | 'proposed'
      | 'undelivered'
      | 'followed';
  }
>;

/**
 * Why somebody is written to, as data: words are made from it when the notice goes out, with names,
 * values and deadlines as they are then. People by id, stages and teams by key; `by`: null for the
 * desk itself.
 */
export type NoticeCause =
  | { readonly kind: 'received' }
  /** A new link to their request, in the place of those they had. */
  | { readonly kind: 'new-link' }
  | { readonly kind: 'new-request'; readonly team: string }
  /** `seat`: what the link in it decides at. */
  | { readonly kind: 'approval-asked'; readonly seat: string; readonly again?: true }
  /** `silent`: nobody said it; it follows from silence. */
  | {
      readonly kind: 'approved' | 'refused';
      readonly by: string | null;
      readonly comment: string;
      readonly silent?: true;
    }
  /** To those who hear of delays: nobody decided in time at a step, or nobody can. */
  | { readonly kind: 'undecided' | 'nobody-decides'; readonly step: string }
  /** To them as well: a rule found nobody who could handle it. */
  | { readonly kind: 'nobody-handles'; readonly team: string }
  | { readonly kind: 'assigned'; readonly by: string | null }
  /** `files`: the names of what was sent with it. */
  | {
      readonly kind: 'message';
      readonly by: string | null;
      readonly text: string;
      readonly files?: readonly string[];
      /** It is for the desk alone. */
      readonly inside?: true;
    }
  /** To whoever asked: it is handled together with another about the same, or by itself again. */
  | { readonly kind: 'together' | 'apart' }
  /** Whoever decides asks for more before they do. */
  | { readonly kind: 'returned'; readonly by: string | null; readonly text: string }
  | { readonly kind: 'stage'; readonly stage: string; readonly finished: boolean }
  /** The deadline by key; the finish where nothing is said. `due`: to whoever asked. */
  | { readonly kind: 'reminder' | 'escalation' | 'due'; readonly deadline?: string }
  /** To who follows a request: what happened, without what was written, and that. */
  | { readonly kind: 'news'; readonly by: string | null; readonly change: News; readonly text: string }
  /** A notice that its form sends besides what is usual, by key; `as`: what of it its reader chooses the time of; `text`: what was written. */
  | {
      readonly kind: 'rule';
      readonly rule: string;
      readonly by: string | null;
      readonly text: string;
      readonly as: Heard;
      /** What was written is for the desk alone: whoever asked does not read it. */
      readonly inside?: true;
      readonly group?: GroupCount;
      /** The field that names them, where they get it by that. */
      readonly field?: string;
    }
  /** To those who may accept a change that somebody sent by a form; the link in it leads to that change. */
  | { readonly kind: 'proposed'; readonly proposal: string; readonly by: string | null }
  /** To whoever sent a change that waited to be accepted. */
  | { readonly kind: 'proposal'; readonly accepted: boolean; readonly by: string | null; readonly reason: string }
  /** To an address that nobody has confirmed: what it would send, or leads back to. */
  | { readonly kind: 'confirm'; readonly submission: string }
  | { readonly kind: 'go-on'; readonly kept: string }
  /** To one of the staff: a first sign-in, or whether emails arrive. */
  | { readonly kind: 'invitation'; readonly by: string | null }
  | { readonly kind: 'test' }
  /** Several notices that go in one, by their ids. */
  | { readonly kind: 'digest'; readonly of: readonly string[] }
  /** They forgot their password. */
  /**
   * To somebody of a roster: a duty (epoch ms) is offered to them, theirs is taken or not, or they come on duty. `roster`:
   * its key.
   */
  | {
      readonly kind: 'duty';
      readonly did: 'offered' | 'taken' | 'declined' | 'begins';
      readonly roster: string;
      readonly by: string | null;
      readonly from: number;
      readonly to: number;
      readonly note: string;
    }
  /** A frozen copy of a report is there for them, with its figures as they read them. */
  | {
      readonly kind: 'report';
      readonly report: string;
      readonly copy: string;
      readonly name: string;
      readonly over: 'week' | 'month' | 'year';
      readonly from: string;
      readonly to: string;
      readonly facts: readonly { readonly label: string; readonly shown: Words }[];
      readonly times: {
        readonly came: number;
        readonly went: number;
        readonly open: number;
        readonly late: number;
      } | null;
    }
  | { readonly kind: 'reset' }
  /** To a contact who wants to sign in: by this link, or the code of it; in the language they were reading. */
  | { readonly kind: 'sign-in'; readonly link: string; readonly language: 'en' | 'de' }
  /** Forms were sent to them to fill in, by one going of a mailing; or they are reminded of those that are open. */
  | { readonly kind: 'to-fill-in'; readonly going: string; readonly again: boolean }
  /** A place is free at a door at which they wait, by the id of theirs: to an address that may not be confirmed. */
  | { readonly kind: 'place-free'; readonly place: string }
  /** A colleague passed such a form on to them. */
  | { readonly kind: 'passed-on'; readonly going: string; readonly by: string };
