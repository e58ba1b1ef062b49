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
  lostStage: '{{row}} nennt einen Status, den es nicht gibt. Wählen Sie einen Status.',
  lostDeadline: '{{row}} sagt, wie lang eine Frist ist, die es nicht mehr gibt. Entfernen Sie sie aus der Zeile.',
  lengthOfFinish:
    '{{row}} sagt zweimal, wie lang die Frist zum Abschluss ist. Entfernen Sie sie aus den Fristen; die Arbeitstage sagen es.',
  lengthTwice: '{{row}} sagt zweimal, wie lang „{{what}}“ ist. Entfernen Sie eine der Angaben.',
  lengthTooLong: '{{row}} gibt „{{what}}“ keine Länge oder mehr als 400 Tage. Geben Sie eine andere Länge ein.',
  lengthNoNumber: '{{row}}: Die Formel für „{{what}}“ muss eine Zahl ergeben. Korrigieren Sie sie.',
  saysNothing: '{{row}} überlässt alles späteren Zeilen. Löschen Sie sie, oder wählen Sie etwas, das sie bestimmt.',
  neverSays:
    'Zeile {{row}} bestimmt nie: {{what, and}}. Frühere Zeilen passen zuerst: {{rows, and}}. Verschieben Sie sie nach oben, oder überlassen Sie das späteren Zeilen.',
  holdsTogether:
    'Zeile {{row}} passt auf Anfragen, auf die auch frühere Zeilen passen: {{rows, and}}. Nur eine Zeile darf passen. Ändern Sie die Bedingungen.',
  mayHoldTogether:
    'Ob nur eine Zeile passt, lässt sich nicht prüfen: Zeilen {{rows}}. Passen mehrere, gilt die erste von ihnen. Prüfen Sie diese Zeilen.',
  formulaWrong: '{{row}}, Formel für „{{what}}“: {{message}}',
  formulaNoNumber: '{{row}}: Die Formel für die Arbeitstage muss eine Zahl ergeben. Korrigieren Sie sie.',
  formulaOpen:
    '{{row}}, Formel für „{{what}}“: Ihre Ergebnisse müssen ausgeschrieben sein oder aus einem Auswahlfeld kommen. Schreiben Sie: if … then "…" else "…".',
  formulaLost: '{{row}}, Formel für „{{what}}“: „{{result}}“ gibt es nicht. Korrigieren Sie das Ergebnis.',
};
