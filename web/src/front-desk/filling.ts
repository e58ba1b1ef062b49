import type { ProblemDocument } from '@tolvek/contract';
import {
  type Field,
  isFilled,
  type KnownFile,
  type KnownRequest,
  type Problem,
  type RawAnswer,
  type RawAnswers,
} from '@tolvek/core/register';
import type { KeptAnswers } from './keptAnswers.ts';
import { type FilledPage, pageOf } from './pages.ts';

/** A form as somebody fills it in: what was typed, and how far they have come with it. */
export interface Filling {
  readonly typed: KeptAnswers;
  /** The page that is shown, from 0. */
  readonly page: number;
  /** The last page that somebody wanted to go on from; -1 for none. */
  readonly passed: number;
  /** Whether it was tried to be sent: from then on all problems are told. */
  readonly tried: boolean;
  /** Fields that were left: their problems are told. */
  readonly left: ReadonlySet<string>;
  /** Why the desk did not take it. */
  readonly refused: ProblemDocument | null;
}

/** What somebody does while they fill a form in. Moments by the clock of the device, epoch ms. */
export type FillingStep =
  | { readonly does: 'answer'; readonly field: string; readonly value: RawAnswer; readonly at: number }
  | { readonly does: 'name'; readonly part: 'name' | 'email'; readonly text: string; readonly at: number }
  | { readonly does: 'attach'; readonly file: KnownFile }
  | { readonly does: 'choose'; readonly request: KnownRequest }
  /** Empties answers that rules cleared. */
  | { readonly does: 'empty'; readonly fields: readonly string[] }
  /** Brings answers along for what nothing was typed for. */
  | { readonly does: 'bring'; readonly answers: RawAnswers }
  /** Agrees to a version of the text of the form, or not any more. */
  | { readonly does: 'agree'; readonly version: number | undefined; readonly at: number }
  /** Says which of theirs is meant; `finds`: the answers by which it is found. */
  | { readonly does: 'mean'; readonly entry: string; readonly finds: RawAnswers; readonly at: number }
  /** Takes away what stands there, or not after all. */
  | { readonly does: 'take-away'; readonly field: string; readonly is: boolean; readonly at: number }
  | { readonly does: 'leave'; readonly fields: readonly string[] }
  | { readonly does: 'turn'; readonly to: number }
  /** Wants to go on from a page, where something is left to mend. */
  | { readonly does: 'stumble'; readonly page: number }
  | { readonly does: 'send' }
  /** Is refused; with a new key where corrected answers are another request. */
  | { readonly does: 'hear'; readonly problem: ProblemDocument; readonly key: string | null }
  | { readonly does: 'clear'; readonly typed: KeptAnswers };

export const begun = (typed: KeptAnswers): Filling => ({
  ...{ typed, page: 0, passed: -1, tried: false, left: new Set(), refused: null },
});

