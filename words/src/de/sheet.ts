import type { sheet as english } from '../en/sheet.ts';
import type { Same } from '../same.ts';

export const sheet: Same<typeof english> = {
  inPlaceOf: 'an Stelle von {{who}}',
  namedBy: 'genannt durch „{{field}}“',
  outcomePath_one: '{{team}} · Priorität {{priority}} · {{count}} Arbeitstag · Entscheidung: „{{path}}“',
  outcomePath_other: '{{team}} · Priorität {{priority}} · {{count}} Arbeitstage · Entscheidung: „{{path}}“',
  'handlerBy.last': 'Hat die letzte Anfrage derselben Person bearbeitet.',
  'handlerBy.field': 'Eine Antwort nennt die Person.',
  'handlerBy.load': 'Hatte im Team am wenigsten zu tun.',
  'handlerBy.skill': 'Die Person hat die Fähigkeit und hatte von denen, die sie haben, am wenigsten zu tun.',
  'handlerBy.turn': 'War im Team an der Reihe.',
  'handlerBy.person': 'Die Zuordnungstabelle nennt die Person.',
  'handlerNot.last': 'Niemand, der da ist, hat eine frühere Anfrage dieser Person bearbeitet.',
  'handlerNot.field': 'Keine Antwort nennt jemanden, der da ist.',
  'handlerNot.load': 'Niemand im Team hatte noch Platz.',
  'handlerNot.skill': 'Niemand im Team mit der Fähigkeit hatte noch Platz.',
  'handlerNot.turn': 'Niemand im Team hatte noch Platz.',
  'handlerNot.person': 'Die in der Zuordnungstabelle genannte Person stand nicht zur Verfügung.',
  'passed.away': 'Nicht da: {{names, and}}',
  'passed.own': 'Es ist die eigene Anfrage: {{names, and}}',
  'passed.full': 'Kein Platz für mehr: {{names, and}}',
  'passed.unskilled': 'Ohne die Fähigkeit, oder nicht rechtzeitig geprüft: {{names, and}}',
  'passed.busier': 'Mehr zu tun: {{names, and}}',
  'passed.sooner': 'Hatte zuletzt eine: {{names, and}}',
  'passed.stranger': 'Nicht mehr im Team: {{names, and}}',
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
  dueBegan: 'Begonnen {{at, moment}}.',
  dueLength: 'Erlaubte Zeit: {{length}}.',
  ringDoes: '{{all, and}}',
};
