import type { rights as english } from '../en/rights.ts';
import type { Same } from '../same.ts';

/** Was Personen dürfen. */
export const rights: Same<typeof english> = {
  'read.team': 'Anfragen der eigenen Teams lesen',
  'read.all': 'Alle Anfragen lesen',
  'change.team': 'Anfragen der eigenen Teams ändern, Notizen und Nachrichten schreiben',
  'change.all': 'Alle Anfragen ändern, Notizen und Nachrichten schreiben',
  'move.team': 'Anfragen der eigenen Teams in einen anderen Stand bringen',
  'move.all': 'Alle Anfragen in einen anderen Stand bringen, auch an einer Entscheidung vorbei',
  'assign.team': 'Bearbeitung, Team und Dringlichkeit der Anfragen der eigenen Teams wählen',
  'assign.all': 'Bearbeitung, Team und Dringlichkeit aller Anfragen wählen',
  'export.team': 'Anfragen der eigenen Teams exportieren',
  'export.all': 'Alle Anfragen exportieren',
  configure: 'Formulare, Regeln und Türen bauen, Anfragen importieren',
  groundwork: 'Empfang, Kalender, Register und Vokabulare einrichten',
  people: 'Personen aufnehmen, ändern und einladen, Gruppen einrichten',
  rights: 'Entscheiden, was Personen dürfen',
  audit: 'Sehen, wer an einem vergangenen Tag was tun konnte',
};
