import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Caller, Desk } from './desk.ts';

let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open();
});
afterAll(() => desk.close());

/** An open page of somebody: how often it was told by now to read anew what may be seen. */
async function listening(by: Caller): Promise<{ readonly told: () => number; readonly stop: () => void }> {
  const stop = new AbortController();
  const stream = await fetch(`${desk.running.url}/api/live`, { headers: { cookie: by.cookie }, signal: stop.signal });
  const reader = stream.body?.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  void (async () => {
    for (;;) {
      const part = await reader?.read().catch(() => undefined);
      if (!part || part.done) return;
      text += part.value;
    }
  })();
  return { told: () => text.split(/event: ?access/).length - 1, stop: () => stop.abort() };
}

test('open pages are told whenever it became otherwise who may see and do what, whichever way, and at nothing else', async () => {
  const [ada, maren, bram] = [
    await desk.as('Ada Quillfeather'),
    await desk.as('Maren Okafor'),
    await desk.as('Bram Solheim'),
  ];
  const page = await listening(bram);
  const tomas = desk.idOf('Tomas Achterberg');
  const { access } = desk.register('site-access');
  const headers = { 'Idempotency-Key': 'live-access' };
  const of = { params: { key: 'site-access' } };
  const put = async () => {
    const { version } = (await maren.call('accessPlan', of)).body;
    const rule = {
      ...{ id: 'l', name: 'Escorts are for safety', fields: ['escort'], level: 'hidden' },
      audience: { in: { anyOf: ['boats'] }, outOf: [] },
    };
    const kept = await maren.call('keepAccessPlan', {
      ...of,
      headers: { 'If-Match': `"${version}"` },
      body: { rules: [...access.rules, rule], resting: [] },
    });
    const body = { note: '', closesToMyself: false };
    return maren.call('putAccessPlan', { ...of, headers: { 'If-Match': `"${kept.body.version}"` }, body });
  };
  const turns: readonly [string, boolean, () => Promise<{ readonly status: number }>][] = [
    ['a plan is put in force', true, put],
    [
      'somebody comes into a group',
      true,
      () =>
        ada.call('enterGroup', { params: { key: 'boats' }, headers, body: { person: tomas, from: null, until: null } }),
    ],
    [
      'a right is given',
      true,
      () => ada.call('changeRights', { params: { subject: 'boats' }, body: { give: ['export:team'], take: [] } }),
    ],
    [
      'somebody may not come in any more',
      true,
      () => ada.call('handOver', { params: { id: desk.idOf('Edda Kilbride') }, body: { to: null } }),
    ],
    ['a page is read', false, () => maren.call('ledger', { query: {} })],
    [
      'a draft is written',
      false,
      async () => {
        const { version, draft } = (await maren.call('accessPlan', of)).body;
        return maren.call('keepAccessPlan', {
          ...of,
          headers: { 'If-Match': `"${version}"` },
          body: { rules: draft.rules, resting: draft.resting },
        });
      },
    ],
  ];
  await new Promise((done) => setTimeout(done, 100));
  for (const [what, isTold, does] of turns) {
    const before = page.told();
    const { status } = await does();
    await new Promise((done) => setTimeout(done, 150));
    expect([what, status, page.told() > before]).toEqual([what, 200, isTold]);
  }
  page.stop();
});
