import type { sheets as english } from '../en/sheets.ts';
import type { Same } from '../same.ts';

export const sheets: Same<typeof english> = {
  unreadable: 'Das ist keine lesbare XLSX-Datei. Speichern Sie sie noch einmal als XLSX oder CSV.',
  tooLarge:
    'Entpackt ist diese Datei größer als {{most, size}}. Speichern Sie die nötigen Zeilen in einer neuen Datei ohne Bilder oder als CSV.',
  tooManyCells:
    'Diese Datei hat {{cells, number}} Zellen. Höchstens {{most, number}} sind lesbar. Entfernen Sie nicht benötigte Spalten oder Zeilen.',
};
