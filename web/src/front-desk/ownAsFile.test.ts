import { describe, expect, it } from 'vitest';
import { asCalendar, asDocument, type Own } from './ownAsFile.ts';

const OWN: Own = {
  ...{ number: 'AC-00012', form: 'Come on site', subject: 'Elke Marlowe, 30 Nov', stage: 'In hand' },
  ...{ sentAt: '2026-11-23T10:42:00Z', promise: 'We plan to finish by Friday.' },
  values: {
    fields: [
      { key: 'visitor', label: 'Visitor', shown: 'Elke Marlowe' },
      { key: 'note', label: 'Note', shown: '' },
    ],
  },
  dates: [
    { key: 'arrival', label: 'Arrival', at: '2026-11-30' },
    { key: 'gate', label: 'At the gate; north', at: '2026-07-01T09:30' },
  ],
  messages: [
    { at: '2026-11-24T09:00:00Z', from: 'Ilse', mine: false, text: 'See you at the gate, Elke.\nBring boots.' },
  ],
};
const told = (words: unknown): string => String(words);

describe('the days of a request', () => {
  /** Lines as RFC 5545 folds them, put together again by hand. */
  const lines = asCalendar(OWN, {
    ...{ zone: 'Europe/Dublin', link: 'https://desk.example/my/AC-00012', told },
    now: Date.parse('2026-11-25T08:00:00Z'),
  })
    .replaceAll(/\r\n[ \t]/g, '')
    .split('\r\n');

  it('are events of whole days, and moments of the clock of the desk in universal time', () => {
    expect(lines.filter((line) => line.startsWith('DTSTART'))).toEqual([
      'DTSTART;VALUE=DATE:20261130',
      // In summer the clock of Dublin is an hour ahead.
      'DTSTART:20260701T083000Z',
    ]);
    expect(lines.filter((line) => line === 'BEGIN:VEVENT').length).toBe(2);
    expect([lines[0], lines.at(-1) || lines.at(-2)]).toEqual(['BEGIN:VCALENDAR', 'END:VCALENDAR']);
  });

  it('have names of their own, what they are, and the way back; signs that mean something are marked', () => {
    expect(lines.filter((line) => line.startsWith('UID'))).toEqual([
      'UID:AC-00012-arrival@desk.example',
      'UID:AC-00012-gate@desk.example',
    ]);
    expect(lines.filter((line) => line.startsWith('SUMMARY'))).toEqual([
      'SUMMARY:Elke Marlowe\\, 30 Nov: Arrival',
      'SUMMARY:Elke Marlowe\\, 30 Nov: At the gate\\; north',
    ]);
    for (const wanted of ['VERSION:2.0', 'DTSTAMP:20261125T080000Z', 'URL;VALUE=URI:https://desk.example/my/AC-00012'])
      expect(lines.map((line) => line.replace('URL:', 'URL;VALUE=URI:'))).toContain(wanted);
  });
});

describe('a request on paper', () => {
  const spoken = {
    ...{ told, answers: 'Your answers', messages: 'Messages', sentOn: 'Sent Mon 23 Nov' },
    messageBy: ({ from }: { from: string }) => `From ${from}`,
  };
  it('has what its owner reads, in its order, without what was left empty', () => {
    const text = JSON.stringify(asDocument(OWN, spoken).content);
    const places = [
      'AC-00012',
      'Elke Marlowe, 30 Nov',
      'In hand',
      'We plan',
      'Sent Mon',
      'Visitor',
      'From Ilse',
      'Bring boots',
    ];
    const at = places.map((each) => text.indexOf(each));
    expect(at.every((place, index) => place >= 0 && place >= (at[index - 1] ?? 0))).toBe(true);
    expect(text).not.toContain('Note');
    expect(asDocument({ ...OWN, messages: [] }, spoken).content).toHaveLength(6);
  });
});
