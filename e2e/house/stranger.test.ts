import { execFile, execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { promisify } from 'node:util';
import { Validator } from '@seriousme/openapi-schema-validator';
import { type Route, type RouteName, routes } from '@tolvek/contract';
import { newMailing } from '@tolvek/core/mailing';
import { addressOf } from '@tolvek/demo';
import { DEMO_PASSWORD } from '@tolvek/server';
import { letters, uploads } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, onVersion, VISIT, WATER } from './desk.ts';
import { groundCalls, ONLY_BEFORE } from './groundCalls.ts';
import { makePermit, PDF, upload } from './permit.ts';

const E2E = resolve(import.meta.dirname, '..');
const BIN = join(E2E, 'node_modules/.bin');
const MADE = join(E2E, 'client/made');

let desk: Desk;
let document: unknown;
beforeAll(async () => {
  desk = await Desk.open();
  document = await (await fetch(`${desk.running.url}/api/openapi.json`)).json();
});
afterAll(() => desk.close());

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};

/** What a stranger’s calls are about: one of everything that can be read. */
async function known() {
  const [maren, priya, stranger]: Caller[] = await Promise.all([
    desk.as('Maren Okafor'),
    desk.as('Priya Nakamura-Lind'),
    desk.as(''),
  ]);
  if (!maren || !priya || !stranger) throw new Error('nobody is there');
  await makePermit(maren);
  // Whoever reads by every route may look back as well, and at what deleting would come to.
  const { person } = ok(await maren.call('me'));
  const looksBack = {
    params: { subject: `@${person.id}` },
    body: { give: ['audit', 'rights', 'delete:all'], take: [] },
  };
  ok(await (await desk.as('Ada Quillfeather')).call('changeRights', looksBack));
  const { url } = desk.running;
  const own = ok(await maren.submit('come-on-site', WATER)).number;
  const waiting = ok(await priya.submit('come-on-site', { ...WATER, visitor: 'Somebody else' })).number;
  const papers = async (who: Caller, slug: string, more = {}) => {
    const sent = await upload(url, who, 'plan.pdf', PDF, { slug });
    const { number } = ok(await who.submit(slug, { what: 'x', papers: [sent.body.ref] }, more));
    return { number, id: String(sent.body.ref).split('/')[0] ?? '' };
  };
  const file = await papers(priya, 'permit');
  const picture = desk.running.house.db.$client
    .prepare(
      "select number, uploads.id from uploads join requests on requests.id = request_id where uploads.name like '%.png' limit 1",
    )
    .get() as { readonly number: string; readonly id: string };
  const from = (email: string) => ({ contact: { name: 'Elke Marlowe', email } });
  const theirs = await papers(stranger, 'permit-from-outside', from('elke@corrin.example'));
  const token = await desk.tokenFor('elke@corrin.example', 'confirm');
  const { follow } = ok(await stranger.call('confirm', { params: { token } }));
  const { sent } = ok(await stranger.submit('visit', VISIT, from('greta@corrin.example')));
  const body = { answers: VISIT, contact: from('hilda@corrin.example').contact, typedAt: 1 };
  ok(await stranger.call('sendKept', { params: { slug: 'visit' }, body }));
  const bram = await desk.as('Bram Solheim');
  const skills = ok(await bram.call('door', { params: { slug: 'my-skills' } })).form;
  const [mine] = skills.updates.theirs;
  const says = { skill: mine.stood.skill, level: mine.stood.level === '4' ? '3' : '4' };
  ok(await bram.submit('my-skills', says, { release: skills.release, more: { entry: mine.id } }));
  await desk.running.lettersSent();
  const SELA = { name: 'Sela Brightwater', email: 'sela.brightwater@northmoor.example' };
  const given = ok(await priya.submit('come-on-site', { ...VISIT, visitor: 'Given away' })).number;
  const { version } = await maren.sheet(given);
  ok(await maren.call('giveOutside', { params: { number: given }, headers: onVersion(version), body: SELA }));
  const { cookie } = await desk.contact(SELA.email);
  const ground = await groundCalls(desk);
  const { id: test } = ok(await maren.call('sendTestEmail'));
  const mailing = { ...newMailing('Again', 'visit'), to: { audience: { in: { anyOf: ['boats'] }, outOf: [] } } };
  const adding = { params: { key: 'site-access' }, headers: freshly(), body: { mailing } };
  const mailed = ok(await maren.call('addMailing', adding)).id;
  const letter = desk.running.house.db.select({ id: letters.id }).from(letters).limit(1).get();
  const [team] = ok(await maren.call('forecast')).teams;
  return {
    tried: { team: team?.key ?? '', day: team?.days[0] ?? '' },
    outsider: { number: given, cookie },
    program: ground.program?.[0]?.params?.key ?? '',
    roster: ground.roster?.[0]?.params?.key ?? '',
    view: ground.view?.[0]?.params?.id ?? '',
    report: ground.reportCopy?.[0]?.params?.id ?? '',
    copy: ground.reportCopy?.[0]?.params?.copy ?? '',
    mailing: mailed,
    incoming: { id: ground.incomingFile?.[0]?.params?.id ?? '', file: ground.incomingFile?.[0]?.params?.file ?? '' },
    card: desk.running.house.db.select().from(uploads).where(eq(uploads.name, 'saithe.png')).get()?.id ?? '',
    ...{ url, email: addressOf('Maren Okafor'), password: DEMO_PASSWORD, slug: 'visit', form: 'site-access' },
    ...{
      register: 'site-access',
      vocabulary: 'species',
      number: own,
      own,
      file,
      picture,
      letter: letter?.id ?? '',
      follow,
      sent,
    },
    ...{ test, invitation: ground.invitation?.[0]?.params?.token ?? '', person: ground.person?.[0]?.params?.id ?? '' },
    line: ground.stepBackPlan?.[0]?.params?.id ?? '',
    shared: ground.sharedResult?.[0]?.params?.id ?? '',
    sharedLink: ground.sharedByLink?.[0]?.params?.token ?? '',
    twin: ground.mergePlan?.[0]?.query?.other ?? '',
    followFile: theirs.id,
    job: desk.hadDone('Maren Okafor'),
    kept: await desk.tokenFor('hilda@corrin.example', 'go on'),
    confirmation: await desk.tokenFor('greta@corrin.example', 'confirm'),
    waiting,
    decision: await desk.tokenFor('tomas.achterberg', 'decide'),
    accepting: await desk.tokenFor('', 'accept'),
  };
}

