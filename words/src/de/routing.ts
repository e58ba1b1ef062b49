import type { routing as english } from '../en/routing.ts';
import type { Same } from '../same.ts';

export const routing: Same<typeof english> = {
  columnWrong: 'Spalte „{{column}}“: {{message}}',
  notLooked:
    'Für die Zeilen {{rows}} wurde nicht geprüft, ob sie je gelten. Es sind zu viele Fälle. Teilen Sie die Tabelle, oder nutzen Sie weniger Spalten.',
  row: 'Zeile {{row}}',
  lastRow: 'Die letzte Zeile',
  cellWrong: '{{row}}, {{column}}: {{message}}',
  excludesItself: 'Zeile {{row}} gilt nie, weil sich ihre Bedingungen ausschließen. Ändern oder löschen Sie sie.',
  neverUsed:
    'Zeile {{row}} gilt nie, weil frühere Zeilen zuerst passen: {{rows, and}}. Verschieben Sie sie nach oben, ändern oder löschen Sie sie.',
  lostTeam: '{{row}} gibt Anfragen an ein Team, das es nicht gibt. Wählen Sie ein Team.',
  badDays: '{{row}}: Die Arbeitstage müssen eine ganze Zahl von 0 bis 250 sein. Korrigieren Sie sie.',
};
