import { type House, parseEmail, takeEmail } from '@tolvek/server';
import { DESK_AS_LAID } from './desk.ts';

interface Written {
  readonly from: string;
  readonly subject: string;
  readonly lines: readonly string[];
  readonly headers?: readonly string[];
}

/** What came to the desk by email this morning and answers nothing. */
const WRITTEN: readonly Written[] = [
  {
    from: 'Aoife Lindgren <aoife@lindgren.example>',
    subject: 'Two students for a day',
    lines: [
      ...['Good day,', '', 'may two of my students come for a day in December? They would like to see how the tide'],
      ...['gauge is read. Any weekday is fine.', '', 'Kind regards', 'Aoife Lindgren'],
    ],
  },
  {
    from: 'Registry <office@tarnbay.example>',
    subject: 'Out of office',
    lines: ['The office is closed until Wednesday.'],
    headers: ['Auto-Submitted: auto-replied'],
  },
];

/** Brings the emails of the scenario to the desk, as its mail server would. */
export async function bringEmails(house: House): Promise<void> {
  for (const { from, subject, lines, headers = [] } of WRITTEN) {
    const raw = [
      ...[`From: ${from}`, `To: ${DESK_AS_LAID.sender.address}`, `Subject: ${subject}`, 'MIME-Version: 1.0'],
      ...[
        'Content-Type: text/plain; charset=utf-8',
        `Message-ID: <${subject.toLowerCase().replace(/\W+/g, '-')}@lindgren.example>`,
      ],
      ...[...headers, '', ...lines, ''],
    ].join('\r\n');
    await takeEmail(house, { mail: await parseEmail(raw), wayBack: 'mail@lindgren.example' });
  }
}
