import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import { isMailAddress } from '../register/index.ts';
import {
  admit as admitWith,
  type Comer,
  contactProblems,
  countsSince,
  DOOR,
  type DoorDesign,
  doorInWords,
  newDoor,
} from './index.ts';

const open = newDoor('confirmed-address', 'Outside door');
const staffDoor = newDoor('sign-in', 'Staff door');
const stranger: Comer = { kind: 'unknown', active: true, groups: [] };
const staff: Comer = { kind: 'staff', active: true, groups: ['chemists'] };
const contact: Comer = { kind: 'contact', active: true, groups: [] };
const admit = (door: DoorDesign, comer: Comer, now: number) => admitWith(door, comer, { now, zone: 'UTC' }, () => 0);

describe('a door', () => {
  it('lets strangers in at an outside door, and asks them to sign in at a staff door', () => {
    expect(admit(open, stranger, 0).admitted).toBe(true);
    expect(admit(staffDoor, stranger, 0)).toMatchObject({ admitted: false, why: 'sign-in' });
    expect(admit(staffDoor, contact, 0)).toMatchObject({ why: 'sign-in' });
    expect(admit(staffDoor, staff, 0).admitted).toBe(true);
  });

  it('opens at its first moment and is closed from its last one on', () => {
    const timed = { ...open, opensAt: 1_000, closesAt: 2_000 };
    expect([999, 1_000, 1_999, 2_000].map((now) => admit(timed, stranger, now).admitted)).toEqual([
      false,
      true,
      true,
      false,
    ]);
    expect(admit(timed, stranger, 999)).toMatchObject({ why: 'not-yet' });
    expect(admit(timed, stranger, 2_000)).toMatchObject({ why: 'closed' });
  });

  it('says its own words when it is closed, or whom to ask', () => {
    expect(admit({ ...open, open: false, closedMessage: ' Back in March. ' }, stranger, 0)).toMatchObject({
      message: 'Back in March.',
    });
    expect(english(admit({ ...open, open: false }, stranger, 0))).toMatchObject({
      message: 'This form is closed.',
    });
  });

  it('refuses an inactive contact anew, and says that the past stays readable', () => {
    expect(english(admit(open, { ...contact, active: false }, 0))).toMatchObject({
      why: 'inactive',
      message: expect.stringContaining('You can still read your old requests'),
    });
  });
});

describe('who may ask by a door', () => {
  const forChemists: DoorDesign = { ...staffDoor, audience: { in: { anyOf: ['chemists'] }, outOf: ['guests'] } };

  it('is found out as soon as it is known who comes, and out of a group wins', () => {
    expect(admit(forChemists, staff, 0).admitted).toBe(true);
    expect(admit(forChemists, { ...staff, groups: ['divers'] }, 0)).toMatchObject({ why: 'not-for-you' });
    expect(admit(forChemists, { ...staff, groups: ['chemists', 'guests'] }, 0)).toMatchObject({ why: 'not-for-you' });
    const fromOutside: DoorDesign = { ...forChemists, proof: 'confirmed-address' };
    expect(admit(fromOutside, stranger, 0).admitted).toBe(true);
    expect(admit(fromOutside, contact, 0)).toMatchObject({ why: 'not-for-you' });
  });

  it('is counted against each of its limits, each person once they are known', () => {
    const limited: DoorDesign = {
      ...open,
      limits: [
        { id: 'each', most: 1, of: 'each', days: 30 },
        { id: 'all', most: 3, of: 'all', days: null },
      ],
    };
    const came = (counts: Readonly<Record<string, number>>, comer: Comer) =>
      admitWith(limited, comer, { now: 0, zone: 'UTC' }, ({ id }) => counts[id] ?? 0);
    expect(came({ each: 0, all: 2 }, contact).admitted).toBe(true);
    expect(english(came({ each: 1, all: 2 }, contact))).toMatchObject({
      why: 'full',
      message: 'You can send 1 request in 30 days with this form. You have sent it.',
    });
    expect(came({ each: 1, all: 2 }, stranger).admitted).toBe(true);
    expect(english(came({ each: 0, all: 3 }, stranger))).toMatchObject({
      why: 'full',
      message: 'This form accepts no more requests.',
    });
  });

  it('counts whole days of the zone, today among them, however long they are', () => {
    const at = (text: string): number => Date.parse(text);
    const since = (days: number | null, now: string, zone: string) => countsSince({ days }, at(now), zone);
    expect(since(null, '2026-03-29T12:00Z', 'Europe/Berlin')).toBeNull();
    expect(since(1, '2026-03-29T12:00Z', 'Europe/Berlin')).toBe(at('2026-03-28T23:00Z'));
    // The night before is an hour shorter where clocks went forward.
    expect(since(2, '2026-03-30T12:00Z', 'Europe/Berlin')).toBe(at('2026-03-28T23:00Z'));
    expect(since(1, '2026-03-29T18:29Z', 'Asia/Kolkata')).toBe(at('2026-03-28T18:30Z'));
    expect(since(1, '2026-03-29T18:30Z', 'Asia/Kolkata')).toBe(at('2026-03-29T18:30Z'));
  });

  it('has findings where nobody could come in or two limits count the same', () => {
    const found = (door: DoorDesign) => DOOR.findings(door, null).map(({ at }) => at);
    expect(found(open)).toEqual([]);
    expect(found({ ...open, name: ' ', opensAt: 5, closesAt: 5 })).toEqual(['name', 'closesAt']);
    const limit = { most: 1, of: 'all', days: 7 } as const;
    expect(
      found({
        ...open,
        limits: [
          { ...limit, id: 'a' },
          { ...limit, id: 'b', most: 2 },
        ],
      }),
    ).toEqual(['limits b']);
    expect(DOOR.refersTo(forChemists).map(({ key }) => key)).toEqual(['guests', 'chemists']);
    expect(english(DOOR.compare(open, { ...open, closesAt: 9 }).map(({ words }) => words))).toEqual([
      'When the door closes changes.',
    ]);
  });
});

