import type { mailroom as english } from '../en/mailroom.ts';
import type { Same } from '../same.ts';

export const mailroom: Same<typeof english> = {
  findEmail: 'E-Mail suchen',
  findHint: 'Nach Person, Betreff oder Text suchen',
  noneFound: 'Keine E-Mail gefunden.',
  noneYet: 'Es gibt noch keine E-Mails. Senden Sie eine Anfrage, dann liegt die erste hier.',
  choose: 'Wählen Sie eine E-Mail, um sie zu lesen.',
  opening: 'Die E-Mail wird geöffnet …',
  allEmails: 'Alle E-Mails',
  theEmail: 'Die E-Mail',
  intro: 'Die E-Mails der Demo kommen hier an. Sie verlassen diesen Rechner nicht.',
  waiting_one: '{{count, number}} E-Mail ist unterwegs.',
  waiting_other: '{{count, number}} E-Mails sind unterwegs.',
  failed_one: '{{count, number}} E-Mail wurde nicht zugestellt.',
  failed_other: '{{count, number}} E-Mails wurden nicht zugestellt.',
  to: 'An {{reader}}, {{at, moment}}',
  'view.html': 'Wie empfangen',
  'view.text': 'Nur Text',
  'view.headers': 'Kopfzeilen',
};
