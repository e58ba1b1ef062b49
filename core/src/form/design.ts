import type { ApprovalPath } from '../approval/index.ts';
import type { DeadlinePlan } from '../deadline/index.ts';
import type { Field } from '../register/index.ts';
import type { RoutingTable } from '../routing/index.ts';

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
}

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
export const OWN_PARTS = ['routing', 'approval', 'deadline'] as const;
export type OwnPart = (typeof OWN_PARTS)[number];

/**
 * Everything a release freezes. Fields, what a request is called, what must not be asked twice and,
 * unless they are among `own`, routing, approval and deadline belong to the register: a draft has
 * them as they would be, and its release puts them in force there.
 */
export interface FormDesign {
  readonly title: string;
  readonly intro: string;
  /** What a request is called in lists, with fields in braces: `{visitor}, {institute}`. */
  readonly subject: string;
  readonly fields: readonly Field[];
  readonly parts: readonly Part[];
  readonly rules: readonly FormRule[];
  readonly unique: readonly UniqueRule[];
  readonly routing: RoutingTable;
  readonly approval: ApprovalPath;
  readonly deadline: DeadlinePlan;
  /** None when nothing is said. */
  readonly own?: readonly OwnPart[] | undefined;
}

/** What filling in depends on. */
export type AskedForm = Pick<FormDesign, 'fields' | 'parts' | 'rules'>;
