import type { kinds as english } from '../en/kinds.ts';
import type { Same } from '../same.ts';

export const kinds: Same<typeof english> = {
  text: 'Text',
  number: 'eine Zahl',
  date: 'ein Datum',
  time: 'eine Uhrzeit',
  'date-time': 'ein Datum mit Uhrzeit',
  'yes-no': 'Ja oder Nein',
  duration: 'eine Dauer',
  months: 'eine Zahl von Monaten',
  range: 'ein Bereich',
  list: 'eine Liste',
  context: 'eine Gruppe von Werten',
  unknown: 'ein Wert',
};
