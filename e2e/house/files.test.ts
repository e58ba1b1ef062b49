import { readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { uploads } from '@tolvek/server/schema';
import { english } from '@tolvek/words/english';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk } from './desk.ts';
import { makePermit, PDF, upload as uploadTo } from './permit.ts';

let desk: Desk;
let maren: Caller;
let priya: Caller;
let shown: number;
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

beforeAll(async () => {
  desk = await Desk.open(0, undefined, { proxies: 1 });
  [maren, priya] = [await desk.as('Maren Okafor'), await desk.as('Priya Nakamura-Lind')];
  await makePermit(maren);
  shown = allKept();
});
afterAll(() => desk.close());

const upload = (who: Caller, name: string, bytes: Uint8Array | ReadableStream, more = {}) =>
  uploadTo(desk.running.url, who, name, bytes, more);
const allKept = (): number => desk.running.house.db.select().from(uploads).all().length;
/** Those that were sent since the beginning: the demo’s pictures aside. */
const kept = (): number => allKept() - shown;
const onDisk = (): readonly string[] => readdirSync(join(desk.folder, 'files'));

describe('files sent along', () => {
  it('come in by content, go with the request, and are read by whoever may read their field', async () => {
    const pdf = await upload(priya, 'Hull papers.pdf', PDF);
    expect(pdf.body).toMatchObject({ bytes: PDF.length, media: 'application/pdf' });
    const png = await upload(priya, '../../pier.png', PNG);
    expect(png.body.ref).toMatch(/^[\w-]+\/pier\.png$/);
    const { number } = (await priya.submit('permit', { what: 'Mooring', papers: [pdf.body.ref, png.body.ref] })).body;
    expect(number).toBe('PM-00001');
    const id = pdf.body.ref.split('/')[0];
    const fetched = (who: Caller) =>
      fetch(`${desk.running.url}/api/requests/${number}/files/${id}`, { headers: { cookie: who.cookie } });
    for (const who of [priya, await desk.as('Bram Solheim')]) {
      const file = await fetched(who);
      expect([
        file.status,
        file.headers.get('content-disposition'),
        Buffer.from(await file.arrayBuffer()).equals(PDF),
      ]).toEqual([200, "attachment; filename*=UTF-8''Hull%20papers.pdf", true]);
      expect(file.headers.get('content-security-policy')).toContain('sandbox');
    }
    expect((await fetched(await desk.as('Hanne Istvan'))).status).toBe(404);
    expect((await fetched(await desk.as())).status).toBe(401);
    expect(
      (await maren.sheet(number)).values.fields.find((field: { key: string }) => field.key === 'papers').shown,
    ).toBe('Hull papers.pdf, pier.png');
    // Nobody can make a file of another request their own.
    const stolen = await priya.submit('permit', { what: 'Again', papers: [pdf.body.ref] });
    expect(stolen.body.problems[0]).toMatchObject({
      field: 'papers',
      message: 'One of these files is no longer here.',
    });
  });

  it.each<[string, string, Buffer, string]>([
    ['a picture called a document', 'plan.pdf', PNG, '“plan.pdf” is not what its name says'],
    [
      'a program called a picture',
      'pier.png',
      Buffer.from('MZ\u0090\u0000not a picture'),
      '“pier.png” is not what its name says',
    ],
    ['bytes called text', 'notes.txt', Buffer.from([0, 1, 2, 3, 0, 255]), '“notes.txt” is not what its name says'],
    ['a kind that is not taken', 'setup.exe', Buffer.from('MZ'), 'is of a kind that we cannot accept here.'],
    ['nothing at all', 'empty.csv', Buffer.alloc(0), '“empty.csv” is empty.'],
  ])('%s is refused, and nothing is kept of it', async (_, name, bytes, message) => {
    const [rows, files] = [kept(), onDisk()];
    const answer = await upload(priya, name, bytes);
    expect([answer.status, english(answer.body.problems[0].message)]).toEqual([422, expect.stringContaining(message)]);
    expect([kept(), onDisk()]).toEqual([rows, files]);
  });

  it('2 GB are refused: announced before a byte is read, unannounced at the limit, with memory bounded', async () => {
    const [rows, files, before] = [kept(), onDisk(), process.memoryUsage().rss];
    const announced = await new Promise<number>((resolve, reject) => {
      import('node:http').then(({ request }) => {
        const call = request(
          `${desk.running.url}/api/doors/permit/uploads?field=papers&name=huge.pdf`,
          {
            method: 'POST',
            headers: {
              cookie: priya.cookie,
              'content-type': 'application/octet-stream',
              'content-length': 2_147_483_648,
            },
          },
          (answer) => {
            resolve(answer.statusCode ?? 0);
            call.destroy();
          },
        );
        call.on('error', (error: NodeJS.ErrnoException) => (error.code === 'ECONNRESET' ? undefined : reject(error)));
        call.flushHeaders();
      }, reject);
    });
    expect(announced).toBe(413);
    let sent = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull(controller) {
        sent += 65_536;
        if (sent > 2_147_483_648) controller.close();
        else controller.enqueue(new Uint8Array(65_536).fill(37));
      },
    });
    const status = await upload(priya, 'huge.pdf', endless).then(
      (answer) => answer.status,
      () => 413,
    );
    expect(status).toBe(413);
    expect(sent).toBeLessThan(200_000_000);
    expect(process.memoryUsage().rss - before).toBeLessThan(150_000_000);
    expect([kept(), onDisk()]).toEqual([rows, files]);
  });

  it('are sent only where a question asks for them, by whom its door admits', async () => {
    expect((await upload(priya, 'a.pdf', PDF, { field: 'what' })).status).toBe(404);
    expect((await upload(await desk.as(), 'a.pdf', PDF)).status).toBe(403);
    expect((await upload(await desk.as(), 'a.pdf', PDF, { slug: 'permit-from-outside' })).status).toBe(200);
  });

  it('are added on the request sheet by who may change their field, and by nobody else', async () => {
    const first = await upload(priya, 'first.pdf', PDF);
    const { number } = (await priya.submit('permit', { what: 'Buoy', papers: [first.body.ref] })).body;
    const add = async (who: Caller, field = 'papers') => {
      const address = `${desk.running.url}/api/requests/${number}/uploads?${new URLSearchParams({ field, name: 'second.png' })}`;
      const response = await fetch(address, { method: 'POST', headers: { cookie: who.cookie }, body: PNG });
      return { status: response.status, body: await response.json() };
    };
    const bram = await desk.as('Bram Solheim');
    expect([
      (await add(priya)).status,
      (await add(await desk.as('Hanne Istvan'))).status,
      (await add(bram, 'what')).status,
    ]).toEqual([404, 404, 404]);
    const second = await add(bram);
    const { version } = await bram.sheet(number);
    const changed = await bram.call('changeFields', {
      params: { number },
      headers: { 'If-Match': `"${version}"` },
      body: { changes: { papers: [first.body.ref, second.body.ref] } },
    });
    expect(changed.status).toBe(200);
    expect((await bram.sheet(number)).history.at(-1).changes).toEqual([
      { label: 'Papers', before: 'first.pdf', after: 'first.pdf, second.png' },
    ]);
  });

  it('are held by trials of a draft, and let go of with them', async () => {
    const draftUpload = (who: Caller, field = 'papers') =>
      fetch(`${desk.running.url}/api/forms/permit/draft/uploads?${new URLSearchParams({ field, name: 'try.pdf' })}`, {
        method: 'POST',
        headers: { cookie: who.cookie, 'content-type': 'application/octet-stream' },
        body: PDF,
      });
    const sent = await draftUpload(maren);
    expect(sent.status).toBe(200);
    const { ref } = (await sent.json()) as { ref: string };
    expect([(await draftUpload(priya)).status, (await draftUpload(maren, 'what')).status]).toEqual([403, 404]);
    const trial = await maren.call('sendTrial', {
      params: { key: 'permit' },
      headers: { 'Idempotency-Key': crypto.randomUUID() },
      body: { answers: { what: 'Tried', papers: [ref] }, person: null, outside: false },
    });
    expect([trial.status, trial.text]).toEqual([200, trial.text]);
    const { number } = trial.body;
    const papers = (await maren.sheet(number)).values.fields.find((field: { key: string }) => field.key === 'papers');
    expect(papers).toMatchObject({ value: [ref], shown: 'try.pdf' });
    const id = ref.split('/')[0] ?? '';
    const read = await fetch(`${desk.running.url}/api/requests/${number}/files/${id}`, {
      headers: { cookie: maren.cookie },
    });
    expect(Buffer.from(await read.arrayBuffer()).equals(PDF)).toBe(true);
    expect((await maren.call('clearTrials', { params: { key: 'permit' } })).body.cleared).toBe(1);
    const left = desk.running.house.db.select().from(uploads).where(eq(uploads.id, id)).get();
    expect(left?.requestId).toBeNull();
  });

  it('are forgotten when no request names them within fifteen days', async () => {
    await upload(priya, 'lost.txt', Buffer.from('Only here for a while.'));
    const before = kept();
    await priya.call('advanceClock', { body: { minutes: 60 * 24 * 16 } });
    await expect.poll(kept, { timeout: 20_000 }).toBeLessThan(before);
    // Those that requests name stay: two of the first, two of the one it was added to.
    expect(kept()).toBe(4);
  });
});

