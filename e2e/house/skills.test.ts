import type { FormDesign } from '@tolvek/core/form';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, ok, onVersion, VISIT } from './desk.ts';

// Who can do what is kept in a register, filled in by a form; the desk says which, and rows find handlers by it.
let desk: Desk;
let maren: Caller;
let priya: Caller;
let ada: Caller;
let release = 0;
const of = { params: { key: 'site-access' } };

const released = async (handler: object, team = 'boats'): Promise<Answer['body']> => {
  const { draft, version } = ok(await maren.call('form', of)) as { draft: FormDesign; version: number };
  const otherwise = { ...draft.routing.otherwise, team, path: null, handler };
  const routing = { columns: [], rows: [], otherwise } as FormDesign['routing'];
  const saved = ok(
    await maren.call('saveDraft', { ...of, headers: onVersion(version), body: { draft: { ...draft, routing } } }),
  );
  const { findings } = ok(await maren.call('form', of)) as Answer['body'];
  const answer = await maren.call('releaseForm', { ...of, headers: onVersion(saved.version), body: { note: '' } });
  if (answer.status === 200) release = answer.body.number;
  return (findings as readonly { at: string; message: string }[])
    .filter(({ at }) => at === 'otherwise')
    .map(({ message }) => message);
};
let visitors = 0;
const sent = async (): Promise<Answer['body']> => {
  visitors += 1;
  const answers = { ...VISIT, visitor: `Visitor ${'z'.repeat(visitors)}` };
  return maren.sheet(ok(await priya.submit('come-on-site', answers, { release })).number);
};
const skills = async (who = ada): Promise<Answer['body']> => ok(await who.call('skills'));
const settings = async (change: object): Promise<Answer> => {
  const { desk: before, version } = ok(await ada.call('deskSettings'));
  const { skills: _, ...others } = before;
  return ada.call('changeDesk', { headers: onVersion(version), body: { desk: { ...others, ...change }, note: '' } });
};
const SOURCE = { register: 'my-skills', person: 'person', skill: 'skill', level: 'level', checked: 'checked' };

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, ada] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Ada Quillfeather'),
  ];
});
afterAll(() => desk.close());

describe('skills', () => {
  it('are told as far as somebody may see them, to those who lay the ground alone', async () => {
    const { source, people, skills: all, registers } = await skills();
    expect([source, all.length, registers.map(({ key }: { key: string }) => key)]).toEqual([
      { register: 'my-skills', name: 'My skills' },
      5,
      expect.arrayContaining(['my-skills']),
    ]);
    const bram = people.find(({ name }: { name: string }) => name === 'Bram Solheim');
    expect(bram.teams).toContain('Boats');
    expect(bram.held.map(({ skill, level }: { skill: string; level: number }) => [skill, level])).toEqual([
      ['skipper', 5],
      ['winch', 4],
    ]);
    expect([(await priya.call('skills')).status, (await (await desk.as()).call('skills')).status]).toEqual([403, 401]);
  });

  it('find who is good enough and has the least to do, and say who was passed over', async () => {
    expect(await released({ ways: [{ by: 'skill', skill: 'winch', least: 3 }, { by: 'load' }] })).toEqual([]);
    const first = await sent();
    expect([first.handler.name, first.handlerWhy]).toEqual([
      'Bram Solheim',
      [
        'They have the skill, and had the least to do of those who have it.',
        expect.stringMatching(/^Without the skill, or not checked in time: .*Yusuf Marchetti/),
      ],
    ]);
    expect(first.history.at(-1).what).toBe('Bram Solheim is the handler, having the skill and the least to do');
    // At a lower level two can: the other has nothing to do yet.
    await released({ ways: [{ by: 'skill', skill: 'winch', least: 2 }] });
    expect((await sent()).handler.name).toBe('Yusuf Marchetti');
  });

  it('are stale where nobody checked them in time: found before a release, and left to the next way', async () => {
    const findings = await released({ ways: [{ by: 'skill', skill: 'winch', least: 3, months: 12 }, { by: 'turn' }] });
    expect(findings).toEqual([
      'Nobody in the team of this row has the skill at this level today. Change the level, or add another way.',
    ]);
    const { handlerWhy, handler } = await sent();
    expect([handler !== null, handlerWhy.slice(0, 2)]).toEqual([
      true,
      ['It was their turn in the team.', 'Nobody of the team who has the skill had room.'],
    ]);
  });

  it('that do not exist, or are kept nowhere, are found; nobody is then an alarm, and the desk goes on', async () => {
    expect(await released({ ways: [{ by: 'skill', skill: 'juggling', least: 1 }, { by: 'load' }] })).toEqual([
      'This row looks for a skill that does not exist. Choose another skill.',
    ]);
    await released({ ways: [{ by: 'skill', skill: 'winch', least: 1 }] });
    ok(await settings({}));
    expect((await skills()).source).toBe(null);
    const alone = await sent();
    expect([
      alone.handler,
      alone.history.some(({ what }: { what: string }) => what.startsWith('Nobody of Boats')),
    ]).toEqual([null, true]);
    const { findings } = ok(await maren.call('form', of)) as Answer['body'];
    expect(findings.map(({ message }: { message: string }) => message)).toContain(
      'This row looks for a skill, and the desk names no register of skills. Choose the register in the groundwork, under “Skills”.',
    );
    expect((await settings({ skills: { ...SOURCE, person: '' } })).status).toBe(400);
    ok(await settings({ skills: SOURCE }));
    expect((await sent()).handlerWhy[0]).toBe('They have the skill, and had the least to do of those who have it.');
  });
});
