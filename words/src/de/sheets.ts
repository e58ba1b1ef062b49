import type { sheets as english } from '../en/sheets.ts';
import type { Same } from '../same.ts';

export const sheets: Same<typeof english> = {
  unreadable: 'Das ist keine lesbare XLSX-Datei. Speichern Sie sie noch einmal als XLSX oder CSV.',
  tooLarge:
    'Entpackt ist diese Datei größer als {{most, size}}. Speichern Sie die nötigen Zeilen in einer neuen Datei ohne Bilder oder als CSV.',
  tooManyCells:
    'Diese Datei hat {{cells, number}} Zellen. Höchstens {{most, number}} sind lesbar. Entfernen Sie nicht benötigte Spalten oder Zeilen.',
  'column.number': 'Nummer',
  'column.stage': 'Stufe',
  'column.requester': 'Anfragende Person',
  'column.team': 'Team',
  'column.handler': 'Bearbeitung',
  'column.arrived': 'Eingegangen',
  'column.due': 'Frist',
  'column.finished': 'Abgeschlossen',
  'answer.number': 'Eine Zahl, auch wie man sie eintippt.',
  'answer.numberIn': 'Eine Zahl, auch wie man sie eintippt, in {{unit}}.',
  'answer.duration': 'Minuten oder ein Text wie 1:35, 2 h oder PT1H35M.',
  'answer.date': 'Ein Tag als JJJJ-MM-TT.',
  'answer.dateTime': 'Datum und Uhrzeit als JJJJ-MM-TTThh:mm, nach der Uhr des Teams.',
  'person.name': 'Name',
  'person.email': 'E-Mail-Adresse',
  'person.language': 'Sprache',
  'person.groups': 'Gruppen',
};