describe('the OpenAPI document', () => {
  it('is accepted by a validator that knows nothing of us, and is not long', async () => {
    const { valid, errors } = await new Validator().validate(structuredClone(document) as Record<string, unknown>);
    expect([valid, errors]).toEqual([true, undefined]);
    expect(JSON.stringify(document).length).toBeLessThan(1_500 * Object.keys(routes).length);
  });

  it('makes a client that compiles, and reads by each route', async () => {
    mkdirSync(MADE, { recursive: true });
    writeFileSync(join(MADE, 'openapi.json'), JSON.stringify(document));
    execFileSync(join(BIN, 'openapi-typescript'), [join(MADE, 'openapi.json'), '-o', join(MADE, 'schema.d.ts')]);
    const compiled = spawnSync(join(BIN, 'tsc'), ['-p', join(E2E, 'client')], { encoding: 'utf8' });
    expect([compiled.status, compiled.stdout]).toEqual([0, '']);
    const client = join(E2E, 'client/client.ts');
    // Beside this process, which answers.
    const called = await promisify(execFile)(
      process.execPath,
      ['--import', 'tsx', client, JSON.stringify(await known())],
      { timeout: 60_000 },
    );
    expect(called.stderr).toBe('');
    const statuses = JSON.parse(called.stdout) as Readonly<Record<string, number>>;
    const reading = (Object.values(routes) as Route[]).filter(({ method }) => method === 'GET').map(({ name }) => name);
    const answered = reading.filter((name) => !ONLY_BEFORE.includes(name as RouteName));
    console.log('read by a stranger:', Object.keys(statuses).length, 'routes');
    expect(statuses).toEqual(Object.fromEntries(answered.map((name) => [name, 200])));
  });
});