/** What comes of a step. What was typed is lost by no step but clearing. */
export function filled(filling: Filling, step: FillingStep): Filling {
  const { typed } = filling;
  const typing = (more: Partial<KeptAnswers>): Filling => ({ ...filling, typed: { ...typed, ...more } });
  switch (step.does) {
    case 'answer':
      return typing({
        ...{ answers: { ...typed.answers, [step.field]: step.value }, typedAt: step.at },
        // What is typed is not taken away.
        ...(typed.cleared ? { cleared: typed.cleared.filter((field) => field !== step.field) } : {}),
      });
    case 'name':
      return typing({ contact: { ...typed.contact, [step.part]: step.text }, typedAt: step.at });
    case 'bring':
      return typing({ answers: { ...step.answers, ...typed.answers } });
    case 'agree':
      return typing({ agreed: step.version, typedAt: step.at });
    case 'mean':
      return typing({ entry: step.entry, answers: { ...typed.answers, ...step.finds }, typedAt: step.at });
    case 'take-away': {
      const others = (typed.cleared ?? []).filter((field) => field !== step.field);
      const { [step.field]: _, ...answers } = typed.answers;
      return typing(
        step.is
          ? { answers, cleared: [...others, step.field], typedAt: step.at }
          : { cleared: others, typedAt: step.at },
      );
    }
    case 'attach':
      return typing({ files: [...typed.files, step.file] });
    case 'choose':
      return typing({ references: [...typed.references.filter(({ id }) => id !== step.request.id), step.request] });
    case 'empty': {
      const full = step.fields.filter((field) => typed.answers[field] !== null);
      return full.length === 0
        ? filling
        : typing({ answers: { ...typed.answers, ...Object.fromEntries(full.map((field) => [field, null])) } });
    }
    case 'leave':
      return step.fields.every((field) => filling.left.has(field))
        ? filling
        : { ...filling, left: new Set([...filling.left, ...step.fields]) };
    case 'turn':
      return { ...filling, page: Math.max(0, step.to) };
    case 'stumble':
      return { ...filling, passed: Math.max(filling.passed, step.page) };
    case 'send':
      return { ...filling, tried: true, refused: null };
    case 'hear':
      return { ...typing(step.key === null ? {} : { key: step.key }), refused: step.problem };
    case 'clear':
      return begun(step.typed);
  }
}

interface Asking {
  readonly fields: readonly Field[];
  readonly parts: readonly { readonly part: string; readonly field?: string }[];
}

/** Typed answers to questions this release asks; what an older release asked stays out. */
export const knownAnswers = ({ answers }: Pick<KeptAnswers, 'answers'>, { parts }: Asking): RawAnswers =>
  Object.fromEntries(
    parts.flatMap(({ part, field }) =>
      part !== 'question' || field === undefined || answers[field] === undefined
        ? []
        : [[field, answers[field] ?? null]],
    ),
  );

const isBlank = (value: RawAnswer | undefined): boolean =>
  value === undefined || value === null || value === '' || (Array.isArray(value) && value.length === 0);

/** Answers without those left empty; where a default would come back, emptiness is said. */
export function withoutBlanks(answers: RawAnswers, { fields }: Pick<Asking, 'fields'>): RawAnswers {
  const preset = new Set(fields.flatMap((field) => (isFilled(field) && field.preset ? [field.key] : [])));
  return Object.fromEntries(
    Object.entries(answers).flatMap(([key, value]) =>
      !isBlank(value) ? [[key, value]] : preset.has(key) ? [[key, null]] : [],
    ),
  );
}

export const hasTyped = ({ answers, contact, cleared = [] }: KeptAnswers): boolean =>
  cleared.length > 0 ||
  Object.values(answers).some((value) => !isBlank(value)) ||
  Boolean(contact.name || contact.email);

/**
 * All that is wrong just now: what the form itself finds, then what only the desk could know, as long
 * as the form finds nothing at the same field.
 */
export function allProblems(
  found: readonly Problem[],
  contact: readonly Problem[],
  { refused }: Pick<Filling, 'refused'>,
  taken: readonly Problem[],
): readonly Problem[] {
  const isNews = ({ field }: Problem): boolean => !found.some((each) => each.field === field);
  const told = (refused?.problems ?? []) as readonly Problem[];
  return [...found, ...contact, ...told.filter(isNews), ...taken.filter(isNews)];
}

/**
 * Whether a problem is told already: all are once it was tried to be sent; those of a page once somebody
 * wanted to go on from it; that of a field once it was left, unless it is only that it has no answer yet.
 */
export function isTold(
  { tried, passed, left }: Pick<Filling, 'tried' | 'passed' | 'left'>,
  problem: Problem,
  {
    pages,
    at,
    isUnanswered,
  }: { pages: readonly FilledPage[]; at: number; isUnanswered: (problem: Problem) => boolean },
): boolean {
  const page = pageOf(pages, problem.field);
  // What is on no page, such as who asks, is on the last.
  const isHere = page === at || (at === pages.length - 1 && page < 0);
  return tried || (passed >= at && isHere) || (left.has(problem.field) && !isUnanswered(problem));
}
