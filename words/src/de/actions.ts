/** Was Worte neben einer Anfrage denen anbieten, die sie lesen. */
export const actions = {
  begun: 'Die Anfrage ist zur Genehmigung vorgelegt.',
  finished: 'Das ist abgeschlossen. Niemand kann sich mehr ein- oder austragen.',
  notOffered: 'In dieser Liste können Sie nicht stehen. Fragen Sie, wer sie führt.',
  noPlaceLeft: 'Im Moment ist kein Platz frei.',
  noPlaces: 'Hier gibt es keine Liste mehr, in die man sich einträgt.',
  left_one: '{{count}} Platz frei',
  left_other: '{{count}} Plätze frei',
  isIn: 'Sie stehen in der Liste',
  nowIn: 'Sie stehen jetzt in der Liste.',
  nowOut: 'Sie stehen nicht mehr in der Liste.',
  question: 'Ihre Frage',
  send: 'Frage senden',
  cancel: 'Abbrechen',
  asked: 'Ihre Frage ist gesendet.',
  askedAndFollow: 'Sie folgen {{number}} von jetzt an, damit Sie die Antwort erfahren.',
} as const;
