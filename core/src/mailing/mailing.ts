import type { Period } from '../deadline/index.ts';
import type { Translations } from '../design/index.ts';
import type { Audience } from '../people/index.ts';

/**
 * A form that is sent to people to fill in: to whom, about what, when, and by when. `each` is the name by which what
 * one of them has to fill in is known: an owed form.
 */
export interface MailingDesign {
  /** What the desk calls it. */
  readonly name: string;
  /** The slug of the door by which the answers come in. */
  readonly door: string;
  readonly to: Recipients;
  readonly about: About;
  readonly when: When;
  /** Working days from when it is sent until it is due; null: the end of its period, and no day where it has none. */
  readonly dueIn: number | null;
  /** When whoever has not answered is reminded. */
  readonly reminders: readonly Reminder[];
  /** Whether who has to fill it in may pass it on to a colleague. */
  readonly passesOn?: true | undefined;
  /** Why it is asked: said in the email and above the form. */
  readonly text: string;
  /** What it says in other languages. */
  readonly translations?: Translations | undefined;
  /** Whether it goes out by itself; what was sent stays. */
  readonly going: boolean;
  /** Which answers about one request count where it has several; all of them when nothing is said. */
  readonly counts?: 'latest' | 'mean' | undefined;
}

/** Who fills it in: an audience, or whoever stands in what it is about. */
export type Recipients =
  | { readonly audience: Audience }
  /** `~requester`, `~handler`, or the key of a field for people. */
  | { readonly named: string };

/** In the place of a question: that the form changes what it is about, as an update form does. */
export const ITSELF = '~itself';

/** What one form is about. `field`: the question that is answered by it, and shown without being asked; or `~itself`. */
export type About =
  | { readonly is: 'nothing' }
  /** Each of them about each of the others. */
  | { readonly is: 'each-other'; readonly field: string }
  /** The requests of a register, by its key, that are at one of some stages and meet a condition (FEEL; empty: all). */
  | {
      readonly is: 'requests';
      readonly register: string;
      readonly field: string;
      readonly stages: readonly string[];
      readonly when: string;
    };

export type When =
  | { readonly is: 'by-hand' }
  /** As each period begins. */
  | { readonly is: 'every'; readonly period: Period }
  /** So many days after a request has come to one of its stages. */
  | { readonly is: 'reached'; readonly days: number };

/** So many days before or after it is due. */
export interface Reminder {
  readonly days: number;
  readonly side: 'before' | 'after';
}

/** What is being answered, where it is about something. */
export type Topic = { readonly person: string } | { readonly request: string } | null;

/** Who asked for what is asked about, and who works on it. */
export const NAMED_RELATIONS = ['~requester', '~handler'] as const;

/** A mailing as it is when it is added: to nobody yet, by hand. */
export const newMailing = (name: string, door: string): MailingDesign => ({
  ...{ name, door, text: '', going: true },
  to: { audience: { in: { anyOf: [] }, outOf: [] } },
  about: { is: 'nothing' },
  when: { is: 'by-hand' },
  dueIn: 5,
  reminders: [{ days: 1, side: 'before' }],
});
