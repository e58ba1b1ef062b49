import type { calendars as english } from '../en/calendars.ts';
import type { Same } from '../same.ts';

export const calendars: Same<typeof english> = {
  theName: 'der Name',
  theZone: 'die Zeitzone',
  theHours: 'die Stunden der Woche',
  theCalendar: 'der Kalender',
  closedDay: 'der freie Tag {{day, date}}, {{name}}',
  closedDays: 'die freien Tage',
  badTime: '{{weekday}} hat eine Uhrzeit, die es nicht gibt. Schreiben Sie Zeiten wie 08:00. Ein Tag endet um 24:00.',
  badOrder: '{{weekday}}: Jeder Abschnitt muss nach seinem Beginn enden und nach dem vorigen beginnen.',
  noName: 'Der Kalender hat keinen Namen. Geben Sie ihm einen.',
  badZone: '„{{zone}}“ ist keine Zeitzone. Schreiben Sie eine wie Europe/Dublin.',
  neverOpen: 'Kein Tag hat Stunden. Nichts würde je fällig. Fügen Sie Stunden hinzu.',
  badDay: '„{{typed}}“ ist kein Tag. Schreiben Sie Tage wie 2026-12-24.',
  dayTwice: '{{day, date}} steht zweimal in der Liste. Entfernen Sie einen Eintrag.',
  monday: 'Montag',
  tuesday: 'Dienstag',
  wednesday: 'Mittwoch',
  thursday: 'Donnerstag',
  friday: 'Freitag',
  saturday: 'Samstag',
  sunday: 'Sonntag',
  onDay: '{{day, date}}',
  noCountry: 'Die Feiertage dieses Landes oder dieser Region kennen wir nicht.',
  chooseCountry: 'Wählen Sie eines aus der Liste, oder geben Sie die Tage selbst ein.',
  isRetired: 'Stillgelegt',
};
