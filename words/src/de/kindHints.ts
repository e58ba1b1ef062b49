import type { kindHints as english } from '../en/kindHints.ts';
import type { Same } from '../same.ts';

export const kindHints: Same<typeof english> = {
  text: 'eine Zeile',
  'long-text': 'mehrere Zeilen',
  number: 'mit Nachkommastellen, Einheit und Grenzen',
  money: 'in einer Währung',
  'yes-no': 'eines von beiden',
  choice: 'eines aus einer Liste',
  choices: 'mehreres aus einer Liste',
  level: 'eine Stufe einer Skala',
  date: 'ein Tag',
  'date-time': 'ein Tag mit Uhrzeit',
  duration: '35, 1:35 oder 2 h',
  person: 'eine Person aus dem Haus',
  people: 'mehrere Personen aus dem Haus',
  term: 'einer aus einem Vokabular',
  terms: 'mehrere aus einem Vokabular',
  reference: 'etwas aus einem anderen Register',
  references: 'mehreres aus einem anderen Register',
  'line-items': 'eine Zeile von Feldern, die sich wiederholt',
  files: 'Dokumente oder Bilder',
  email: 'wie name@example.org',
  phone: 'in Ziffern',
  link: 'Adresse einer Webseite',
};
