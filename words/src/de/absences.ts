import type { absences as english } from '../en/absences.ts';
import type { Same } from '../same.ts';

/** Was über Abwesenheiten und Vertretungen gesagt wird. */
export const absences: Same<typeof english> = {
  absences: 'Abwesenheiten',
  absencesHint:
    'Die Vertretung wird stattdessen um Entscheidungen gebeten und sieht diese Anfragen, bis sie entschieden sind. Ohne Vertretung wird niemand anderes gefragt.',
  noAbsence: 'Keine Abwesenheit ist geplant.',
  addAbsence: 'Abwesenheit eintragen',
  firstDay: 'Erster Tag',
  lastDay: 'Letzter Tag (leer: bis Sie sie beenden)',
  substitute: 'Wer entscheidet stattdessen? (leer: niemand)',
  awayWith: '{{name}} entscheidet stattdessen',
  awayAlone: 'Niemand entscheidet stattdessen',
  awayNow: 'gerade abwesend',
  endAbsence: 'Beenden',
  absenceEnded: 'Die Abwesenheit ist beendet.',
  standsInFor: 'Entscheidet heute anstelle von {{names, and}}',
  absenceOver: 'Diese Abwesenheit ist schon vorbei.',
  laterAbsence: 'Wählen Sie heute oder einen späteren Tag.',
  awayAlready: 'Die Person ist an einigen dieser Tage schon abwesend.',
  endAbsenceFirst: 'Beenden Sie zuerst die andere Abwesenheit, oder wählen Sie andere Tage.',
  cannotStandIn: 'Diese Person kann nicht stattdessen entscheiden.',
  endsBefore: 'Der letzte Tag liegt vor dem ersten.',
  laterEnd: 'Wählen Sie einen späteren letzten Tag.',
  chooseOther: 'Wählen Sie eine andere aktive Person unter den Mitarbeitenden.',
  findColleague: 'Namen oder E-Mail-Adresse eingeben',
  nobodyFound: 'Niemand gefunden.',
  fromUntil: '{{from, date}} bis {{until, date}}',
  from: 'ab {{from, date}}',
  oneDay: 'am {{from, date}}',
  notYourself: 'Sie können nicht sich selbst als Vertretung für jemand anderen eintragen.',
  theyChoose: 'Wählen Sie jemand anderen, oder lassen Sie die Person die Abwesenheit selbst eintragen.',
};
