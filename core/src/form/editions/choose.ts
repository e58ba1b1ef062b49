import { namesIn } from '../../expression/index.ts';
import { type Belonging, type Somebody, type Stands, whyBelongs } from '../../people/index.ts';
import type { Field } from '../../register/index.ts';
import type { Edition, Elsewhere } from '../design.ts';
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
  /** What they are asked, while they fill it in: where an edition leads elsewhere by that, it is said once it is answered. */
  readonly asked?: ReadonlySet<string>;
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
  /** It leads elsewhere by what is answered, and nothing is answered yet. */
  | { readonly is: 'answers' }
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
const ANSWERS: Verdict = { is: 'answers' };

/** What comes of one edition for one opening. */
export function verdictOn(
  { on, audience, stages, when, elsewhere }: Edition,
  { who, stands, stage, holds, asked }: Opening,
): Verdict {
  if (!on) return OFF;
  const belonging = whyBelongs(audience, who, stands);
  if (belonging.is !== 'in') return belonging;
  if ((stages && !stages.includes(stage)) || (elsewhere && stage !== ASKING)) return STAGE;
  if (when.trim() !== '' && !holds(when)) return elsewhere && asked && asksFor(when, asked) ? ANSWERS : CONDITION;
  return { is: 'fits', by: belonging.by };
}

/** Whether a condition hangs on what somebody is asked. */
const asksFor = (condition: string, asked: ReadonlySet<string>): boolean =>
  namesIn(condition).some((name) => asked.has(name));

/** An edition that leads elsewhere. */
export type Leading = Edition & { readonly elsewhere: Elsewhere };

/**
 * The editions that lead whoever was given one elsewhere by what they answer: those before it in the list, in their order.
 */
export const leadsByAnswers = (editions: readonly Edition[], { edition, verdicts }: Chosen): readonly Leading[] => {
  const given = edition === null ? editions.length : editions.indexOf(edition);
  return editions.filter(
    (each, at): each is Leading => at < given && each.elsewhere !== undefined && verdicts[at]?.is === 'answers',
  );
};

/**
 * Where answers lead: the first of some editions whose condition holds, over what somebody is asked and nothing else of the
 * form. Null where they are asked here.
 */
export const ledByAnswers = (
  leads: readonly Leading[],
  {
    fields,
    asked,
    holds,
  }: { readonly fields: readonly Field[]; readonly asked: ReadonlySet<string>; readonly holds: Opening['holds'] },
): Leading | null =>
  leads.find(
    ({ when }) =>
      holds(when) && namesIn(when).every((name) => asked.has(name) || !fields.some(({ key }) => key === name)),
  ) ?? null;

/**
 * Which edition of a form somebody is given (Settled: one ordered list; the first whose audience fits wins; out beats in;
 * whoever is out of one goes on to the next, at last to the form as it is), with what came of each.
 */
export function chooseEdition(editions: readonly Edition[], opening: Opening): Chosen {
  const verdicts = editions.map((edition) => verdictOn(edition, opening));
  const at = verdicts.findIndex(({ is }) => is === 'fits');
  return { edition: editions[at] ?? null, verdicts };
}
