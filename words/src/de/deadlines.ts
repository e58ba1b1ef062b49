import type { deadlines as english } from '../en/deadlines.ts';
import type { Same } from '../same.ts';

export const deadlines: Same<typeof english> = {
  paused: 'Pausiert: Wir brauchen eine Antwort von Ihnen. Siehe „Nachrichten“.',
  weAreLate: 'Wir sind im Verzug. Wir wollten sie bis {{due, moment}} abschließen.',
  weAreLateNoDate: 'Wir sind im Verzug.',
  planned: 'Wir wollen Ihre Anfrage bis {{due, moment}} abschließen.',
  finishedLate: '{{length, brief}} verspätet abgeschlossen',
  finishedInTime: 'rechtzeitig abgeschlossen',
  pausedLeft: 'pausiert, noch {{length, brief}}',
  overdueNow: 'überfällig seit Dienstschluss',
  overdue: '{{length, brief}} überfällig',
  left: 'noch {{length, brief}}',
};