describe('files that nobody claimed', () => {
  it('fill at most 100 MB from one address, and 1 GB in all', async () => {
    const { db } = desk.running.house;
    const stranger = await desk.as();
    const send = (address: string) =>
      upload(stranger, 'a.pdf', PDF, { slug: 'permit-from-outside', headers: { 'X-Forwarded-For': address } });
    const first = await send('203.0.113.5');
    expect(first.status).toBe(200);
    const grow = (bytes: number): void => {
      db.update(uploads).set({ bytes }).where(eq(uploads.fromWhere, '203.0.113.5')).run();
    };
    // As if this address had sent all that it may.
    grow(100 * 1024 * 1024);
    const full = await send('203.0.113.5');
    expect([full.status, full.body.type]).toEqual([429, 'urn:tolvek:problem:too-many-files']);
    expect((await send('203.0.113.6')).status).toBe(200);
    grow(1024 * 1024 * 1024);
    expect((await send('203.0.113.7')).status).toBe(429);
    grow(1);
    expect((await send('203.0.113.7')).status).toBe(200);
  });

  it('and were only half sent are gone when the application starts', async () => {
    const { folder } = desk;
    writeFileSync(join(folder, 'files', 'coming-half'), 'half of it');
    await desk.running.stop();
    const again = await Desk.open(0, folder);
    expect(readdirSync(join(folder, 'files')).filter((name) => name.startsWith('coming-'))).toEqual([]);
    await again.running.stop();
  });
});
