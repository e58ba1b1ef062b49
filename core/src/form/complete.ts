import { said, type Words } from '@tolvek/words';
import type { Ternary } from '../expression/index.ts';
import { own } from '../own/index.ts';
import {
  type Field,
  type FieldValue,
  type KindName,
  mergedText,
  type NameOf,
  namesAround,
  orderProblems,
  type Problem,
  type RawAnswer,
  type RawAnswers,
  type ReadAnswer,
  type RequestFacts,
  readAnswer,
  requestScope,
  sayValue,
  typedForm,
  type Values,
} from '../register/index.ts';
import { carriedValue } from './carried.ts';
import {
  type AskedForm,
  FIRST_PAGE,
  type FormRule,
  type Instruction,
  type Part,
  type Question,
  questionsOf,
} from './design.ts';
import { type Effects, ReadyRules, type Said } from './effects.ts';
import { type Place, placesOf } from './layout.ts';
import { readyPreset } from './presets.ts';
import { prepareSettling } from './settle.ts';
import { prepareVisible } from './visible.ts';

/** A question as it stands now: what rules made of it. */
export interface AskedQuestion extends Question {
  /** A rule keeps its value: it is shown, not asked. */
  readonly locked: boolean;
  /** The options a rule left; null when it left all. */
  readonly offers: readonly string[] | null;
  /** What stands in it untouched: its default as it would be typed. */
  readonly stands: RawAnswer;
  /** Its value in words when it is locked. */
  readonly shown: Words;
}

export type ShownPart =
  | AskedQuestion
  | Exclude<Part, Question | Instruction>
  | (Omit<Instruction, 'text'> & { readonly text: Words });

/**
 * What a set of answers comes to: what is asked and shown, the values to store, and every problem.
 */
export interface Completion {
  /** What stands on the form, in order. Headings with nothing under them are left out. */
  readonly parts: readonly ShownPart[];
  readonly asked: readonly AskedQuestion[];
  /**
   * Answers to what is asked, presets and computed values. The answer to a hidden question is not
   * among them, unless it is to be kept.
   */
  readonly values: Values;
  /** What the requester has to mend, in the order of the form. */
  readonly problems: readonly Problem[];
  /** Answers to what this form does not ask, or does not ask now: who sends them is refused. */
  readonly strangers: readonly Problem[];
  readonly warnings: readonly Said[];
  /** Answers to empty at once where they are typed, as their questions went away. */
  readonly cleared: readonly string[];
  /** The rules that ran, and whether the condition of each holds. */
  readonly rules: readonly { readonly rule: FormRule; readonly held: Ternary }[];
  readonly atRest: boolean;
}

/**
 * Whether a problem is only that nothing was answered yet: not to be shown before somebody tries to
 * send.
 */
export const isUnanswered = ({ why }: Pick<Problem, 'why'>): boolean => why === 'unanswered';

/**
 * Prepares a form for completing answers, once per release. The browser runs the result at every
 * keystroke, the server on every submit; both get the same answer for the same input.
 */
