import { type FormDesign, RECIPES } from '@tolvek/core/form';
import { english } from '@tolvek/words/english';
import type { Caller } from './desk.ts';

/** The largest file that is taken, bytes. */
export const MOST = 300_000;
export const PDF = Buffer.from('%PDF-1.4\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF');

/** A released form that wants papers: its doors are `permit` and `permit-from-outside`. */
export async function makePermit(maren: Caller): Promise<void> {
  const simple = RECIPES.find((recipe) => recipe.key === 'simple')?.make({
    told: english,
    title: 'Permit',
    team: 'boats',
    approvers: 'duty-managers',
    calendar: 'desk',
  }) as FormDesign;
  const draft: FormDesign = {
    ...simple,
    fields: [
      ...simple.fields,
      {
        key: 'papers',
        label: 'Papers',
        type: { kind: 'files', only: 'any', most: 2, mostBytes: MOST },
        source: 'asked',
      },
    ],
    parts: [...simple.parts, { part: 'question', field: 'papers', asks: '', help: '', required: true }],
  };
  const body = { prefix: 'PM', desk: 'boats', doors: { staff: true, outside: true }, draft };
  await maren.call('createForm', { headers: { 'Idempotency-Key': 'permit-form' }, body });
  await maren.call('releaseForm', { params: { key: 'permit' }, headers: { 'If-Match': '"1"' }, body: { note: '' } });
}

/** Sends a file for a field, as a page does while the form is being filled in. */
export async function upload(
  url: string,
  who: Caller,
  name: string,
  bytes: Uint8Array | ReadableStream,
  { field = 'papers', slug = 'permit', headers = {} } = {},
) {
  const response = await fetch(`${url}/api/doors/${slug}/uploads?${new URLSearchParams({ field, name })}`, {
    method: 'POST',
    headers: { cookie: who.cookie, 'content-type': 'application/octet-stream', ...headers },
    body: bytes as BodyInit,
    ...(bytes instanceof ReadableStream ? { duplex: 'half' } : {}),
  } as RequestInit);
  return { status: response.status, body: await response.json() };
}
