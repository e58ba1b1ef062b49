import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type AskedForm,
  answersToSend,
  askedForm,
  findingsOf,
  prepareCompletion,
  questionsOf,
  refusalsOf,
} from '../src/form/index.ts';
import {
  expressionValue,
  type RawAnswers,
  readAnswer,
  showValue,
  typedForm,
  valueFromExpression,
} from '../src/register/index.ts';
import { ANY_KIND, answersTo, anyAnswer, anyForm, asDesign, FACTS, goodAnswer, SURROUNDINGS } from './anyForm.ts';
import { often } from './often.ts';

const formWithAnswers = anyForm.chain((form) => fc.tuple(fc.constant(form), answersTo(form)));
const NUMBER_OF_FORMS = often(1_000);

/** Each kind was tried so many times: what asserts only sometimes says how often it did. */
function everyKindOf(tried: ReadonlyMap<string, number>, times: number, but: readonly string[] = []): void {
  const rare = ANY_KIND.map(({ kind }) => kind).filter((kind) => !but.includes(kind) && (tried.get(kind) ?? 0) < times);
  expect(rare).toEqual([]);
}

/** What the browser sends: the answers of the questions it shows. */
const sent = (form: AskedForm, answers: RawAnswers): RawAnswers =>
  answersToSend(answers, prepareCompletion(askedForm(form))(answers, FACTS), form.parts);

/** How a circle is told. */
const CIRCLES = /depend on each other/;

describe('completing generated forms', () => {
  it('comes to the same in the browser, with all that was typed, and on the server, with what was sent', () => {
    fc.assert(
      fc.property(formWithAnswers, ([form, answers]) => {
        // The browser has what is asked; the server has the whole form.
        const browser = prepareCompletion(askedForm(form))(answers, FACTS);
        // Over the wire and through the database: nothing but JSON gets there.
        const server = prepareCompletion(JSON.parse(JSON.stringify(form)))(
          JSON.parse(JSON.stringify(sent(form, answers))),
          JSON.parse(JSON.stringify(FACTS)),
        );
        expect(server.values).toMatchObject(browser.values);
        for (const { field } of browser.asked) expect(server.values[field]).toEqual(browser.values[field]);
        expect(server.asked).toEqual(browser.asked);
        expect(server.problems).toEqual(browser.problems);
        expect(server.warnings).toEqual(browser.warnings);
        expect(
          server.strangers.filter((problem) =>
            form.fields.some((field) => field.key === problem.field && field.source === 'asked'),
          ),
        ).toEqual([]);
      }),
      { numRuns: NUMBER_OF_FORMS },
    );
  });

  it('comes to rest wherever there is no circle, and the findings tell when there is one', () => {
    fc.assert(
      fc.property(formWithAnswers, ([form, answers]) => {
        expect(prepareCompletion(form)(answers, FACTS).atRest).toBe(true);
        expect(
          findingsOf(asDesign(form), SURROUNDINGS).filter(({ message }) => CIRCLES.test(english(message))),
        ).toEqual([]);
      }),
      { numRuns: often(500) },
    );
  });

  it('stores nothing of a hidden question but what its preset or a rule puts there, or what is to be kept', () => {
    let held = 0;
    let hiding = 0;
    fc.assert(
      fc.property(formWithAnswers, ([form, answers]) => {
        const { asked, values } = prepareCompletion(form)(answers, FACTS);
        const open = new Set(asked.map((question) => question.field));
        const without = Object.fromEntries(Object.entries(answers).filter(([key]) => open.has(key)));
        const again = prepareCompletion(form)(without, FACTS);
        const kept = new Set(
          questionsOf(form.parts).flatMap((question) => (question.whenHidden === 'kept' ? [question.field] : [])),
        );
        // What is kept while it is hidden is an answer, and others may follow from it.
        if (kept.size > 0) return;
        expect(again.values).toEqual(values);
        held += 1;
        if (Object.keys(without).length < Object.keys(answers).length) hiding += 1;
      }),
      { numRuns: often(1_000) },
    );
    expect(held).toBeGreaterThan(often(100));
    expect(hiding).toBeGreaterThan(often(100));
  });

  it('refuses answers to questions that are not asked, and takes none of them', () => {
    fc.assert(
      fc.property(formWithAnswers, ([form, answers]) => {
        const completion = prepareCompletion(form)({ ...answers, stranger: 'x', double: '1' }, FACTS);
        expect(completion.strangers.map((problem) => problem.field)).toEqual(
          expect.arrayContaining(['stranger', 'double']),
        );
        expect(completion.values).not.toHaveProperty('stranger');
        expect(refusalsOf(completion).length).toBeGreaterThan(0);
      }),
      { numRuns: 500 },
    );
  });

  it('a form that can be sent gives values that read back as they were stored', () => {
    const readBack = new Map<string, number>();
    fc.assert(
      fc.property(formWithAnswers, ([form, answers]) => {
        const { values, asked } = prepareCompletion(form)(answers, FACTS);
        for (const question of asked) {
          const field = form.fields.find((each) => each.key === question.field);
          const value = values[question.field];
          if (!field || value === undefined || question.locked) continue;
          expect(readAnswer(field, typedForm(field, value), FACTS)).toEqual({ state: 'value', value });
          readBack.set(field.type.kind, (readBack.get(field.type.kind) ?? 0) + 1);
        }
      }),
      { numRuns: often(1_000) },
    );
    everyKindOf(readBack, 10);
  });
});

describe('every kind', () => {
  const typed = fc.constantFrom(...ANY_KIND).chain((type) => fc.tuple(fc.constant(type), goodAnswer(type)));

  it('reads what it would have typed back to the same value, and shows it in words', () => {
    const told = new Map<string, number>();
    fc.assert(
      fc.property(typed, ([type, raw]) => {
        const read = readAnswer({ type }, raw, FACTS);
        if (read.state !== 'value') return;
        expect(readAnswer({ type }, typedForm({ type }, read.value), FACTS)).toEqual(read);
        expect(showValue({ type }, read.value, (id) => `person ${id}`)).not.toBe('');
        told.set(type.kind, (told.get(type.kind) ?? 0) + 1);
      }),
      { numRuns: often(2_000) },
    );
    everyKindOf(told, often(10));
  });

  it('gets from an expression what it gave to it', () => {
    const told = new Map<string, number>();
    fc.assert(
      fc.property(typed, ([type, raw]) => {
        const read = readAnswer({ type }, raw, FACTS);
        if (read.state !== 'value' || type.kind === 'line-items' || type.kind === 'files') return;
        expect(valueFromExpression({ type }, expressionValue({ type }, read.value))).toEqual(read.value);
        told.set(type.kind, (told.get(type.kind) ?? 0) + 1);
      }),
      { numRuns: often(2_000) },
    );
    everyKindOf(told, often(10), ['line-items', 'files']);
  });

  it('never throws, whatever is sent', () => {
    fc.assert(
      fc.property(fc.constantFrom(...ANY_KIND), anyAnswer, (type, raw) => {
        expect(['empty', 'value', 'wrong']).toContain(readAnswer({ type }, raw, FACTS).state);
      }),
      { numRuns: 3_000 },
    );
  });
});
