import type { sinks as english } from '../en/sinks.ts';
import type { Same } from '../same.ts';

export const sinks: Same<typeof english> = {
  unique: 'Wer „{{it}}“ noch einmal angibt, erfährt, dass es vergeben ist.',
  computed: '„{{field}}“ wird aus „{{it}}“ berechnet.',
  carried: '„{{field}}“ wird durch „{{it}}“ übernommen.',
  preset: 'Die Vorgabe von „{{field}}“ kommt aus „{{it}}“.',
  offer: 'Die Liste von „{{field}}“ ist durch „{{it}}“ eingeschränkt.',
  order: '„{{field}}“ darf nicht vor „{{it}}“ liegen.',
  puts: 'überträgt „{{it}}“ nach „{{field}}“',
  sets: 'setzt „{{field}}“, abhängig von „{{it}}“',
  clears: 'leert „{{field}}“, abhängig von „{{it}}“',
  locks: 'sperrt „{{field}}“, abhängig von „{{it}}“',
  shows: 'zeigt „{{field}}“, abhängig von „{{it}}“',
  hides: 'verbirgt „{{field}}“, abhängig von „{{it}}“',
  skips: 'überspringt „{{field}}“, abhängig von „{{it}}“',
  requires: 'verlangt „{{field}}“, abhängig von „{{it}}“',
  limits: 'schränkt „{{field}}“ ein, abhängig von „{{it}}“',
  warns: 'warnt, abhängig von „{{it}}“',
  refuses: 'lehnt ab, abhängig von „{{it}}“',
  rule: 'Die Regel „{{rule}}“ {{does}}.',
  seat: 'Der Genehmigungsschritt „{{step}}“ fragt, wen „{{it}}“ nennt.',
  again: 'Der Genehmigungsweg „{{path}}“ fragt erneut, wenn sich „{{it}}“ ändert.',
  handler: 'Die Zuordnungstabelle überträgt die Bearbeitung der Person, die „{{it}}“ nennt.',
  step: 'Der Genehmigungsschritt „{{step}}“ wird je nach „{{it}}“ gefragt.',
  routing: 'Die Zuordnungstabelle prüft „{{it}}“.',
  text: 'Ein Text zwischen Fragen zeigt „{{it}}“.',
};
