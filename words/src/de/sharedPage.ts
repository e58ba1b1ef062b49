import type { sharedPage as english } from '../en/sharedPage.ts';
import type { Same } from '../same.ts';

/** Die Seite eines geteilten Ergebnisses. */
export const sharedPage: Same<typeof english> = {
  'fact.number': 'Nummer',
  'fact.stage': 'Stand',
  'fact.arrived': 'Eingegangen',
  'fact.finished': 'Fertig',
  matches_one: '{{count, number}} Anfrage',
  matches_other: '{{count, number}} Anfragen',
  moreThan: 'mehr als {{count, number}} Anfragen',
  sharedBy: 'Geteilt von {{name}}, bis {{day, date}}. Hier lässt sich nichts ändern.',
  empty: 'Im Moment ist hier nichts. Was eingeht und passt, erscheint von selbst.',
  takeFile: 'Als Datei holen',
  more: 'Mehr zeigen',
  withYou: 'Mit Ihnen geteilt',
  byUntil: '{{name}}, bis {{day, date}}',
  wasEnded: 'Es wurde beendet.',
  isOver: 'Sein letzter Tag ist vorbei.',
  mayNotShare: '{{name}} darf es nicht mehr teilen.',
  closedAsksHidden: 'Die Bedingung fragt nach etwas, das einigen verborgen ist: {{fields, names}}.',
};
