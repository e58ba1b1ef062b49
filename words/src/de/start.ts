import type { start as english } from '../en/start.ts';
import type { Same } from '../same.ts';

/** Was der erste Start und eine erste Anmeldung sagen. */
export const start: Same<typeof english> = {
  passwordShort: 'Das Passwort ist zu kurz. Nehmen Sie {{least, number}} Zeichen oder mehr, etwa drei Wörter.',
  passwordLong: 'Das Passwort ist zu lang. Nehmen Sie höchstens {{most, number}} Zeichen.',
  passwordPlain:
    'Dieses Passwort könnten andere erraten. Wählen Sie Wörter, die nichts mit Ihnen oder dem Empfang zu tun haben.',
  otherPassword: 'Wählen Sie ein anderes Passwort.',
  badAddress: 'Das ist keine E-Mail-Adresse.',
  likeAddress: 'Schreiben Sie sie wie name@example.org.',
  addressTaken: '{{name}} hat diese E-Mail-Adresse schon.',
  otherAddress: 'Nehmen Sie eine andere Adresse, oder öffnen Sie diese Person.',
  noName: 'Der Name fehlt.',
  writeName: 'Schreiben Sie einen Namen.',
  title: 'Ihren Empfang einrichten',
  intro: 'In wenigen Minuten ist Tolvek eingerichtet. Sie können später alles ändern.',
  ends: 'Diese Seite gilt bis {{ends, moment}} (UTC), einmal.',
  theDesk: 'Der Empfang',
  nameHint: 'Wie man ihn nennt, etwa „Empfang Technik“.',
  organisationHint: 'Die Organisation, zu der der Empfang gehört. Das kann leer bleiben.',
  senderHint: 'E-Mails kommen von dieser Adresse, und man kann an sie schreiben.',
  zoneHint: 'Fristen und Uhrzeiten sind die dieses Ortes.',
  languageHint: 'Für Personen, die keine Sprache gewählt haben.',
  you: 'Sie',
  youHint: 'Sie gehören als erste Person zur Administration und melden sich mit dieser E-Mail-Adresse an.',
  yourName: 'Ihr Name',
  yourAddress: 'Ihre E-Mail-Adresse',
  passwordHint: 'Zehn Zeichen oder mehr. Gut sind drei Wörter, die nichts mit Ihnen zu tun haben.',
  setUp: 'Empfang einrichten',
  settingUp: 'Wird eingerichtet …',
  welcome: 'Willkommen',
  welcomeTo: 'Willkommen bei {{house}}',
  again: 'Anderes Passwort wählen',
  signInAs: 'Sie sind {{name}} und melden sich mit {{email}} an.',
  newPassword: 'Neues Passwort',
  savePassword: 'Passwort speichern und anmelden',
};
