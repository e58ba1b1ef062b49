import type { access as english } from '../en/access.ts';
import type { Same } from '../same.ts';

export const access: Same<typeof english> = {
  madeFrom: 'Es entsteht aus „{{source}}“: {{rule}}',
  computedReadOnly: 'Ein berechnetes Feld lässt sich lesen, nicht ändern',
  numberStays: 'Eine laufende Nummer ändert sich nicht',
  carriedReadOnly: 'Ein übernommener Wert wird dort geändert, woher er kommt',
  deskDefault: 'Die Mitarbeitenden arbeiten mit jedem Feld, wenn keine Regel etwas anderes sagt',
  onlyDeskAndRequester: 'Nur der Empfang und die anfragende Person sehen eine Anfrage',
  requestersReadAnswers: 'Anfragende lesen ihre eigenen Antworten',
  requestersReadComputed: 'Anfragende lesen, was aus ihren Antworten berechnet ist',
  requestersReadNumbers: 'Anfragende lesen die laufenden Nummern ihrer Anfragen',
  requestersReadCarried: 'Anfragende lesen die übernommenen Werte ihrer Auswahl',
  staffOnlyHidden: 'Interne Felder sind vor Anfragenden verborgen',
  broughtBy: 'Es wird durch „{{source}}“ übernommen: {{rule}}',
  computedFrom: 'Es wird aus „{{source}}“ berechnet: {{rule}}',
  closedAtSource: 'Es wird von einem Ort übernommen, der jetzt geschlossen ist',
  noField: 'Dieses Feld gibt es hier nicht',
  notInEmails: 'Was vor einigen Mitarbeitenden verborgen ist, steht in keiner E-Mail',
  noRightToChange: 'Sie können diese Anfrage lesen, haben aber kein Recht, sie zu ändern.',
  hangsOnTooMuch: 'Der Zugriffsplan hängt von zu vielen Bedingungen ab, um ihn zu überblicken',
  hiddenFromYou: 'Es ist für Sie selbst verborgen',
  planBase: 'So sagt es der Zugriffsplan, wo keine Regel etwas sagt',
  notPlaced: 'Es hat noch keinen Platz im Zugriffsplan und ist deshalb verschlossen',
  keptAsSent: 'Dateien, Personen und Verweise bleiben, wie sie gesendet wurden',
  whoeverAsks: 'Wer anfragt, füllt aus, wonach gefragt wird',
  lockedInEdition: 'Gesperrt in der Fassung „{{edition}}“',
};
