import type { Key, Said, Words } from '@tolvek/words';
import { said } from '@tolvek/words';
import type { AccessPlan } from '../../access/index.ts';
import { type ApprovalPlan, FIRST_PATH } from '../../approval/index.ts';
import { finishRule } from '../../deadline/index.ts';
import type { Field } from '../../register/index.ts';
import type { FormDesign, Part, Question } from '../design.ts';

/** What a new form stands on: who works on its requests, who decides, by which hours. */
export interface Ground {
  /** Makes the words that the form begins with: they are its own from then on. */
  readonly told: (words: Words) => string;
  readonly title: string;
  readonly team: string;
  readonly approvers: string;
  readonly calendar: string;
}

/** The words of recipes, by key. */
export type RecipeWords = Extract<Key, `recipes:${string}`> extends `recipes:${infer Name}` ? Name : never;
type Recipes = Extract<RecipeWords, `${string}.says`> extends `${infer Name}.says` ? Name : never;

/** A ready-made start, to be opened and changed. */
export interface Recipe {
  readonly key: Recipes;
  /** Things are in use from the start, for references to point to; requests go through a desk. */
  readonly holds?: 'things';
  readonly make: (ground: Ground) => FormDesign;
  /** The access plan that its words promise; none when they promise nothing. */
  readonly protects?: (ground: Ground) => Pick<AccessPlan, 'rules'>;
}

const HOUR = 3_600_000;

/** Says the words of recipes by key. */
type Wordy = (name: RecipeWords) => string;

/** A recipe whose words are said by key, in the language of whoever makes a form of it. */
export function recipe({
  make,
  protects,
  ...rest
}: Omit<Recipe, 'make' | 'protects'> & {
  readonly make: (ground: Ground, t: Wordy) => FormDesign;
  readonly protects?: (ground: Ground, t: Wordy) => Pick<AccessPlan, 'rules'>;
}): Recipe {
  return {
    ...rest,
    make: (ground) => make(ground, wordsOf(ground)),
    ...(protects ? { protects: (ground) => protects(ground, wordsOf(ground)) } : {}),
  };
}

const wordsOf =
  ({ told }: Ground): Wordy =>
  (name) =>
    told({ say: `recipes:${name}` });

/** What a recipe is called, and what it makes. */
export const recipeLabel = ({ key }: Pick<Recipe, 'key'>): Said => said(`recipes:${key}.label`);
export const recipeSays = ({ key }: Pick<Recipe, 'key'>): Said => said(`recipes:${key}.says`);

/** One path of one step, decided by any member of a group. */
export const decidedBy = (label: string, group: string): ApprovalPlan => ({
  paths: [{ id: FIRST_PATH, label: '', steps: [{ id: 'decision', label, seats: [{ group }], needed: 1 }] }],
});

/** A form that asks nothing yet. */
export const blankDesign = ({ told, title, team, approvers, calendar }: Ground): FormDesign => ({
  title,
  intro: '',
  subject: '',
  fields: [],
  parts: [],
  rules: [],
  unique: [],
  routing: { columns: [], rows: [], otherwise: { team, priority: 'normal', workingDays: 3, path: null } },
  approval: decidedBy(told(said('recipes:decision')), approvers),
  deadline: { calendar, leads: team, deadlines: [finishRule(4 * HOUR, 0)] },
});

/** A field and the question that asks for it. */
export interface Asked {
  readonly field: Field;
  readonly question: Question;
}

type Wording = Partial<Pick<Question, 'asks' | 'help' | 'required'>>;

export const asking = (
  key: string,
  label: string,
  type: Field['type'],
  { asks = '', help = '', required = true }: Wording = {},
): Asked => ({
  field: { key, label, type, source: 'asked' },
  question: { part: 'question', field: key, asks, help, required },
});

/** A form that asks these, with sections and words among them. */
export function designOf(
  ground: Ground,
  subject: string,
  lines: readonly (Asked | Exclude<Part, Question>)[],
  more: readonly Field[] = [],
): FormDesign {
  return {
    ...blankDesign(ground),
    subject,
    fields: [...lines.flatMap((line) => ('field' in line ? [line.field] : [])), ...more],
    parts: lines.map((line) => ('field' in line ? line.question : line)),
  };
}
