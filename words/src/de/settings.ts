import type { settings as english } from '../en/settings.ts';
import type { Same } from '../same.ts';

/** Wie die Einstellungen des Empfangs heißen, und was an ihnen nicht stimmt. */
export const settings: Same<typeof english> = {
  theDesk: 'der Empfang',
  theOrganisation: 'Organisation',
  theName: 'Name des Empfangs',
  theZone: 'Zeitzone',
  theLanguage: 'Sprache',
  theFirstDay: 'Erster Tag der Woche',
  theAccent: 'Farbe',
  theSignature: 'Ende jeder E-Mail',
  theSender: 'Absender der E-Mails',
  theSenderAddress: 'E-Mail-Adresse des Empfangs',
  'theLinks.confirm': 'Link zum Bestätigen einer Anfrage',
  'theLinks.decide': 'Link zum Genehmigen oder Ablehnen',
  'theLinks.follow': 'Link zum Verfolgen einer Anfrage',
  'theLinks.resume': 'Link zum Weiterschreiben eines Formulars',
  'theLinks.invite': 'Link zur ersten Anmeldung',
  noName: 'Der Empfang hat keinen Namen. Schreiben Sie, wie er genannt wird.',
  badZone: 'Diese Zeitzone kennen wir nicht. Wählen Sie eine aus der Liste, etwa Europe/Dublin.',
  badAccent: 'Diese Farbe gibt es nicht. Wählen Sie eine aus der Liste.',
  badSender: 'Das ist keine E-Mail-Adresse. Schreiben Sie eine wie empfang@example.org.',
  badLinkDays: 'Ein Link kann {{least, number}} bis {{most, number}} Tage gelten. Wählen Sie eine Zahl dazwischen.',
  correctIt: 'Korrigieren Sie das. Es wurde nichts geändert.',
  theCalendar: 'Öffnungszeiten des Empfangs',
  theProfile: 'die Profile',
  fieldWithoutName: 'Dieses Feld hat keinen Namen. Schreiben Sie, wie es heißt.',
  fieldTwice: 'Zwei Felder heißen „{{label}}“. Benennen Sie eines um.',
  fieldKeyTaken:
    'Der Schlüssel „{{key}}“ ist vergeben. Entfernen Sie dieses Feld und legen Sie es unter einem anderen Namen neu an.',
  'theKept.emails': 'Text von E-Mails, nach dem Versand',
  'theKept.unconfirmed': 'Unbestätigte Anfragen, nach Ende ihres Links',
  badKeptDays: 'Möglich sind {{least, number}} bis {{most, number}} Tage. Wählen Sie eine Zahl dazwischen.',
  theHosts: 'Adressen außerhalb, zu denen Formulare führen dürfen',
  badHosts: 'Schreiben Sie Hosts wie formulare.example, einen in jede Zeile.',
  theHearing: 'wann E-Mails hinausgehen: {{what}}',
};
