import type { deletion as english } from '../en/deletion.ts';
import type { Same } from '../same.ts';

/** Eine Anfrage löschen. */
export const deletion: Same<typeof english> = {
  open: 'Löschen',
  title: '{{number}} löschen',
  goes: 'Das wird gelöscht. Sie können es 30 Tage lang wiederherstellen.',
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
  stays: 'Nach 30 Tagen speichern wir nur noch die Nummer, wer die Anfrage gelöscht hat, wann und warum.',
  inUse_one: '{{count, number}} andere Anfrage verweist auf sie. Darum kann sie nicht gelöscht werden:',
  inUse_other: '{{count, number}} andere Anfragen verweisen auf sie. Darum kann sie nicht gelöscht werden:',
  inUseFix: 'Entfernen Sie dort zuerst den Verweis, oder schließen Sie diese Anfrage stattdessen ab.',
  now: 'Jetzt löschen',
  done: '{{number}} ist gelöscht',
  undo: 'Rückgängig',
  back: '{{number}} ist wiederhergestellt. Es ging keine E-Mail hinaus.',
  goneNow: '{{number}} ist endgültig gelöscht',
};
