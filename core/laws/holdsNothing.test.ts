import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { english } from '@tolvek/words/english';
import { expect, it } from 'vitest';
import { compile, parseExpression, Scope } from '../src/expression/index.ts';
import { type FormDesign, prepareCompletion, RECIPES } from '../src/form/index.ts';
import { FACTS } from './anyForm.ts';

setFlagsFromString('--expose-gc');
const collect = runInNewContext('gc') as () => void;

/** Lets go of everything nobody holds any more. */
async function settled(): Promise<void> {
  for (let turn = 0; turn < 5; turn += 1) {
    collect();
    await new Promise((done) => setTimeout(done, 5));
  }
}

it('a prepared form keeps nothing of what was answered with it', async () => {
  const design = RECIPES.map((recipe) =>
    recipe.make({ told: english, title: recipe.key, team: 'boats', approvers: 'duty-managers', calendar: 'desk' }),
  );
  const prepared = (design as FormDesign[]).map((form) => {
    const complete = prepareCompletion(form);
    const refs = ((): WeakRef<object>[] => {
      const facts = { ...FACTS };
      const answers = Object.fromEntries(form.fields.map((field) => [field.key, ['an answer']]));
      const completion = complete(answers, facts);
      return [facts, answers, ...Object.values(answers), completion.values].map((each) => new WeakRef<object>(each));
    })();
    return { title: form.title, complete, refs };
  });
  await settled();
  for (const { title, complete, refs } of prepared) {
    expect([title, refs.filter((ref) => ref.deref() !== undefined)]).toEqual([title, []]);
    expect(complete({}, FACTS)).toBeDefined();
  }
});

it('a compiled expression keeps nothing of what it went through', async () => {
  const scope = new Scope([{ name: 'rows', label: 'Rows', type: { kind: 'list', of: null } }]);
  const prepared = ['count(for r in rows return r)', 'rows[item != null]', 'some r in rows satisfies r = 1'].map(
    (text) => {
      const parsed = parseExpression(text, scope);
      if (!parsed.ok) throw new Error(text);
      const compiled = compile(parsed.value, scope);
      const ref = ((): WeakRef<object> => {
        const row = { secret: 'an answer' };
        compiled([[row]], null);
        return new WeakRef(row);
      })();
      return { text, compiled, ref };
    },
  );
  await settled();
  for (const { text, compiled, ref } of prepared) {
    expect([text, ref.deref()]).toEqual([text, undefined]);
    expect(compiled([[]], null)).toBeDefined();
  }
});
