/** Die Einrichtung für Leute von außen, Schritt für Schritt. */
export const outside = {
  open: 'Für Leute von außen einrichten, Schritt für Schritt',
  title: 'Leute von außen',
  intro:
    'Alles, was Leute von außen antreffen, an einem Ort und der Reihe nach. Was Sie hier ändern, gilt, wenn Sie es am Ende sagen.',
  which: 'Tür',
  none: 'Es gibt noch keine Tür für Leute von außen. Legen Sie eine an: Sie steht allen mit ihrem Link offen, bis Sie es hier ändern.',
  make: 'Tür anlegen',
  back: 'Zurück zu allen Türen',
  'step.whose': 'Wessen Anfrage ist es?',
  'step.who': 'Wer kommt herein, und wie weist man sich aus?',
  'step.refused': 'Was lesen alle anderen?',
  'step.asking': 'Was liest, wer anfragt, und wenn sie angekommen ist?',
  'step.past': 'Wo sieht man, was daraus wurde?',
  'step.check': 'Stimmt es?',
  'whose.asks': 'der Person, die sie sendet',
  'whose.person': 'der Person in „{{field}}“',
  'whose.address': 'wem die Adresse in „{{field}}“ gehört',
  whoseHint: 'Sie verfolgt, wem sie gehört, und dorthin gehen die E-Mails. Wer sie gesendet hat, steht daneben.',
  whoseFromOutside: 'Eine Adresse in einem Feld bestätigt, wer sie hat, bevor ihr die Anfrage gehört.',
  noWhoseField:
    'Das Formular hat kein Feld für eine Person oder eine E-Mail-Adresse, also gehört eine Anfrage der Person, die sie sendet.',
  'proof.device':
    'Die E-Mail-Adresse wird bestätigt, bevor eine Anfrage hereinkommt; angemeldet einmal auf jedem Gerät',
  'proof.each-time': 'Die E-Mail-Adresse wird jedes Mal bestätigt, bevor eine Anfrage hereinkommt',
  'proof.never': 'Eine Anfrage kommt sofort herein; die Adresse wird danach bestätigt, um sie zu verfolgen',
  'proof.unnamed': 'Nichts über eine Person wird gespeichert: niemand wird genannt, und niemand kann sie verfolgen',
  asked: 'Das Formular in ihren Worten:',
  askedCount_one: '{{count}} Frage hat eigene Worte.',
  askedCount_other: '{{count}} Fragen haben eigene Worte.',
  link: 'Ihr Link:',
  past: 'Mit dem Link in ihrer E-Mail, oder angemeldet am Empfang unter „Meine Anfragen“.',
  pastNamed: 'Die Stände heißen für sie: {{stages, list}}.',
  'reads.answers.read': 'Sie lesen, was sie geantwortet haben.',
  'reads.answers.hidden': 'Sie lesen nicht, was sie geantwortet haben.',
  'reads.made.read': 'Sie lesen, was daraus berechnet wird.',
  'reads.made.hidden': 'Sie lesen nicht, was daraus berechnet wird.',
  'reads.staffOnly.read': 'Sie lesen, was die Belegschaft ausfüllt.',
  'reads.staffOnly.hidden': 'Sie lesen nicht, was die Belegschaft ausfüllt.',
  readsRules: 'Zugriffsregeln können es für einzelne Felder anders sagen.',
  toAccess: 'Zugriff',
  toQuestions: 'Fragen',
  toStages: 'Stände des Registers',
  inactive:
    'Kontakte, die nicht mehr aktiv sind, können nicht mehr anfragen und sich nicht anmelden. Was sie gesendet haben, bleibt, und die Belegschaft liest es.',
  allWell: 'Hier würde nichts jemanden überraschen.',
  proofHint:
    'Die Probe rechts zeigt das Formular „einer Person von außen“. Wählen Sie dort jemand anderen, um zu sehen, was diese bekommt.',
  whoseNotAsked:
    'Das Formular fragt nicht nach „{{field}}“, also steht nie fest, wessen eine Anfrage ist. Fragen Sie danach, oder wählen Sie die Person, die sie sendet.',
  whoseOptional: '„{{field}}“ ist nicht nötig. Bleibt es leer, gehört die Anfrage der Person, die sie gesendet hat.',
  notReleased: 'Das Formular hat noch keine Ausgabe, also führt die Tür nirgendwohin. Geben Sie den Entwurf aus.',
  stopped: 'Das Formular ist angehalten: niemand kann damit anfragen. Setzen Sie es im Regal fort.',
  notOpen: 'Die Tür ist im Moment nicht offen. Öffnen Sie sie, oder prüfen Sie ihre Zeiten.',
  robots:
    'Anfragen kommen herein, ohne dass jemand gefragt wird, wer sie stellt, und nichts bremst Robots. Schalten Sie die Arbeit für Geräte ein.',
  noOthersWords: 'Wer nicht gemeint ist, liest einen allgemeinen Satz. Schreiben Sie, wen man stattdessen fragen kann.',
  labelsAsWords:
    'Diese Fragen haben keine eigenen Worte, gelesen wird der Name des Feldes: {{labels, names}}. Formulieren Sie sie als Fragen.',
  unnamedPast: 'Niemand sieht, was aus dem Gesendeten wurde, weil nichts über sie gespeichert wird.',
  pastHidden:
    'Sie sehen, dass etwas in Arbeit ist, und lesen nichts von dem, was sie gesendet haben. Prüfen Sie den Zugriffsplan.',
  linkEnough:
    'Die Tür ist nur für einige, und ein weitergegebener Link zeigt eine Anfrage allen. Lassen Sie bestätigen, wer sie öffnet.',
  labelsOnPage:
    'Auf ihrer Seite lesen sie die internen Namen von {{labels, names}}. Sagen Sie, wie Anfragende sie lesen.',
  stageNoWords: 'Für {{stages, names}} haben Anfragende kein Wort. Schreiben Sie, was sie lesen.',
  robotsOn: 'Geräte vor dem Senden etwas arbeiten lassen',
} as const;
