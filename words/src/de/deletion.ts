import type { deletion as english } from '../en/deletion.ts';
import type { Same } from '../same.ts';

/** Eine Anfrage löschen. */
export const deletion: Same<typeof english> = {
  open: 'Endgültig löschen',
  title: '{{number}} endgültig löschen',
  goes: 'Das wird gelöscht. Niemand kann es zurückholen.',
  answers: 'Alle Antworten dieser Anfrage',
  files_one: '{{count, number}} Datei',
  files_other: '{{count, number}} Dateien',
  lines_one: '{{count, number}} Zeile des Verlaufs',
  lines_other: '{{count, number}} Zeilen des Verlaufs',
  emails_one: '{{count, number}} noch nicht gesendete E-Mail',
  emails_other: '{{count, number}} noch nicht gesendete E-Mails',
  decision: 'Die offene Genehmigung. Niemand wird mehr gefragt.',
  deadline: 'Ihre Frist mit allen Erinnerungen',
  requester: 'Der Link der anfragenden Person. Wir schreiben ihr keine E-Mail.',
  stays: 'Wir speichern nur die Nummer, wer die Anfrage gelöscht hat, wann und warum.',
  inUse_one: '{{count, number}} andere Anfrage verweist auf sie. Darum kann sie nicht gelöscht werden:',
  inUse_other: '{{count, number}} andere Anfragen verweisen auf sie. Darum kann sie nicht gelöscht werden:',
  inUseFix: 'Entfernen Sie dort zuerst den Verweis, oder schließen Sie diese Anfrage stattdessen ab.',
  now: 'Jetzt endgültig löschen',
  done: '{{number}} ist gelöscht',
};
