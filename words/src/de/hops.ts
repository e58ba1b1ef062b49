import type { hops as english } from '../en/hops.ts';
import type { Same } from '../same.ts';

export const hops: Same<typeof english> = {
  sent: 'Gesendet',
  arrived: 'Angekommen',
  at: '{{at, moment}}',
  routed: 'Zugeordnet',
  byRow: 'Zeile {{row}} der Zuordnungstabelle',
  byRowNote: 'Zeile {{row}} der Zuordnungstabelle: {{note}}',
  byLastRow: 'Die letzte Zeile der Zuordnungstabelle, für alles Übrige',
  byTable: 'Durch die Zuordnungstabelle',
  decision: 'Entscheidung',
  approved: 'Genehmigt',
  notApproved: 'Nicht genehmigt',
  waits: 'Wartet auf eine Entscheidung',
  approvedSilently: 'Genehmigt, weil niemand rechtzeitig geantwortet hat',
  refusedSilently: 'Abgelehnt, weil niemand rechtzeitig geantwortet hat',
  approvedBy: 'Genehmigt von {{by}}, {{at, moment}}',
  refusedBy: 'Abgelehnt von {{by}}, {{at, moment}}',
  approvedAt: 'Genehmigt, {{at, moment}}',
  refusedAt: 'Abgelehnt, {{at, moment}}',
  withdrawn: 'Keine Entscheidung: Die Anfrage wurde weitergeführt',
  inHand: 'In Arbeit',
  teamAt: '{{team}}, {{stage}}',
  done: 'Abgeschlossen',
  due: 'fällig {{at, moment}}',
};
