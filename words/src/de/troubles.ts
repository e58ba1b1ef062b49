import type { troubles as english } from '../en/troubles.ts';
import type { Same } from '../same.ts';

export const troubles: Same<typeof english> = {
  locked:
    'Ein anderes Programm nutzt die Datenbank. Bis es fertig ist, dauert das Speichern länger oder muss wiederholt werden.',
  full: 'Der Datenträger ist voll. Nichts Neues kann gespeichert werden, bis wieder Platz ist. Sagen Sie der Administration Bescheid.',
  disk: 'Auf den Datenträger kann nicht geschrieben werden. Nichts Neues kann gespeichert werden. Sagen Sie der Administration Bescheid.',
  job: 'Eine Aufgabe von Tolvek ist fehlgeschlagen: {{job}}. Tolvek versucht es von selbst erneut.',
  'job.outbox': 'E-Mails senden',
  'job.timers': 'Erinnerungen und Fristen',
  'job.decisions': 'Entscheidungen, die niemand treffen kann',
  'job.dayTurn': 'was sich mit jedem neuen Tag ändert',
  'job.find': 'Anfragen nach ihren Wörtern auffindbar machen',
  'job.keeping': 'Löschen, was zu alt ist',
  'job.clock': 'die Uhr speichern',
  'job.longWork': 'lange Aufgaben',
};
