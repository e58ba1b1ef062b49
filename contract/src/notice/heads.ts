import type { Heads } from '../wire/route.ts';

/** Letters: as they were received, and those that were given up. */
export const noticeHeads = {
  sendFailedAgain: { method: 'POST', path: '/api/letters/again', caller: 'staff', right: 'groundwork' },
  sendEmailAgain: { method: 'POST', path: '/api/sent-emails/:id/again', caller: 'staff', right: 'groundwork' },
  mailroom: { method: 'GET', path: '/api/mailroom', caller: 'anyone' },
  writeEmail: { method: 'POST', path: '/api/mailroom', caller: 'anyone' },
  bell: { method: 'GET', path: '/api/bell', caller: 'person' },
  seeBell: { method: 'POST', path: '/api/bell', caller: 'person' },
  takeText: {
    method: 'POST',
    path: '/api/stand-in/texts/outbound/:sender/requests',
    caller: 'anyone',
    standsIn: true,
  },
  texts: { method: 'GET', path: '/api/stand-in/texts', caller: 'anyone' },
  letter: { method: 'GET', path: '/api/mailroom/:id', caller: 'anyone' },
} as const satisfies Heads;
