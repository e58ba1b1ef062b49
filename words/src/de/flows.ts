import type { flows as english } from '../en/flows.ts';
import type { Same } from '../same.ts';

export const flows: Same<typeof english> = {
  tooManyKinds:
    'Der Zugriffsplan unterscheidet zu viele Arten von Personen. Wir können nicht prüfen, was das Formular verrät. Nutzen Sie in den Regeln weniger Gruppen.',
  tellsValue:
    '{{place}} Das verrät den Wert von „{{field}}“ an {{who}}. Das darf dort niemand lesen. Entfernen Sie es dort, oder erlauben Sie es bewusst.',
  tellsSomething:
    '{{place}} Das verrät etwas über „{{field}}“ an {{who}}. Das darf dort niemand lesen. Entfernen Sie es dort, oder erlauben Sie es bewusst.',
  readBy: '„{{field}}“ wird gelesen von: {{who}}.',
  toldChanging: 'Alle, die „{{field}}“ ändern, sehen es, auch {{who}}.',
  stepTells: 'Wer entscheiden soll, zeigt es, auch für: {{who}}.',
  routingTells: 'Team, Stufe und Frist zeigen, welche Zeile galt, auch für: {{who}}.',
  toldChangers: 'Alle, die etwas ändern, sehen es, auch {{who}}.',
  toldRequesters: 'Alle Anfragenden sehen es, auch {{who}}.',
  shownTo: 'Das wird gezeigt: {{who}}.',
  unplaced_one:
    '{{fields, names}} hat noch keinen Platz im Zugriffsplan. Bis dahin sieht es nur, wer anfragt oder das Formular baut.',
  unplaced_other:
    '{{fields, names}} haben noch keinen Platz im Zugriffsplan. Bis dahin sieht sie nur, wer anfragt oder das Formular baut.',
  deadlineTells: 'Wann etwas fällig ist, zeigt es, auch {{who}}.',
};
