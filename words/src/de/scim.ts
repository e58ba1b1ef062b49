import type { scim as english } from '../en/scim.ts';
import type { Same } from '../same.ts';

/** Was ein Verzeichnis gesagt bekommt, das Personen auf dem Stand hält. */
export const scim: Same<typeof english> = {
  noSuchPath:
    'Ein Attribut „{{path}}“ gibt es hier nicht. Verwenden Sie einen Pfad des Schemas, etwa name.familyName oder emails[type eq "work"].value.',
  wrongFilter:
    'Der Filter „{{filter}}“ ist nicht lesbar. Verwenden Sie Attribute des Schemas und die Operatoren aus RFC 7644, Abschnitt 3.4.2.2.',
  notAResource: 'Hier wird eine Ressource erwartet: ein Objekt mit Attributen.',
  otherSchema: 'Die Liste „schemas“ nennt {{schema}} nicht. Ergänzen Sie es.',
  wrongKind:
    'Der Wert von „{{attribute}}“ ist von anderer Art, als sein Schema sagt. Senden Sie einen Wert dieser Art.',
  required: '„{{attribute}}“ ist erforderlich. Senden Sie einen Wert dafür.',
  notAPatch:
    'Das ist kein Patch. Senden Sie das Schema eines PatchOp und Operations, jede mit op: add, remove oder replace.',
  noValue: 'Die Operation hat keinen Wert, der zu ihrem Pfad passt. Senden Sie einen.',
  onlyRead: '„{{attribute}}“ ist nicht änderbar. Lassen Sie es weg.',
  noTarget: 'Nichts passt zum Pfad „{{path}}“. Verwenden Sie einen anderen Pfad, oder fügen Sie den Wert erst hinzu.',
  stale: 'Das hat inzwischen jemand anders geändert. Lesen Sie es neu, und wiederholen Sie die Änderung.',
  notThere: 'Mit der Kennung {{id}} gibt es hier nichts. Suchen Sie nach dem Namen.',
  noToken:
    'Dafür braucht es das Token eines Verzeichnisses. Es fehlt oder gilt nicht mehr. Bitten Sie die Administration des Empfangs um eines.',
  noMe: 'Ein Verzeichnis ist kein Benutzer. Suchen Sie Benutzer nach ihren Namen.',
  noSuchPlace: 'Unter {{path}} gibt es nichts. Verwenden Sie /Users, /Groups oder /Bulk.',
  noFilterHere: 'Das lässt sich nicht filtern. Fragen Sie alles ab.',
  notASearch: 'Das ist keine Suche. Senden Sie das Schema eines SearchRequest.',
  longFilter: 'Der Filter ist länger als {{most, number}} Zeichen. Fragen Sie in Teilen.',
  notABulk: 'Das ist kein Bulk. Senden Sie das Schema eines BulkRequest und Operations, jede mit method und path.',
  noBulkId: 'Ein POST in einem Bulk braucht eine bulkId. Ergänzen Sie eine.',
  manyOperations: 'Ein Bulk darf {{most, number}} Operationen haben. Senden Sie die anderen im nächsten.',
  lostBulkId: 'Für die bulkId {{id}} wurde nichts angelegt. Legen Sie es erst an, und ohne Kreis.',
  taken: '{{name}} ist schon vergeben. Suchen Sie den Eintrag, und ändern Sie ihn.',
  localGroup: 'Der Empfang hat schon eine eigene Gruppe „{{name}}“. Geben Sie einer der beiden einen anderen Namen.',
  isContact:
    '{{email}} gehört zu einem Kontakt des Empfangs, der nicht zum Personal gehört. Führen Sie den Kontakt zusammen, oder entfernen Sie ihn erst.',
  noAddress: 'Weder in emails noch in userName steht eine E-Mail-Adresse. Senden Sie eine.',
  noMember: 'Einen Benutzer oder eine Gruppe {{member}} des Verzeichnisses gibt es hier nicht. Senden Sie sie erst.',
};
