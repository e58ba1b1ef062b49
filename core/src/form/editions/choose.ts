import { type Belonging, type Somebody, type Stands, whyBelongs } from '../../people/index.ts';
import type { Edition } from '../design.ts';
import { ASKING } from './edition.ts';

/** Whom a form is opened for, and how it stands then. */
export interface Opening {
  readonly who: Somebody;
  /** How they stand to the request; who fills a form in is its requester. */
  readonly stands: Stands;
  /** The key of the stage it is at; `ASKING` while it is filled in. */
  readonly stage: string;
  /** Whether a condition holds; of what can’t be said, or must not be known, it does not. */
  readonly holds: (condition: string) => boolean;
}

/** How somebody stands to what they fill in. */
export const ASKS: Stands = { isRequester: true };

/** What came of trying one edition. */
export type Verdict =
  | { readonly is: 'off' }
  | Extract<Belonging, { readonly is: 'out' | 'not-in' }>
  /** It is given at other stages only. */
  | { readonly is: 'stage' }
  | { readonly is: 'condition' }
  | { readonly is: 'fits'; readonly by: string | null };

/** What came of it for each edition in their order, and the first that fits. */
export interface Chosen {
  /** Null: the form as it is. */
  readonly edition: Edition | null;
  readonly verdicts: readonly Verdict[];
}

const OFF: Verdict = { is: 'off' };
const STAGE: Verdict = { is: 'stage' };
const CONDITION: Verdict = { is: 'condition' };

/** What comes of one edition for one opening. */
export function verdictOn(
  { on, audience, stages, when, elsewhere }: Edition,
  { who, stands, stage, holds }: Opening,
): Verdict {
  if (!on) return OFF;
  const belonging = whyBelongs(audience, who, stands);
  if (belonging.is !== 'in') return belonging;
  if ((stages && !stages.includes(stage)) || (elsewhere && stage !== ASKING)) return STAGE;
  if (when.trim() !== '' && !holds(when)) return CONDITION;
  return { is: 'fits', by: belonging.by };
}

/**
 * Which edition of a form somebody is given (Settled: one ordered list; the first whose audience fits wins; out beats in;
 * whoever is out of one goes on to the next, at last to the form as it is), with what came of each.
 */
export function chooseEdition(editions: readonly Edition[], opening: Opening): Chosen {
  const verdicts = editions.map((edition) => verdictOn(edition, opening));
  const at = verdicts.findIndex(({ is }) => is === 'fits');
  return { edition: editions[at] ?? null, verdicts };
}
