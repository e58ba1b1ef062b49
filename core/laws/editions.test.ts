import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  type AskedForm,
  chooseEdition,
  type Difference,
  type Edition,
  editionOf,
  leadsByAnswers,
  ledByAnswers,
  type Part,
  partKey,
  prepareCompletion,
} from '../src/form/index.ts';
import { belongs } from '../src/people/index.ts';
import type { Field } from '../src/register/index.ts';
import { anyDifferences, anyEditions } from './anyEdition.ts';
import { answersTo, anyForm, FACTS } from './anyForm.ts';
import { anyLook, CONDITIONS } from './anyPlan.ts';
import { often } from './often.ts';
import * as Plainly from './plainEdition.ts';

test('who is given which edition is what the words say, and each that is not given says why', () => {
  const counts = {
    fits: 0,
    off: 0,
    out: 0,
    'not-in': 0,
    stage: 0,
    condition: 0,
    answers: 0,
    plain: 0,
    later: 0,
    byRight: 0,
  };
  fc.assert(
    fc.property(anyEditions(), fc.array(anyLook, { minLength: 3, maxLength: 8 }), (editions, looks) => {
      for (const look of looks) {
        const stage = look.isDesk ? look.stage : '~asking';
        const chosen = chooseEdition(editions, {
          who: look,
          stands: look,
          stage,
          holds: (condition) => look.holding.includes(condition),
          asked: new Set(['a']),
        });
        const given = Plainly.given(editions, look, stage);
        expect(chosen.edition?.id ?? null).toBe(given?.id ?? null);
        counts.plain += given === null ? 1 : 0;
        for (const [index, edition] of editions.entries()) {
          const verdict = chosen.verdicts[index];
          expect(verdict?.is === 'fits').toBe(Plainly.fits(edition, look, stage));
          counts[verdict?.is ?? 'fits'] += 1;
          if (verdict?.is === 'fits' && edition.id !== given?.id) counts.later += 1;
          if (verdict?.is === 'fits' && verdict.by?.startsWith('+')) counts.byRight += 1;
          // The reason is one: mended, it is no reason any more.
          const mended: Edition = {
            ...edition,
            on: edition.on || verdict?.is === 'off',
            audience:
              verdict?.is === 'out'
                ? { ...edition.audience, outOf: edition.audience.outOf.filter((word) => word !== verdict.by) }
                : verdict?.is === 'not-in'
                  ? { ...edition.audience, in: { everyone: true } }
                  : edition.audience,
            when: verdict?.is === 'condition' || verdict?.is === 'answers' ? '' : edition.when,
            ...(verdict?.is === 'stage' ? { stages: undefined, elsewhere: undefined } : {}),
          };
          const again = chooseEdition([mended], {
            who: look,
            stands: look,
            stage,
            holds: (c) => look.holding.includes(c),
          });
          if (verdict?.is === 'out' && verdict.by === '~requester')
            expect(edition.audience.requester === 'out' && look.isRequester).toBe(true);
          else
            expect([verdict?.is, again.verdicts[0]]).not.toEqual([
              verdict?.is,
              verdict?.is === 'fits' ? null : verdict,
            ]);
          expect(belongs(edition.audience, look, look)).toBe(
            !['out', 'not-in'].includes(
              chooseEdition([{ ...edition, on: true }], { who: look, stands: look, stage, holds: () => true })
                .verdicts[0]?.is ?? '',
            ),
          );
        }
      }
    }),
    { numRuns: often(3_500) },
  );
  console.log('who is given what:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(100);
});

test('answers lead elsewhere where the words say so: before whatever else somebody is given, and by what they are asked alone', () => {
  const counts = { led: 0, here: 0, 'given before': 0, unasked: 0 };
  const fields = ['a', 'b'].map((key): Field => ({ key, label: key, type: { kind: 'text' }, source: 'asked' }));
  fc.assert(
    fc.property(anyEditions(), anyLook, fc.subarray(CONDITIONS), fc.boolean(), (editions, look, after, isAsked) => {
      // What hangs on no answer holds as before.
      const holding = CONDITIONS.filter((each) => (each.startsWith('a ') ? after : look.holding).includes(each));
      const before = look.holding.filter((each) => !each.startsWith('a '));
      const who = { ...look, holding: before };
      const asked = new Set(isAsked ? ['a'] : ['b']);
      const chosen = chooseEdition(editions, {
        ...{ who, stands: who, stage: '~asking', asked: new Set(['a', 'b']) },
        holds: (condition) => before.includes(condition),
      });
      const leads = leadsByAnswers(editions, chosen);
      const led = ledByAnswers(leads, { fields, asked, holds: (condition) => holding.includes(condition) });
      const plainly = Plainly.led(editions, who, { holding, byAnswers: isAsked ? ['a = "1"'] : [] });
      expect(led?.id ?? null).toBe(plainly?.id ?? null);
      if (plainly) counts.led += 1;
      else if (leads.length > 0) counts[isAsked ? 'here' : 'unasked'] += 1;
      else if (chosen.edition) counts['given before'] += 1;
    }),
    { numRuns: often(15_000) },
  );
  console.log('led elsewhere by answers:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(50);
});

/** One thing that changes in a form. */
type Change =
  | 'question'
  | 'words'
  | 'text'
  | 'asks'
  | 'help'
  | 'title'
  | 'required'
  | 'label'
  | 'option'
  | 'gone'
  | 'place';
const CHANGES: readonly Change[] = [
  ...(['question', 'words', 'text', 'asks', 'help', 'title', 'required', 'label', 'option', 'gone', 'place'] as const),
];

/** A form in which one thing changed; the same where there is nothing of the kind. */
function changedIn(form: AskedForm, what: Change, at: number): AskedForm {
  const place = at % (form.parts.length + 1);
  const put = (part: Part): AskedForm['parts'] => [...form.parts.slice(0, place), part, ...form.parts.slice(place)];
  const edit = (change: (part: Part) => Part): AskedForm => ({
    ...form,
    parts: form.parts.map((part, index) => (index === at % form.parts.length ? change(part) : part)),
  });
  switch (what) {
    case 'question':
      return {
        ...form,
        fields: [...form.fields, { key: 'fresh', label: 'Fresh', type: { kind: 'text' }, source: 'asked' }],
        parts: put({ part: 'question', field: 'fresh', asks: '', help: '', required: true }),
      };
    case 'words':
      return { ...form, parts: put({ part: 'instruction', id: 'fresh-words', text: 'Fresh.' }) };
    case 'asks':
    case 'help':
      return edit((part) => (part.part === 'question' ? { ...part, [what]: `Fresh ${what}` } : part));
    case 'required':
      return edit((part) => (part.part === 'question' ? { ...part, required: !part.required } : part));
    case 'text':
      return edit((part) => (part.part === 'question' ? part : { ...part, text: 'Fresh text' }));
    case 'title':
      return edit((part) =>
        part.part === 'section' || part.part === 'page' ? { ...part, title: 'Fresh title' } : part,
      );
    case 'label':
      return { ...form, fields: form.fields.map((field) => ({ ...field, label: `${field.label} now` })) };
    case 'option':
      return {
        ...form,
        fields: form.fields.map((field) =>
          field.type.kind === 'choice' || field.type.kind === 'choices'
            ? { ...field, type: { ...field.type, options: [...field.type.options, { key: 'fresh', label: 'Fresh' }] } }
            : field,
        ) as AskedForm['fields'],
      };
    case 'gone':
      return { ...form, parts: form.parts.filter((_, index) => index !== at % form.parts.length) };
    case 'place': {
      const [first, ...rest] = form.parts;
      return first ? { ...form, parts: [...rest, first] } : form;
    }
  }
}

const OF_WORDS = ['asks', 'help', 'title', 'text'] as const;

/** Whether an edition says that a part is not there: itself, or by a heading before it as the edition has them in order. */
function isToldAway(edition: Edition, key: string, order: readonly Part[]): boolean {
  const hides = (one: string): boolean => edition.differences.some((each) => each.does === 'hide' && each.part === one);
  const only = edition.differences.find((each) => each.does === 'only');
  let [section, page] = ['', ''];
  for (const part of order) {
    if (part.part === 'page') [page, section] = [part.id, ''];
    if (part.part === 'section') section = part.id;
    if (partKey(part) === key)
      return (
        hides(key) ||
        hides(page) ||
        (part.part !== 'section' && part.part !== 'page' && hides(section)) ||
        (only !== undefined && part.part === 'question' && !only.shows.includes(key))
      );
  }
  return false;
}

/** Parts without those that an edition moves or has of its own, in order. */
const unmoved = (parts: readonly Part[], { differences }: Edition): readonly string[] =>
  parts
    .map(partKey)
    .filter(
      (key) =>
        !differences.some(
          (each) => (each.does === 'move' && each.part === key) || (each.does === 'add' && partKey(each.adds) === key),
        ),
    );

test('a change of the form reaches every edition, but for what the edition says otherwise itself', () => {
  const counts: Record<string, number> = Object.fromEntries([
    ...CHANGES.map((each) => [each, 0]),
    ...['kept away', 'worded', 'required', 'locked', 'preset', 'offered', 'moved', 'added'].map((each) => [each, 0]),
  ]);
  const count = (what: string): void => {
    counts[what] = (counts[what] ?? 0) + 1;
  };
  fc.assert(
    fc.property(
      anyForm.chain((form) => fc.tuple(fc.constant(form), anyDifferences(form))),
      fc.constantFrom(...CHANGES),
      fc.nat(40),
      ([form, differences], what, at) => {
        fc.pre(form.parts.length > 0);
        const edition: Edition = {
          ...{ id: 'e', name: 'E', on: true, when: '', differences },
          audience: { in: { everyone: true }, outOf: [] },
        };
        const after = changedIn(form, what, at);
        const has = editionOf(after, edition);
        // With nothing hidden, the same edition shows in which order its parts stand.
        const whole = editionOf(after, {
          ...edition,
          differences: differences.filter((each) => each.does !== 'hide' && each.does !== 'only'),
        });
        const named = <D extends Difference['does']>(does: D, key: string) =>
          differences.find((each) => each.does === does && 'part' in each && each.part === key) as
            | Extract<Difference, { does: D }>
            | undefined;
        if (JSON.stringify(after) !== JSON.stringify(form)) count(what);
        for (const part of after.parts) {
          const key = partKey(part);
          const found = has.parts.find((each) => partKey(each) === key);
          if (isToldAway(edition, key, whole.parts)) {
            expect(found).toBeUndefined();
            count('kept away');
            continue;
          }
          expect([key, found?.part]).toEqual([key, part.part]);
          const words = named('reword', key);
          for (const each of OF_WORDS) {
            const now = (found as unknown as Record<string, unknown>)[each];
            const base = (part as unknown as Record<string, unknown>)[each];
            const saidOtherwise = base !== undefined && words?.[each] !== undefined;
            expect([key, each, now]).toEqual([key, each, saidOtherwise ? words?.[each] : base]);
            if (saidOtherwise) count('worded');
          }
          if (part.part !== 'question' || found?.part !== 'question') continue;
          expect(found.whenHidden).toBe(part.whenHidden);
          const isLocked = named('lock', key) !== undefined;
          const wants = isLocked ? false : named('require', key) ? true : named('spare', key) ? false : part.required;
          expect([key, found.required]).toEqual([key, wants]);
          if (wants !== part.required) count('required');
        }
        // What is there is of the form, or of its own.
        for (const { id } of has.parts.flatMap((part) => (part.part === 'question' ? [] : [part])))
          if (!after.parts.some((part) => partKey(part) === id)) {
            expect(differences.some((each) => each.does === 'add' && partKey(each.adds) === id)).toBe(true);
            count('added');
          }
        const kept = new Set(has.parts.map(partKey));
        expect(unmoved(has.parts, edition)).toEqual(unmoved(after.parts, edition).filter((key) => kept.has(key)));
        if (differences.some((each) => each.does === 'move')) count('moved');
        for (const [index, field] of after.fields.entries()) {
          const now = has.fields[index];
          const [preset, offer] = [named('preset', field.key), named('offer', field.key)];
          const strip = (one: unknown): unknown => {
            const {
              preset: _,
              type,
              ...rest
            } = { ...(one as Record<string, unknown>) } as { preset?: unknown; type: { options?: unknown } };
            const { options: __, ...kind } = type;
            return { ...rest, type: kind };
          };
          expect(strip(now)).toEqual(strip(field));
          const of = (one: unknown): unknown => (one as { preset?: unknown } | undefined)?.preset ?? null;
          expect(of(now)).toEqual(preset ? preset.preset : of(field));
          if (preset) count('preset');
          const options = (one: unknown): readonly { key: string; label: string; retired?: boolean }[] =>
            (one as { type: { options?: [] } }).type.options ?? [];
          expect(options(now).map(({ key, label, retired }) => [key, label, retired ?? false])).toEqual(
            options(field).map(({ key, label, retired }) => [
              key,
              label,
              (retired ?? false) || (offer !== undefined && !offer.offers.includes(key)),
            ]),
          );
          if (offer) count('offered');
        }
        const locks = differences.flatMap((each) => (each.does === 'lock' && kept.has(each.part) ? [each.part] : []));
        if (locks.length > 0) {
          expect(has.rules.at(-1)?.then).toEqual([
            { do: 'lock', fields: has.parts.map(partKey).filter((key) => locks.includes(key)) },
          ]);
          count('locked');
        } else expect(has.rules).toEqual(after.rules);
      },
    ),
    { numRuns: often(3_000) },
  );
  console.log('changes of a form that reach its editions:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(often(20));
});

test('an edition is filled in as a form is: what it locks is not taken, what it hides is not asked', () => {
  const counts = { hidden: 0, locked: 0, offered: 0, taken: 0 };
  fc.assert(
    fc.property(
      anyForm.chain((form) => fc.tuple(fc.constant(form), anyDifferences(form), answersTo(form))),
      ([form, differences, answers]) => {
        const edition: Edition = {
          ...{ id: 'e', name: 'E', on: true, when: '', differences },
          audience: { in: { everyone: true }, outOf: [] },
        };
        const done = prepareCompletion(editionOf(form, edition))(answers, FACTS);
        const plain = prepareCompletion(form)(answers, FACTS);
        for (const each of differences) {
          if (each.does === 'hide') {
            expect(done.asked.some(({ field }) => field === each.part)).toBe(false);
            counts.hidden += plain.asked.some(({ field }) => field === each.part) ? 1 : 0;
          }
          if (each.does === 'lock') {
            const asked = done.asked.find(({ field }) => field === each.part);
            if (asked) {
              expect(asked.locked).toBe(true);
              expect(
                asked.required && done.problems.some(({ field, why }) => field === each.part && why === 'unanswered'),
              ).toBe(false);
              counts.locked += 1;
            }
          }
          if (each.does === 'offer') {
            const field = form.fields.find(({ key }) => key === each.part);
            const answer = answers[each.part];
            const isShown = done.asked.some((one) => one.field === each.part && !one.locked);
            if (
              isShown &&
              field?.type.kind === 'choice' &&
              typeof answer === 'string' &&
              field.type.options.some(({ key }) => key === answer)
            ) {
              if (!each.offers.includes(answer)) {
                expect(done.problems.map((problem) => problem.field)).toContain(each.part);
                counts.offered += 1;
              } else counts.taken += 1;
            }
          }
        }
      },
    ),
    { numRuns: often(3_500) },
  );
  console.log('editions filled in:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(often(15));
});
