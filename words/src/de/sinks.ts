import type { sinks as english } from '../en/sinks.ts';
import type { Same } from '../same.ts';

export const sinks: Same<typeof english> = {
  unique: 'Wer „{{it}}“ noch einmal angibt, erfährt, dass es vergeben ist.',
  computed: '„{{field}}“ wird aus „{{it}}“ berechnet.',
  carried: '„{{field}}“ wird durch „{{it}}“ übernommen.',
  preset: 'Die Vorgabe von „{{field}}“ kommt aus „{{it}}“.',
  offer: 'Die Liste von „{{field}}“ ist durch „{{it}}“ eingeschränkt.',
  order: '„{{field}}“ darf nicht vor „{{it}}“ liegen.',
  puts: 'Sie überträgt „{{it}}“ nach „{{field}}“.',
  sets: 'Sie setzt „{{field}}“, abhängig von „{{it}}“.',
  clears: 'Sie leert „{{field}}“, abhängig von „{{it}}“.',
  locks: 'Sie sperrt „{{field}}“, abhängig von „{{it}}“.',
  shows: 'Sie zeigt „{{field}}“, abhängig von „{{it}}“.',
  hides: 'Sie verbirgt „{{field}}“, abhängig von „{{it}}“.',
  skips: 'Sie überspringt „{{field}}“, abhängig von „{{it}}“.',
  requires: 'Sie verlangt „{{field}}“, abhängig von „{{it}}“.',
  limits: 'Sie schränkt „{{field}}“ ein, abhängig von „{{it}}“.',
  warns: 'Sie warnt, abhängig von „{{it}}“.',
  refuses: 'Sie lehnt ab, abhängig von „{{it}}“.',
  rule: 'Die Regel „{{rule}}“: {{does}}',
  routing: 'Die Zuordnungstabelle prüft „{{it}}“.',
  text: 'Ein Text zwischen Fragen zeigt „{{it}}“.',
};
