import type { Language } from '@tolvek/words';
import type { ApprovalPlan } from '../approval/index.ts';
import type { DeadlinePlan } from '../deadline/index.ts';
import type { Translations } from '../design/index.ts';
import type { Audience } from '../people/index.ts';
import type { Field, Preset } from '../register/index.ts';
import type { RoutingTable } from '../routing/index.ts';
import type { NoticePlan } from '../telling/index.ts';

/**
 * What becomes of an answer whose question went away: not stored, emptied at once, or stored all
 * the same.
 */
export type WhenHidden = 'ignored' | 'cleared' | 'kept';

/** A question asks for one field, in words of its own. */
export interface Question {
  readonly part: 'question';
  readonly field: string;
  /** What the requester reads; the field's label when empty. */
  readonly asks: string;
  readonly help: string;
  readonly required: boolean;
  /** `ignored` when nothing is said. */
  readonly whenHidden?: WhenHidden;
}

/** A heading with the questions under it, up to the next section or page. */
export interface Section {
  readonly part: 'section';
  readonly id: string;
  readonly title: string;
  readonly text: string;
}

/** Begins a page; what stands before the first one is a page of its own. */
export interface Page {
  readonly part: 'page';
  readonly id: string;
  readonly title: string;
  readonly text: string;
}

/** Words between questions, with fields in braces: `{visitor}`. */
export interface Instruction {
  readonly part: 'instruction';
  readonly id: string;
  readonly text: string;
  /**
   * A letter the reader can begin from here; its subject names the form, or the request once it has
   * a number.
   */
  readonly mail?: { readonly label: string; readonly to: string };
  /** What whoever reads these words beside a request can do there. None when nothing is said. */
  readonly actions?: readonly NamedAction[] | undefined;
}

/** Something that can be done with a request by whoever may read it, though they may change nothing else in it. */
export type NamedAction =
  /** Takes a place among the people in a field, and gives it back. `back`: what giving it back is called. */
  | {
      readonly id: string;
      readonly does: 'take-part';
      readonly label: string;
      readonly back: string;
      readonly field: string;
    }
  /** Asks a question: the person in a field as well, besides who works on the request; empty: only them. */
  | { readonly id: string; readonly does: 'ask'; readonly label: string; readonly asks: string }
  /** Has it decided by a path, by its id; refused while it is decided, and once it was approved by it. */
  | { readonly id: string; readonly does: 'begin'; readonly label: string; readonly path: string };

export type Part = Question | Section | Page | Instruction;

/**
 * What rules and links name a part by: a question by its field; ids of other parts have a hyphen,
 * which no field key has.
 */
export const partKey = (
  part: { readonly part: Part['part'] } & ({ readonly field: string } | { readonly id: string }),
): string => ('field' in part ? part.field : part.id);

export const questionsOf = (parts: readonly Part[]): readonly Question[] =>
  parts.filter((part) => part.part === 'question');

/** The keys of the fields that parts ask for. */
export const fieldsAsked = (parts: readonly Part[]): ReadonlySet<string> =>
  new Set(questionsOf(parts).map(({ field }) => field));

/** The parts that differences add. */
export const addedParts = (differences: readonly Difference[]): readonly Part[] =>
  differences.flatMap((each) => (each.does === 'add' ? [each.adds] : []));

/** The questions of a form, and those that only editions of it ask. */
export const allQuestionsOf = ({ parts, editions = [] }: Pick<FormDesign, 'parts' | 'editions'>): readonly Question[] =>
  questionsOf([...parts, ...editions.flatMap(({ differences }) => addedParts(differences))]);

/** Where a jump can begin or end besides a page’s id. */
export const FIRST_PAGE = 'first';
export const END = 'end';

/** One thing a rule does. */
export type Action =
  | { readonly do: 'show' | 'hide'; readonly parts: readonly string[] }
  | { readonly do: 'require' | 'lock' | 'clear'; readonly fields: readonly string[] }
  /** `value`: FEEL. */
  | { readonly do: 'set'; readonly field: string; readonly value: string }
  /** Only these options of a choice are offered. */
  | { readonly do: 'limit'; readonly field: string; readonly options: readonly string[] }
  /** Said at a field, or above the form when `field` is `form`. */
  | { readonly do: 'warn'; readonly field: string; readonly text: string }
  | { readonly do: 'refuse'; readonly field: string; readonly text: string; readonly fix: string }
  /** After one page comes another: those between are left out. */
  | { readonly do: 'jump'; readonly after: string; readonly to: string };

export type ActionName = Action['do'];

/**
 * “When … then … otherwise …”. A part that some rule shows stays away until one does. Rules run in
 * their order: where two disagree about the same thing, the later one decides. When it can’t be
 * said whether the condition holds, neither side is done.
 */
export interface FormRule {
  readonly id: string;
  readonly name: string;
  /** Why it is there, for the next coordinator. */
  readonly says: string;
  /** FEEL over the fields, `requester`, `door`, `today` and `now`. */
  readonly when: string;
  readonly then: readonly Action[];
  readonly otherwise: readonly Action[];
  readonly on: boolean;
  /** While the form is filled in; or at every saving, whichever way an answer comes in. */
  readonly runs: 'filling' | 'saving';
}

/**
 * No two requests may have the same answers here; capitals, accents of space and letters’ forms
 * aside.
 */
