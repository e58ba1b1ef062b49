import type { FormDesign } from '@tolvek/core/form';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Caller, Desk, ok, onVersion, VISIT } from './desk.ts';

// J5: what the desk calls a field and what requesters read are apart, wherever either of them reads it.
let desk: Desk;
let maren: Caller;
let priya: Caller;
const of = { params: { key: 'site-access' } };

async function release(change: (draft: FormDesign) => FormDesign): Promise<void> {
  const form = ok(await maren.call('form', of));
  const body = { draft: change(form.draft) };
  const { version } = ok(await maren.call('saveDraft', { ...of, headers: onVersion(form.version), body }));
  ok(await maren.call('releaseForm', { ...of, headers: onVersion(version), body: { note: '' } }));
}
const labels = (view: { readonly fields: readonly { readonly key: string; readonly label: string }[] }) =>
  Object.fromEntries(view.fields.map(({ key, label }) => [key, label]));

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya] = [await desk.as('Maren Okafor'), await desk.as('Priya Nakamura-Lind')];
});
afterAll(() => desk.close());

it('is read as it is called by who asks, and by its name at the desk', async () => {
  const before = ok(await priya.submit('come-on-site', { ...VISIT, visitor: 'Came before' })).number;
  await release((draft) => ({
    ...draft,
    fields: draft.fields.map((field) => (field.key === 'reason' ? { ...field, called: 'What they come for' } : field)),
    // Nothing is asked in other words: what it is called stands in.
    parts: draft.parts.map((part) =>
      part.part === 'question' && part.field === 'reason' ? { ...part, asks: '' } : part,
    ),
  }));
  const { changes } = ok(await maren.call('compareRelease', { params: { ...of.params, number: '1' } }));
  expect(JSON.stringify(changes)).toContain('What they come for');

  for (const [who, slug] of [
    [priya, 'come-on-site'],
    [await desk.as(), 'visit'],
  ] as const) {
    const { form } = ok(await who.call('door', { params: { slug } }));
    expect(labels(form).reason).toBe('What they come for');
  }
  const { reason: _, ...rest } = VISIT;
  const refused = await priya.submit('come-on-site', rest, { release: 2 });
  expect(refused.status).toBe(422);
  expect(refused.text).toContain('What they come for');

  const { number } = ok(await priya.submit('come-on-site', VISIT, { release: 2 }));
  for (const each of [number, before]) {
    // It counts for what came before as well: it is what the register calls it now.
    expect(labels(ok(await priya.call('myRequest', { params: { number: each } })).values).reason).toBe(
      'What they come for',
    );
    expect(labels(ok(await maren.call('sheet', { params: { number: each } })).values).reason).toBe('Reason');
  }
  const letters = (await desk.letters()).filter(({ to, subject }) => to.includes('Priya') && subject.includes(number));
  expect(letters.length).toBeGreaterThan(0);
  expect(letters.some(({ text }) => text.includes('What they come for'))).toBe(true);
  expect(letters.some(({ text }) => /^Reason/m.test(text))).toBe(false);
  const worked = (await desk.letters()).filter(({ to, text }) => to.includes('Ilse') && text.includes(VISIT.reason));
  expect(worked.some(({ text }) => text.includes('What they come for'))).toBe(false);
});

it('is translated beside its name', async () => {
  await release((draft) => ({
    ...draft,
    fields: draft.fields.map((field) =>
      field.key === 'reason'
        ? { ...field, translations: { de: { called: { of: 'What they come for', says: 'Wozu die Person kommt' } } } }
        : field,
    ),
    translations: { ...draft.translations, de: draft.translations?.de ?? {} },
  }));
  const german = await fetch(`${desk.running.url}/api/doors/visit`, { headers: { 'accept-language': 'de' } });
  const { form } = (await german.json()) as { form: Parameters<typeof labels>[0] };
  expect(labels(form).reason).toBe('Wozu die Person kommt');
});