export function prepareCompletion(form: AskedForm): (answers: RawAnswers, facts: RequestFacts) => Completion {
  const { fields, parts } = form;
  const scope = requestScope(fields);
  const rules = new ReadyRules(form, scope, () => true);
  const settle = prepareSettling(fields, scope, rules);
  const places = placesOf(parts);
  const visibleIn = prepareVisible(places, fields, rules);
  const indexOf = new Map(fields.map((field, index) => [field.key, index]));
  const presets = fields.map((field) => readyPreset(field, scope));
  const asking = new Map<string, Question>();
  /** By the place of the field: the question that asks for it, and where that stands. */
  const asks = fields.map((field) => {
    const place =
      field.source === 'asked'
        ? places.findIndex(({ part }) => part.part === 'question' && part.field === field.key)
        : -1;
    const part = places[place]?.part;
    if (part?.part !== 'question') return null;
    asking.set(field.key, part);
    return { question: part, place };
  });
  const hasOrder = fields.some((field) => 'notBefore' in field.type && field.type.notBefore !== undefined);
  // By the facts they were read with: when those are gone, so are the answers. A prepared form is kept
  // for long, and must not keep what anybody typed.
  const remembered = new WeakMap<RequestFacts, Map<string, { readonly raw: RawAnswer; readonly read: ReadAnswer }>>();

  /** Reads an answer; one that is still the same needs no reading again at the next keystroke. */
  const readOnce = (field: Field, raw: RawAnswer, facts: RequestFacts): ReadAnswer => {
    let reads = remembered.get(facts);
    if (!reads) remembered.set(facts, (reads = new Map()));
    const known = reads.get(field.key);
    if (known?.raw === raw) return known.read;
    const read = readAnswer(field, raw, facts);
    reads.set(field.key, { raw, read });
    return read;
  };

  return (answers, facts) => {
    const reads = fields.map((field, index) =>
      asks[index] && Object.hasOwn(answers, field.key) ? readOnce(field, answers[field.key] ?? null, facts) : null,
    );
    const settled = settle((index, effects, slots) => {
      const [field, asked, read, preset] = [fields[index], asks[index], reads[index], presets[index]];
      if (field?.source === 'given') return own(facts.numbers, field.key);
      if (field?.source === 'carried') return carriedValue(field, slots[indexOf.get(field.reference) ?? -1], facts);
      // Who has not touched a question leaves its preset standing; who emptied it has answered with
      // nothing.
      if (!asked || !read) return preset?.(slots, facts);
      const { question, place } = asked;
      const takes = visibleIn(effects, facts)[place]
        ? !effects.locked.has(question.field)
        : question.whenHidden === 'kept';
      if (takes) return read.state === 'value' ? read.value : undefined;
      return preset?.(slots, facts);
    }, facts);
    const { effects } = settled;
    const values = valuesOf(fields, settled.values);
    const nameOf = namesAround(facts);
    const visible = visibleIn(effects, facts);
    const isAsked = new Map<string, AskedQuestion>();
    const problems: Problem[] = [];
    const shown = withoutEmptyHeadings(places.filter((_, index) => visible[index])).map(({ part }): ShownPart => {
      if (part.part === 'instruction') return { ...part, text: merged(part.text, fields, values, nameOf) };
      if (part.part !== 'question') return part;
      const index = indexOf.get(part.field) ?? -1;
      const [field, read, value] = [fields[index], reads[index], settled.values[index]];
      const asked = asAsked(part, effects, field, value, read === null, nameOf);
      isAsked.set(part.field, asked);
      problems.push(...problemsAt(asked, field, read ?? undefined, value));
      return asked;
    });
    if (hasOrder) problems.push(...orderProblems(fields, values).filter((problem) => isAsked.has(problem.field)));
    problems.push(
      ...effects.refusals.map(
        ({ field, text, fix }): Problem => ({ field: isAsked.has(field) ? field : 'form', message: text, fix }),
      ),
    );
    return {
      parts: shown,
      asked: [...isAsked.values()],
      values,
      problems,
      strangers: strangersAmong(answers, asking, isAsked),
      warnings: effects.warnings,
      cleared: fields.flatMap((field, index) =>
        reads[index] && asks[index]?.question.whenHidden === 'cleared' && !isAsked.has(field.key) ? [field.key] : [],
      ),
      rules: rules.running.map((rule, index) => ({ rule, held: effects.held[index] ?? null })),
      atRest: settled.atRest,
    };
  };
}

/** All that keeps a completion from being taken in. */
export const refusalsOf = ({ problems, strangers }: Pick<Completion, 'problems' | 'strangers'>): readonly Problem[] => [
  ...problems,
  ...strangers,
];

/**
 * The answers to send: those to what is asked and open, and those that are kept although their
 * question is away.
 */
export function answersToSend(
  answers: RawAnswers,
  { asked }: Pick<Completion, 'asked'>,
  parts: readonly Part[],
): RawAnswers {
  const open = new Set(asked.filter((question) => !question.locked).map((question) => question.field));
  const kept = new Set(
    questionsOf(parts).flatMap((question) => (question.whenHidden === 'kept' ? [question.field] : [])),
  );
  return Object.fromEntries(
    Object.entries(answers).filter(
      ([key]) => open.has(key) || (kept.has(key) && !asked.some((question) => question.field === key)),
    ),
  );
}

function asAsked(
  question: Question,
  { required, locked, limits, put }: Effects,
  field: Field | undefined,
  value: FieldValue | undefined,
  untouched: boolean,
  nameOf: NameOf,
): AskedQuestion {
  const { field: key } = question;
  const isLocked = locked.has(key) || put.has(key);
  const known = field && value !== undefined;
  // Named one by one: a form of hundreds of questions is completed at every keystroke, and
  // spreading them would cost more than the rules.
  return {
    part: 'question',
    field: key,
    asks: question.asks,
    help: question.help,
    whenHidden: question.whenHidden ?? 'ignored',
    required: question.required || required.has(key),
    locked: isLocked,
    offers: limits.get(key) ?? null,
    stands: known && !isLocked && untouched ? typedForm(field, value) : null,
    shown: known && isLocked ? sayValue(field, value, nameOf) : '',
  };
}

