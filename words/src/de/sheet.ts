import type { sheet as english } from '../en/sheet.ts';
import type { Same } from '../same.ts';

export const sheet: Same<typeof english> = {
  inPlaceOf: 'an Stelle von {{who}}',
  namedBy: 'genannt durch „{{field}}“',
  outcomePath_one: '{{team}} · Priorität {{priority}} · {{count}} Arbeitstag · Entscheidung: „{{path}}“',
  outcomePath_other: '{{team}} · Priorität {{priority}} · {{count}} Arbeitstage · Entscheidung: „{{path}}“',
  outcomeApproval_one: '{{team}} · Priorität {{priority}} · {{count}} Arbeitstag · braucht Genehmigung',
  outcomeApproval_other: '{{team}} · Priorität {{priority}} · {{count}} Arbeitstage · braucht Genehmigung',
  outcome_one: '{{team}} · Priorität {{priority}} · {{count}} Arbeitstag · keine Genehmigung',
  outcome_other: '{{team}} · Priorität {{priority}} · {{count}} Arbeitstage · keine Genehmigung',
  dueArrived: 'Angekommen {{at, moment}}.',
  dueRow_one:
    'Zeile {{row}} der Zuordnungstabelle gibt {{count}} Arbeitstag. Fällig ist die Anfrage bei Dienstschluss an diesem Tag.',
  dueRow_other:
    'Zeile {{row}} der Zuordnungstabelle gibt {{count}} Arbeitstage. Fällig ist die Anfrage bei Dienstschluss am letzten dieser Tage.',
  dueTable_one:
    'Die Zuordnungstabelle gibt {{count}} Arbeitstag. Fällig ist die Anfrage bei Dienstschluss an diesem Tag.',
  dueTable_other:
    'Die Zuordnungstabelle gibt {{count}} Arbeitstage. Fällig ist die Anfrage bei Dienstschluss am letzten dieser Tage.',
  dueCalendar: 'Der Kalender „{{calendar}}“ zählt ab Beginn {{length, length}} Arbeitszeit.',
  dueHoliday: '{{name}} ({{day, date}}) zählt nicht.',
  duePaused: 'Pausiert seit {{from, moment}}. Die Zeit zählt nicht.',
  duePausedTo: 'Pausiert von {{from, moment}} bis {{to, moment}}. Diese Zeit wurde angehängt.',
  dueIs: 'Fällig {{at, moment}}.',
};
