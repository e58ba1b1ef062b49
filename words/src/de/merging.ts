import type { merging as english } from '../en/merging.ts';
import type { Same } from '../same.ts';

/** Zwei Anfragen zum selben Anliegen zusammenführen. */
export const merging: Same<typeof english> = {
  open: 'Mit einer anderen Anfrage zusammenführen',
  title: '{{number}} mit einer anderen Anfrage zusammenführen',
  what: 'Wählen Sie die Anfrage, die bleibt. {{number}} wird mit ihr abgeschlossen, und beide Nummern finden sie.',
  alike: 'Diese sehen ähnlich aus',
  same_one: '{{count, number}} Antwort ist gleich',
  same_other: '{{count, number}} Antworten sind gleich',
  sameRequester: 'dieselbe anfragende Person',
  choose: 'Wählen',
  number: 'Nummer der Anfrage, die bleibt',
  look: 'Vergleichen',
  another: 'Andere wählen',
  noneDiffer: 'Alle Antworten, die Sie sehen, sind gleich.',
  differ_one: 'Eine Antwort ist verschieden. Wählen Sie, welche bleibt.',
  differ_other: '{{count, number}} Antworten sind verschieden. Wählen Sie, welche bleiben.',
  takes: '{{label}}: wie in {{number}}',
  empty: 'leer',
  ends: '{{number}} wird abgeschlossen. Ihre Dateien und Nachrichten bleiben bei ihr.',
  tells:
    'Wir schreiben beiden anfragenden Personen, dass ihre Anfrage zusammen mit einer anderen bearbeitet wird. Wessen, sagen wir nicht.',
  pointing_one: '{{count, number}} Anfrage, die auf sie verweist, verweist dann auf {{into}}.',
  pointing_other: '{{count, number}} Anfragen, die auf sie verweisen, verweisen dann auf {{into}}.',
  canUndo: 'Sie können das in einem Schritt rückgängig machen.',
  now: '{{number}} mit {{into}} zusammenführen',
  done: '{{number}} ist mit {{into}} zusammengeführt',
  isIn: 'Zusammengeführt mit',
  tookIn: 'Auch zu diesem Anliegen:',
  undo: 'Wieder trennen',
  undone: '{{number}} ist wieder getrennt',
};
