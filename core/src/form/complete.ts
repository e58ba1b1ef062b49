import type { Ternary } from '../expression/index.ts';
import {
  type Field,
  type FieldValue,
  type NameOf,
  orderProblems,
  type Problem,
  type RawAnswer,
  type RawAnswers,
  type ReadAnswer,
  type RequestFacts,
  readAnswer,
  requestScope,
  showValue,
  typedForm,
  type Values,
} from '../register/index.ts';
import { type AskedForm, FIRST_PAGE, type FormRule, type Part, type Question, questionsOf } from './design.ts';
import { type Effects, ReadyRules, type Said } from './effects.ts';
import { type Place, placesOf } from './layout.ts';
import { readyPreset } from './presets.ts';
import { prepareSettling } from './settle.ts';

/** A question as it stands now: what rules made of it. */
export interface AskedQuestion extends Question {
  /** A rule keeps its value: it is shown, not asked. */
  readonly locked: boolean;
  /** The options a rule left; null when it left all. */
  readonly offers: readonly string[] | null;
  /** What stands in it untouched: its default as it would be typed. */
  readonly stands: RawAnswer;
  /** Its value in words when it is locked. */
  readonly shown: string;
}

export type ShownPart = AskedQuestion | Exclude<Part, Question>;

/** What a set of answers comes to: what is asked and shown, the values to store, and every problem. */
export interface Completion {
  /** What stands on the form, in order. Headings with nothing under them are left out. */
  readonly parts: readonly ShownPart[];
  readonly asked: readonly AskedQuestion[];
  /** Answers to what is asked, presets and computed values. The answer to a hidden question is not among them, unless it is to be kept. */
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

const UNANSWERED = 'has no answer yet.';

/** Whether a problem is only that nothing was answered yet: not to be shown before somebody tries to send. */
export const isUnanswered = (problem: Pick<Problem, 'message'>): boolean => problem.message.endsWith(UNANSWERED);

/**
 * Prepares a form for completing answers, once per release. The browser runs the result at every keystroke, the server on
 * every submit; both get the same answer for the same input.
 */
export function prepareCompletion(form: AskedForm): (answers: RawAnswers, facts: RequestFacts) => Completion {
  const { fields, parts } = form;
  const scope = requestScope(fields);
  const rules = new ReadyRules(form, scope, () => true);
  const settle = prepareSettling(fields, scope, rules);
  const indexOf = new Map(fields.map((field, index) => [field.key, index]));
  const presets = fields.map((field) => readyPreset(field, scope));
  const places = placesOf(parts);
  const placeOf = new Map(places.map((place) => [place.key, place]));
  const askedHere = new Map(questionsOf(parts).flatMap((question) => (fields[indexOf.get(question.field) ?? -1]?.source === 'asked' ? [[question.field, question]] : [])));
  // Staff are not shown to whoever comes from outside, so there is nobody to pick there.
  const needsPeople = new Set(fields.flatMap((field) => (field.type.kind === 'person' || field.type.kind === 'people' ? [field.key] : [])));
  const isShown = (key: string, effects: Effects): boolean => effects.shown.get(key) ?? !rules.awaiting.has(key);
  const isVisible = (place: Place, effects: Effects): boolean =>
    isShown(place.key, effects) &&
    (place.section === null || isShown(place.section, effects)) &&
    !effects.skipped.has(place.page) &&
    (place.page === FIRST_PAGE || isShown(place.page, effects));

  return (answers, facts) => {
    const read = new Map<string, ReadAnswer>();
    for (const key of askedHere.keys()) {
      const field = fields[indexOf.get(key) ?? -1];
      if (field && Object.hasOwn(answers, key)) read.set(key, readAnswer(field, answers[key] ?? null, facts));
    }
    const typed = (key: string): FieldValue | undefined => {
      const result = read.get(key);
      return result?.state === 'value' ? result.value : undefined;
    };
    const visibleNow = (place: Place, effects: Effects): boolean => isVisible(place, effects) && !(facts.door === 'outside' && needsPeople.has(place.key));
    const settled = settle((index, effects, slots) => {
      const key = fields[index]?.key ?? '';
      const preset = (): FieldValue | undefined => presets[index]?.(slots, facts);
      const question = askedHere.get(key);
      // Who has not touched a question leaves its preset standing; who emptied it has answered with nothing.
      if (!question || !read.has(key)) return preset();
      const place = placeOf.get(key);
      const takes = place && visibleNow(place, effects) ? !effects.locked.has(key) : question.whenHidden === 'kept';
      return takes ? typed(key) : preset();
    }, facts);
    const { effects } = settled;
    const values = valuesOf(fields, settled.values);
    const nameOf = (id: string): string | undefined => facts.people.find((person) => person.id === id)?.name;
    const visible = places.filter((place) => visibleNow(place, effects));
    const shown = withoutEmptyHeadings(visible).map(({ part }): ShownPart => {
      if (part.part === 'instruction') return { ...part, text: merged(part.text, fields, values, nameOf) };
      if (part.part !== 'question') return part;
      const field = fields[indexOf.get(part.field) ?? -1];
      const value = values[part.field];
      const asked = asAsked(part, effects);
      const stands = field && value !== undefined && !asked.locked && !read.has(part.field) ? typedForm(field, value) : null;
      return { ...asked, stands, shown: field && value !== undefined && asked.locked ? showValue(field, value, nameOf) : '' };
    });
    const asked = shown.filter((part) => part.part === 'question');
    const isAsked = new Map(asked.map((question) => [question.field, question]));
    const problems = [
      ...asked.flatMap((question) => problemsAt(question, fields[indexOf.get(question.field) ?? -1], read.get(question.field), values)),
      ...orderProblems(fields, values).filter((problem) => isAsked.has(problem.field)),
      ...effects.refusals.map(({ field, text, fix }): Problem => ({ field: isAsked.has(field) ? field : 'form', message: text, fix })),
    ];
    return {
      parts: shown,
      asked,
      values,
      problems,
      strangers: strangersAmong(answers, askedHere, isAsked),
      warnings: effects.warnings,
      cleared: [...read.keys()].filter((key) => !isAsked.has(key) && askedHere.get(key)?.whenHidden === 'cleared'),
      rules: rules.running.map((rule, index) => ({ rule, held: effects.held[index] ?? null })),
      atRest: settled.atRest,
    };
  };
}

/** All that keeps a completion from being taken in. */
export const refusalsOf = ({ problems, strangers }: Pick<Completion, 'problems' | 'strangers'>): readonly Problem[] => [...problems, ...strangers];

/** The answers to send: those to what is asked and open, and those that are kept although their question is away. */
export function answersToSend(answers: RawAnswers, { asked }: Pick<Completion, 'asked'>, parts: readonly Part[]): RawAnswers {
  const open = new Set(asked.filter((question) => !question.locked).map((question) => question.field));
  const kept = new Set(questionsOf(parts).flatMap((question) => (question.whenHidden === 'kept' ? [question.field] : [])));
  return Object.fromEntries(Object.entries(answers).filter(([key]) => open.has(key) || (kept.has(key) && !asked.some((question) => question.field === key))));
}

const asAsked = (question: Question, { required, locked, limits, put }: Effects): Omit<AskedQuestion, 'stands' | 'shown'> => ({
  ...question,
  required: question.required || required.has(question.field),
  locked: locked.has(question.field) || put.has(question.field),
  offers: limits.get(question.field) ?? null,
});

/** An instruction with the values it names; what is empty leaves nothing. */
const merged = (text: string, fields: readonly Field[], values: Values, nameOf: NameOf): string =>
  text.replace(/\{(\w+)\}/g, (_, key: string) => {
    const field = fields.find((each) => each.key === key);
    const value = values[key];
    return field && value !== undefined ? showValue(field, value, nameOf) : '';
  });

/** A section or page that has nothing to show under it is no help to anybody. */
function withoutEmptyHeadings(places: readonly Place[]): readonly Place[] {
  const filled = new Set(places.flatMap(({ part, section, page }) => (part.part === 'question' || part.part === 'instruction' ? [section, page] : [])));
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

function problemsAt(question: AskedQuestion, field: Field | undefined, read: ReadAnswer | undefined, values: Values): readonly Problem[] {
  if (!field) return [];
  const key = question.field;
  if (!question.locked && read?.state === 'wrong') {
    if (!read.cells) return [{ field: key, message: read.message, fix: read.fix }];
    const columns = field.type.kind === 'line-items' ? field.type.columns : [];
    return read.cells.slice(0, CELLS_TOLD).map(({ message, fix, place }) => ({
      field: key,
      message: `Line ${place.row + 1}, ${columns.find((column) => column.key === place.column)?.label ?? place.column}: ${message}`,
      fix,
      place,
    }));
  }
  const value = values[key];
  if (value === undefined) return question.required ? [missing(question, field)] : [];
  return question.offers && (field.type.kind === 'choice' || field.type.kind === 'choices') ? notOffered(question, field, value) : [];
}

function notOffered(question: AskedQuestion, field: Field, value: FieldValue): readonly Problem[] {
  const options = field.type.kind === 'choice' || field.type.kind === 'choices' ? field.type.options : [];
  const gone = (Array.isArray(value) ? (value as readonly string[]) : [String(value)]).find((key) => !question.offers?.includes(key));
  if (gone === undefined) return [];
  const label = options.find((option) => option.key === gone)?.label ?? gone;
  return [{ field: question.field, message: `“${label}” is not offered with these answers.`, fix: 'Choose another from the list.' }];
}

function strangersAmong(answers: RawAnswers, askedHere: ReadonlyMap<string, Question>, asked: ReadonlyMap<string, AskedQuestion>): readonly Problem[] {
  return Object.keys(answers).flatMap((key): Problem[] => {
    const question = askedHere.get(key);
    if (!question) return [{ field: key, message: `This form does not ask for “${key}”.`, fix: 'Leave it out.' }];
    const now = asked.get(key);
    if (!now)
      return question.whenHidden === 'kept'
        ? []
        : [{ field: key, message: 'This is not asked with the other answers as they are.', fix: 'Leave it out, or change the answers it depends on.' }];
    return now.locked ? [{ field: key, message: 'This is set by the form and can’t be answered.', fix: 'Leave it out.' }] : [];
  });
}

const PICKED: ReadonlySet<string> = new Set(['choice', 'choices', 'level', 'yes-no', 'date', 'date-time', 'person', 'people']);

function missing(question: Question, field: Field): Problem {
  const fix = field.type.kind === 'line-items' ? 'Add a line.' : PICKED.has(field.type.kind) ? 'Choose one.' : 'Fill it in.';
  return { field: question.field, message: `“${question.asks || field.label}” ${UNANSWERED}`, fix };
}