describe('a door in words', () => {
  const words = (door: DoorDesign): string => english(doorInWords(door, (key) => key.toUpperCase())).join(' ');

  it('says who comes in and how, when and how many where that is limited', () => {
    expect(words(staffDoor)).toBe('Open to staff who sign in.');
    expect(words(open)).toBe('Open to anyone with the link. They confirm their email address.');
    const audience = { in: { anyOf: ['chemists', 'divers'] }, outOf: ['guests'] };
    const limits = [
      { id: 'a', most: 40, of: 'all', days: 1 },
      { id: 'b', most: 1, of: 'each', days: 30 },
      { id: 'c', most: 9, of: 'all', days: null },
    ] as const;
    const said = words({ ...staffDoor, audience, limits, opensAt: Date.parse('2026-12-01T08:00Z') });
    expect(said).toContain('Open to staff who sign in: CHEMISTS or DIVERS except GUESTS.');
    expect(said).toMatch(
      /Opens .*08:00\. At most 40 requests a day\. At most 1 request from each person in 30 days\. At most 9 requests\.$/,
    );
    expect(words({ ...open, audience })).toContain('except GUESTS with the link. They confirm');
  });
});

describe('who asks from outside', () => {
  it('needs a name and an address', () => {
    expect(contactProblems({ name: ' ', email: '' }).map((problem) => problem.field)).toEqual([
      'contact.name',
      'contact.email',
    ]);
    expect(contactProblems({ name: 'Ada', email: ' ada@institute.example ' })).toEqual([]);
  });

  it.each(['Ada', 'Siân O’Neil-Ward', "D'Arcy", 'J. R. Marlowe', 'Ólöf Jóns dóttir', '李小龍', 'Łukasz'])(
    'takes %s for a name',
    (name) => expect(contactProblems({ name, email: 'a@b.example' })).toEqual([]),
  );
  it.each(['Win at http://x.example', 'Call 555', 'a@b.example', '<b>Ada</b>', 'Ada\nBcc: all', 'x'.repeat(61)])(
    'does not take %s for one',
    (name) =>
      expect(contactProblems({ name, email: 'a@b.example' }).map((each) => each.field)).toEqual(['contact.name']),
  );

  it.each(['a@b.example', "o'neil+visits@sub.institute.example", 'x@a-b.co'])('takes %s for an address', (text) =>
    expect(isMailAddress(text)).toBe(true),
  );
  it.each([
    'a',
    'a@b',
    'a@b.',
    'a@.example',
    'a b@c.example',
    'a@@b.example',
    'a@-b.example',
    `${'a'.repeat(250)}@b.example`,
  ])('does not take %s for one', (text) => expect(isMailAddress(text)).toBe(false));
});