export interface UniqueRule {
  readonly id: string;
  readonly fields: readonly string[];
  readonly among: 'all' | 'unfinished';
}

/** What a form may have of its own, in place of what is usual in its register. */
export const OWN_PARTS = ['routing', 'approval', 'deadline', 'notices'] as const;
export type OwnPart = (typeof OWN_PARTS)[number];

/** One thing that an edition has otherwise than the form. `part`: what rules name a part by. */
export type Difference =
  /** A part that is not there; what stands under a heading goes with it. */
  | { readonly does: 'hide'; readonly part: string }
  /** These questions, and no others. */
  | { readonly does: 'only'; readonly shows: readonly string[] }
  /** A question that is shown and not asked. */
  | { readonly does: 'lock'; readonly part: string }
  | { readonly does: 'require' | 'spare'; readonly part: string }
  /** Other words; what is not named stays as the form has it. A question asks and helps, other parts have a title or a text. */
  | {
      readonly does: 'reword';
      readonly part: string;
      readonly asks?: string | undefined;
      readonly help?: string | undefined;
      readonly title?: string | undefined;
      readonly text?: string | undefined;
    }
  /** Of the options of a choice these are offered. */
  | { readonly does: 'offer'; readonly part: string; readonly offers: readonly string[] }
  /** What stands in a question at first; null: nothing. */
  | { readonly does: 'preset'; readonly part: string; readonly preset: Preset | null }
  /** A part in another place: after another part, or first. */
  | { readonly does: 'move'; readonly part: string; readonly after: string | null }
  /** A part of its own: after a part of the form, or first. */
  | { readonly does: 'add'; readonly after: string | null; readonly adds: Part };

/** Where somebody asks instead: by another form, by its key, or at an address elsewhere, `https://…`. */
export type Elsewhere = { readonly form: string } | { readonly address: string };

/** A form’s differences for one audience. Never a copy: what is not among them is as the form has it, now and later. */
export interface Edition {
  readonly id: string;
  /** The desk’s name for it; nobody else reads it. */
  readonly name: string;
  readonly on: boolean;
  readonly audience: Audience;
  /** Keys of the stages at which alone it is given, `ASKING` in the place of one; at any when nothing is said. */
  readonly stages?: readonly string[] | undefined;
  /** FEEL over the fields, who asks, and where the request stands; empty: always. */
  readonly when: string;
  /** Who gets it reads the request and changes nothing in it. */
  readonly readOnly?: true | undefined;
  /** Who gets it and may change answers of the request opens them to be changed at once. */
  readonly opens?: 'changing' | undefined;
  /** What the form is called for whom it is given, and what is said first; as the form has it when nothing is said. */
  readonly title?: string | undefined;
  readonly intro?: string | undefined;
  readonly differences: readonly Difference[];
  /** Whoever is given it asks somewhere else. It is given while somebody asks, and at no stage of a request. */
  readonly elsewhere?: Elsewhere | undefined;
}

/**
 * Everything a release freezes. Fields, what a request is called, what must not be asked twice and,
 * unless they are among `own`, routing, approval, deadline and notices belong to the register: a draft has
 * them as they would be, and its release puts them in force there.
 */
export interface FormDesign {
  readonly title: string;
  readonly intro: string;
  /** Under which heading it stands where people look for what they can ask; with all others when nothing is said. */
  readonly topic?: string | undefined;
  /** What a request is called in lists, with fields in braces: `{visitor}, {institute}`. */
  readonly subject: string;
  readonly fields: readonly Field[];
  readonly parts: readonly Part[];
  readonly rules: readonly FormRule[];
  readonly unique: readonly UniqueRule[];
  readonly routing: RoutingTable;
  readonly approval: ApprovalPlan;
  readonly deadline: DeadlinePlan;
  /** What it tells whom otherwise than usual, and besides; all is as usual when nothing is said. */
  readonly notices?: NoticePlan | undefined;
  /** None when nothing is said. */
  readonly own?: readonly OwnPart[] | undefined;
  /** What differs for some audiences, in order: the first that fits is given. None when nothing is said. */
  readonly editions?: readonly Edition[] | undefined;
  /** Whether its answers change what is there; they add to it when nothing is said. */
  readonly updates?: Updates | undefined;
  /** Its own words in other languages; what its register owns has its own. It is read in those that are there. */
  readonly translations?: Translations | undefined;
  /** The language it is written in; the desk’s when nothing is said. */
  readonly written?: Language | undefined;
}

/** A form whose answers change what is there, in place of adding to it. */
export interface Updates {
  /** Whose it finds: the key of a field for a person, in which they stand; or `~requester`, what they asked for. */
  readonly whose: string;
  /** Questions whose answers have to be the same; none where all of theirs is meant. */
  readonly by: readonly string[];
  /** Where nothing of theirs is found: whether it is added, or they read that there is nothing to change. */
  readonly none: 'add' | 'refuse';
  /** Whether they may add another one beside what is found. */
  readonly beside?: true | undefined;
  /** Whether a change counts only when somebody who works on it has accepted it. */
  readonly waits?: true | undefined;
  /** The key of a date that the desk keeps, in which the day of the last answer is written. */
  readonly stamps?: string | undefined;
}

/** What filling in depends on. */
export type AskedForm = Pick<FormDesign, 'fields' | 'parts' | 'rules'>;
