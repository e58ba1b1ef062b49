import { english } from '@tolvek/words/english';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, VISIT } from './desk.ts';

let desk: Desk;
let priya: Caller;
let ilse: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  [priya, ilse] = [await desk.as('Priya Nakamura-Lind'), await desk.as('Ilse Brandvold')];
});
afterAll(() => desk.close());

const move = async (number: string, stage: string) =>
  ilse.call('moveStage', {
    params: { number },
    headers: { 'If-Match': `"${(await ilse.sheet(number)).version}"` },
    body: { stage },
  });
const answer = (number: string, text: string) => priya.call('myMessage', { params: { number }, body: { text } });

describe('what waits for its requester', () => {
  it('goes on when they have answered, where it was before it waited, and its deadline runs again', async () => {
    const { number } = (await priya.submit('come-on-site', VISIT)).body;
    await move(number, 'in_hand');
    await move(number, 'papers');
    await priya.call('advanceClock', { body: { minutes: 120 } });
    expect((await priya.call('myRequest', { params: { number } })).body.promise).toBe(
      'Paused: we need an answer from you. See “Messages”.',
    );
    expect((await ilse.sheet(number)).deadlines[0].fuse.state).toBe('paused');
    expect((await answer(number, 'Here they are.')).status).toBe(200);
    const sheet = await ilse.sheet(number);
    expect([sheet.stage.key, sheet.deadlines[0].fuse.state === 'paused']).toEqual(['in_hand', false]);
    expect(sheet.history.slice(-2).map((entry: { who: string; what: string }) => [entry.who, entry.what])).toEqual([
      ['Priya Nakamura-Lind', 'Message from the requester'],
      ['Tolvek', 'Waiting for papers → In hand'],
    ]);
  });

  it('says at home and on its page what the desk asks, from then on and until it is answered', async () => {
    const { number } = (await priya.submit('come-on-site', { ...VISIT, visitor: 'Asked' })).body;
    const questions = async () => {
      const mine: { number: string }[] = (await priya.call('frontDesk')).body.mine;
      const row = mine.find((each) => each.number === number);
      return [row, (await priya.call('myRequest', { params: { number } })).body].map(({ question }) =>
        question === null ? null : [question.from, question.text],
      );
    };
    const told = (text: string, visibility: 'internal' | 'requester') =>
      ilse.call('comment', { params: { number }, body: { text, visibility } });
    await answer(number, 'When will I hear?');
    await told('Soon.', 'requester');
    // Nothing waits yet: what was written is read among the messages.
    expect(await questions()).toEqual([null, null]);
    await move(number, 'papers');
    await told('Which certificate do you hold?', 'requester');
    await told('She always forgets it.', 'internal');
    const asks = ['Ilse Brandvold', 'Which certificate do you hold?'];
    expect(await questions()).toEqual([asks, asks]);
    await answer(number, 'The one of this year.');
    expect(await questions()).toEqual([null, null]);
    // Waiting once more, with nothing written since their answer: the stage alone says so.
    await move(number, 'papers');
    expect(await questions()).toEqual([null, null]);
  });

  it('stays where it is when it waits for nobody', async () => {
    const { number } = (await priya.submit('come-on-site', { ...VISIT, visitor: 'Another' })).body;
    await answer(number, 'When will I hear?');
    expect((await ilse.sheet(number)).stage.key).toBe('arrived');
    await move(number, 'done');
    await answer(number, 'Thank you.');
    expect((await ilse.sheet(number)).stage.key).toBe('done');
  });
});

describe('a finished request', () => {
  it('is not taken up again with what another has by now, and says which answer that is', async () => {
    const group = { group_name: 'Otters', day: 'first', places: 4 };
    const maren = await desk.as('Maren Okafor');
    const { RECIPES } = await import('@tolvek/core/form');
    const ground = { title: 'Open day', team: 'estates', approvers: 'duty-managers', calendar: 'desk' };
    const draft = RECIPES.find((recipe) => recipe.key === 'event')?.make({ ...ground, told: english });
    const body = { prefix: 'OP', desk: 'estates', doors: { staff: true, outside: false }, draft };
    await maren.call('createForm', { headers: { 'Idempotency-Key': 'open-day' }, body });
    const releasing = { params: { key: 'open-day' }, headers: { 'If-Match': '"1"' }, body: { note: '' } };
    expect((await maren.call('releaseForm', releasing)).status).toBe(200);
    const first = (await priya.submit('open-day', group)).body.number;
    expect((await move(first, 'done')).status).toBe(200);
    const second = (await priya.submit('open-day', group)).body.number;
    const refused = await move(first, 'in_hand');
    expect([refused.status, refused.body.type]).toEqual([409, 'urn:tolvek:problem:taken']);
    expect(refused.body.problems[0].message).toContain('“Group” and “Day” together');
    expect((await ilse.sheet(first)).stage.key).toBe('done');
    await move(second, 'done');
    expect((await move(first, 'in_hand')).status).toBe(200);
  });
});