/** An instruction with the values it names. */
const merged = (text: string, fields: readonly Field[], values: Values, nameOf: NameOf): Words =>
  mergedText(text, (key) => {
    const field = fields.find((each) => each.key === key);
    const value = own(values, key);
    return field && value !== undefined ? sayValue(field, value, nameOf) : null;
  });

/** A section or page that has nothing to show under it is no help to anybody. */
function withoutEmptyHeadings(places: readonly Place[]): readonly Place[] {
  if (places.every(({ section, page }) => section === null && page === FIRST_PAGE)) return places;
  const filled = new Set(
    places.flatMap(({ part, section, page }) =>
      part.part === 'question' || part.part === 'instruction' ? [section, page] : [],
    ),
  );
  return places.filter(({ part, key }) => (part.part !== 'section' && part.part !== 'page') || filled.has(key));
}

function valuesOf(fields: readonly Field[], held: readonly (FieldValue | undefined)[]): Values {
  const values: Record<string, FieldValue> = {};
  for (const [index, field] of fields.entries()) {
    const value = held[index];
    if (value !== undefined) values[field.key] = value;
  }
  return values;
}

/** At most so many cells of line items are told at once. */
const CELLS_TOLD = 50;

function problemsAt(
  question: AskedQuestion,
  field: Field | undefined,
  read: ReadAnswer | undefined,
  value: FieldValue | undefined,
): readonly Problem[] {
  if (!field) return [];
  const key = question.field;
  if (!question.locked && read?.state === 'wrong') {
    if (!read.cells) return [{ field: key, message: read.message, fix: read.fix }];
    const columns = field.type.kind === 'line-items' ? field.type.columns : [];
    return read.cells.slice(0, CELLS_TOLD).map(({ message, fix, place, why }) => ({
      ...(why ? { why } : {}),
      field: key,
      message: said('answers:inLine', {
        line: place.row + 1,
        column: columns.find((column) => column.key === place.column)?.label ?? place.column,
        message,
      }),
      fix,
      place,
    }));
  }
  if (value === undefined) return question.required ? [missing(question, field)] : [];
  return question.offers && (field.type.kind === 'choice' || field.type.kind === 'choices')
    ? notOffered(question, field, value)
    : [];
}

function notOffered(question: AskedQuestion, field: Field, value: FieldValue): readonly Problem[] {
  const options = field.type.kind === 'choice' || field.type.kind === 'choices' ? field.type.options : [];
  // What was said instead of an option is none that a rule could take away.
  const gone = (Array.isArray(value) ? (value as readonly string[]) : [String(value)]).find(
    (key) => !question.offers?.includes(key) && options.some((option) => option.key === key),
  );
  if (gone === undefined) return [];
  const label = options.find((option) => option.key === gone)?.label ?? gone;
  return [
    {
      field: question.field,
      message: said('answers:notOffered', { label }),
      fix: said('answers:chooseFromList'),
    },
  ];
}

function strangersAmong(
  answers: RawAnswers,
  askedHere: ReadonlyMap<string, Question>,
  asked: ReadonlyMap<string, AskedQuestion>,
): readonly Problem[] {
  return Object.keys(answers).flatMap((key): Problem[] => {
    const question = askedHere.get(key);
    if (!question) return [{ field: key, message: said('answers:notAsked', { key }), fix: said('answers:removeIt') }];
    const now = asked.get(key);
    if (!now)
      return question.whenHidden === 'kept'
        ? []
        : [
            {
              field: key,
              message: said('answers:notAskedNow'),
              fix: said('answers:removeOrChange'),
            },
          ];
    return now.locked ? [{ field: key, message: said('answers:setByForm'), fix: said('answers:removeIt') }] : [];
  });
}

const PICKED: ReadonlySet<string> = new Set([
  'choice',
  'choices',
  'level',
  'yes-no',
  'person',
  'people',
  'term',
  'terms',
  'reference',
  'references',
]);

function missing(question: Question, field: Field): Problem {
  const message = said('answers:unanswered', { label: question.asks || field.label });
  return { field: question.field, message, fix: said(`answers:${wayToAnswer(field.type.kind)}`), why: 'unanswered' };
}

function wayToAnswer(kind: KindName): 'addLine' | 'chooseDate' | 'chooseMoment' | 'chooseOne' | 'fillIn' {
  switch (kind) {
    case 'line-items':
      return 'addLine';
    case 'date':
      return 'chooseDate';
    case 'date-time':
      return 'chooseMoment';
    default:
      return PICKED.has(kind) ? 'chooseOne' : 'fillIn';
  }
}
