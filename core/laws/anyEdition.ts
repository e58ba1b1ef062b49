import fc from 'fast-check';
import { type AskedForm, type Difference, type Edition, partKey } from '../src/form/index.ts';
import { anyAudience, CONDITIONS, WORDS_WITH_RIGHTS } from './anyPlan.ts';

const STAGES = ['~asking', 'deciding', 'done', 'elsewhere'];

/** Editions in an order, as far as whom they are given to. `differs`: in what. */
export const anyEditions = (
  differs: fc.Arbitrary<readonly Difference[]> = fc.constant([]),
): fc.Arbitrary<readonly Edition[]> =>
  fc
    .array(
      fc.record({
        off: fc.integer({ min: 0, max: 5 }),
        audience: anyAudience(WORDS_WITH_RIGHTS),
        stages: fc.option(fc.subarray(STAGES)),
        when: fc.option(fc.constantFrom(...CONDITIONS)),
        leads: fc.integer({ min: 0, max: 2 }),
        differences: differs,
      }),
      { maxLength: 6 },
    )
    .map((made) =>
      made.map(({ off, audience, stages, when, leads, differences }, index) => ({
        ...{ id: `edition-${index}`, name: `Edition ${index}`, on: off > 0, audience, when: when ?? '', differences },
        ...(stages ? { stages } : {}),
        ...(leads === 0 ? { elsewhere: { form: 'another' } } : {}),
      })),
    );

/** What an edition of a form may have otherwise, of every kind. */
export function anyDifferences(form: AskedForm): fc.Arbitrary<readonly Difference[]> {
  const keys = form.parts.map(partKey);
  const questions = form.parts.flatMap((part) => (part.part === 'question' ? [part.field] : []));
  const choices = form.fields.flatMap(({ key, type }) =>
    type.kind === 'choice' || type.kind === 'choices' ? [{ key, options: type.options.map((each) => each.key) }] : [],
  );
  if (keys.length === 0 || questions.length === 0) return fc.constant([]);
  const part = fc.constantFrom(...keys);
  const question = fc.constantFrom(...questions);
  const after = fc.option(part);
  const one: fc.Arbitrary<Difference> = fc.oneof(
    fc.record({ does: fc.constant('hide' as const), part }),
    fc.record({ does: fc.constantFrom('lock' as const, 'require' as const, 'spare' as const), part: question }),
    fc.record({ does: fc.constant('only' as const), shows: fc.subarray(questions, { minLength: 1 }) }),
    fc.record({ does: fc.constant('reword' as const), part: question, asks: fc.constant('Asked otherwise') }),
    fc.record({ does: fc.constant('reword' as const), part: question, help: fc.constant('Helped otherwise') }),
    fc.record({ does: fc.constant('reword' as const), part, text: fc.constant('Said otherwise') }),
    fc.record({ does: fc.constant('reword' as const), part, title: fc.constant('Called otherwise') }),
    fc.record({ does: fc.constant('preset' as const), part: question, preset: fc.constant(null) }),
    fc.record({ does: fc.constant('move' as const), part, after }),
    fc.record({
      does: fc.constant('add' as const),
      after,
      adds: fc.constantFrom('own-1', 'own-2').map((id) => ({ part: 'instruction' as const, id, text: 'Of its own.' })),
    }),
    ...choices.map(({ key, options }) =>
      fc.subarray([...options], { minLength: 1 }).map((offers): Difference => ({ does: 'offer', part: key, offers })),
    ),
  );
  return fc.uniqueArray(one, {
    maxLength: 5,
    selector: (each) =>
      each.does === 'only' ? 'only' : `${each.does} ${each.does === 'add' ? partKey(each.adds) : each.part}`,
  });
}
