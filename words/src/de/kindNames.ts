import type { kindNames as english } from '../en/kindNames.ts';
import type { Same } from '../same.ts';

export const kindNames: Same<typeof english> = {
  text: 'Text',
  'long-text': 'Langer Text',
  number: 'Zahl',
  money: 'Geld',
  'yes-no': 'Ja oder Nein',
  choice: 'Auswahl',
  choices: 'Mehrfachauswahl',
  level: 'Stufe',
  date: 'Datum',
  'date-time': 'Datum und Uhrzeit',
  duration: 'Dauer',
  person: 'Person',
  people: 'Personen',
  term: 'Begriff',
  terms: 'Begriffe',
  reference: 'Verweis',
  references: 'Verweise',
  'line-items': 'Positionen',
  files: 'Dateien',
  email: 'E-Mail-Adresse',
  phone: 'Telefon',
  link: 'Link',
  'running-number': 'Laufende Nummer',
};
