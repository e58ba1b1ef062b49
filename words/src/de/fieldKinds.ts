import type { fieldKinds as english } from '../en/fieldKinds.ts';
import type { Same } from '../same.ts';

export const fieldKinds: Same<typeof english> = {
  text: 'kurzer Text',
  'long-text': 'langer Text',
  number: 'Zahl',
  money: 'Geldbetrag',
  date: 'Datum',
  'date-time': 'Datum und Uhrzeit',
  duration: 'Dauer',
  'yes-no': 'Ja oder Nein',
  choice: 'eines aus einer Liste',
  choices: 'mehreres aus einer Liste',
  level: 'Stufe einer Skala',
  email: 'E-Mail-Adresse',
  phone: 'Telefonnummer',
  link: 'Webadresse',
  person: 'Person',
  people: 'Personen',
  term: 'Begriff',
  terms: 'Begriffe',
  reference: 'Verweis',
  references: 'Verweise',
  'running-number': 'laufende Nummer',
  files: 'Dateien',
  'line-items': 'Positionen',
};
