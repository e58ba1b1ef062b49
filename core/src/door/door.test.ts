import { describe, expect, it } from 'vitest';
import { isMailAddress } from '../register/index.ts';
import { admit, contactProblems, type Door } from './index.ts';

const open: Door = { kind: 'outside', open: true, opensAt: null, closesAt: null, closedMessage: '' };
const stranger = { kind: 'unknown', active: true } as const;

describe('a door', () => {
  it('lets strangers in at an outside door, and asks them to sign in at a staff door', () => {
    expect(admit(open, stranger, 0).admitted).toBe(true);
    expect(admit({ ...open, kind: 'staff' }, stranger, 0)).toMatchObject({ admitted: false, why: 'sign-in' });
    expect(admit({ ...open, kind: 'staff' }, { kind: 'contact', active: true }, 0)).toMatchObject({ why: 'sign-in' });
    expect(admit({ ...open, kind: 'staff' }, { kind: 'staff', active: true }, 0).admitted).toBe(true);
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
    expect(admit({ ...open, open: false }, stranger, 0)).toMatchObject({
      message: expect.stringContaining('write to the desk'),
    });
  });

  it('refuses an inactive contact anew, and says that the past stays readable', () => {
    expect(admit(open, { kind: 'contact', active: false }, 0)).toMatchObject({
      why: 'inactive',
      message: expect.stringContaining('can still be read'),
    });
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
