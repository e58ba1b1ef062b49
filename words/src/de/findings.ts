import type { findings as english } from '../en/findings.ts';
import type { Same } from '../same.ts';

export const findings: Same<typeof english> = {
  limitIsCondition:
    'Was die Liste einschränkt, ist keine Bedingung. Schreiben Sie eine Bedingung, die zutrifft oder nicht.',
  noTitle: 'Das Formular hat keinen Titel. Niemand fände es. Geben Sie einen Titel ein.',
  noQuestion: 'Das Formular hat noch keine Fragen. Fügen Sie eine Frage hinzu.',
  nameMissesField: 'Der Name in Listen nutzt „{{field}}“, und dieses Feld gibt es nicht. Nehmen Sie es aus dem Namen.',
  uniqueMissesField:
    'Eine Prüfung auf Doppelte nutzt ein Feld, das es nicht gibt. Sie fände nichts. Wählen Sie ein anderes Feld.',
  optionWithoutRow:
    '„{{label}}“ hat die Option „{{option}}“, und keine Zeile nennt sie. Solche Anfragen nehmen die letzte Zeile. Fügen Sie eine Zeile hinzu, wenn das falsch ist.',
  stepStranger:
    'Der Genehmigungsschritt „{{step}}“ fragt eine Person, die nicht mehr da ist. Niemand könnte entscheiden. Wählen Sie, wer entscheidet.',
  stepLostGroup:
    'Der Genehmigungsschritt „{{step}}“ fragt eine Gruppe, die es nicht gibt. Niemand könnte entscheiden. Wählen Sie eine andere Gruppe.',
  stepWrong: 'Wann der Genehmigungsschritt „{{step}}“ gefragt wird: {{message}}',
  stepUnnamed: 'Ein Genehmigungsschritt hat keinen Namen. Geben Sie ihm einen Namen.',
  stepsAllConditional:
    'Jeder Genehmigungsschritt wird nur manchmal gefragt. Wo keiner gefragt wird, entscheidet niemand, und die Arbeit beginnt sofort. Fragen Sie einen Schritt immer, oder lassen Sie es so.',
  handlerGone: 'Diese Zeile überträgt die Bearbeitung einer Person, die nicht mehr da ist. Wählen Sie jemand anders.',
  handlerLostField:
    'Diese Zeile überträgt die Bearbeitung der Person, die ein Feld nennt, und das Feld ist keines für eine Person. Wählen Sie ein anderes Feld.',
  handlerNobody:
    'Im Team dieser Zeile ist niemand, also könnte niemand die Bearbeitung übernehmen. Nehmen Sie Personen in das Team auf.',
  handlerLostRoster:
    'Diese Zeile fragt nach dem Dienst eines Dienstplans, den es nicht gibt. Wählen Sie einen anderen Dienstplan.',
  rosterGap:
    'Nach „{{roster}}“ hat am {{at, moment}} niemand Dienst. Ergänzen Sie den Dienstplan, oder nennen Sie als letzten Weg eine Person.',
  handlerMayLack:
    'Eine Antwort oder eine frühere Anfrage nennt vielleicht niemanden, und dann bearbeitet sie niemand. Fügen Sie einen weiteren Weg hinzu.',
  handlerNoSkills:
    'Diese Zeile sucht eine Fähigkeit, und der Desk nennt kein Register der Fähigkeiten. Wählen Sie das Register in den Grundlagen unter „Fähigkeiten“.',
  handlerLostSkill: 'Diese Zeile sucht eine Fähigkeit, die es nicht gibt. Wählen Sie eine andere.',
  handlerUnskilled:
    'Niemand im Team dieser Zeile hat heute die Fähigkeit auf dieser Stufe. Ändern Sie die Stufe, oder fügen Sie einen weiteren Weg hinzu.',
  followerLostGroup: 'Diese Zeile lässt eine Gruppe Anfragen folgen, die es nicht gibt. Wählen Sie eine andere Gruppe.',
  followerGone: 'Diese Zeile lässt eine Person Anfragen folgen, die nicht mehr da ist. Wählen Sie jemand anders.',
  wishLostField:
    'Die Zuordnung nennt für einen Wunsch der Anfragenden ein Feld, das es nicht gibt. Wählen Sie ein anderes Feld.',
  followerReadsNothing:
    'Niemand von „{{who}}“ kann diese Anfragen lesen, also würden sie von keiner erfahren. Nennen Sie sie im Zugriffsplan als Lesende, oder entfernen Sie sie.',
  followerLostField:
    'Diese Zeile lässt die Person Anfragen folgen, die ein Feld nennt, und das Feld ist keines für eine Person. Wählen Sie ein anderes Feld.',
  rowLostPath: 'Diese Zeile nennt einen Genehmigungsweg, den es nicht gibt. Wählen Sie einen anderen.',
  pathAllConditional:
    'Jeder Schritt des Genehmigungswegs „{{path}}“ wird nur manchmal gefragt. Wo keiner gefragt wird, entscheidet niemand, und die Arbeit beginnt sofort. Fragen Sie einen Schritt immer, oder lassen Sie es so.',
  pathUnused:
    'Keine Zeile der Zuordnungstabelle wählt den Genehmigungsweg „{{path}}“. Wählen Sie ihn in einer Zeile, oder entfernen Sie ihn.',
  stepLostRoster:
    'Der Genehmigungsschritt „{{step}}“ fragt nach dem Dienst eines Dienstplans, den es nicht gibt. Wählen Sie einen anderen.',
  stepRosterGap:
    'Nach „{{roster}}“ hat am {{at, moment}} niemand Dienst, und der Genehmigungsschritt „{{step}}“ fragt danach. Ergänzen Sie den Dienstplan.',
  stepLostField:
    'Der Genehmigungsschritt „{{step}}“ fragt, wen ein Feld nennt, das keines für eine Person ist oder fehlt. Wählen Sie ein anderes Feld.',
  limitTooLong: 'Der Genehmigungsschritt „{{step}}“ darf mehr als 400 Tage dauern. Wählen Sie eine kürzere Zeit.',
  remindsTooEarly:
    'Der Genehmigungsschritt „{{step}}“ würde erinnern, bevor jemand gefragt ist. Wählen Sie eine kürzere Zeit.',
  passesToNobody:
    'Wenn niemand antwortet, fragt der Genehmigungsschritt „{{step}}“ jemand anders, und niemand ist genannt. Wählen Sie, wer ersatzweise entscheidet.',
  stepMayLack:
    'Der Genehmigungsschritt „{{step}}“ fragt, wen eine Antwort nennt. Wo sie niemanden oder die anfragende Person nennt, könnte niemand entscheiden. Wählen Sie, wer ersatzweise entscheidet.',
  stepReadsNothing:
    'Der Genehmigungsschritt „{{step}}“ fragt {{name}} von außen, und der Zugriffsplan zeigt dieser Person nichts von einer Anfrage. Öffnen Sie Felder für Menschen von außen.',
  stepTooFew:
    'Am Genehmigungsschritt „{{step}}“ könnten heute zu wenige entscheiden. Anfragen würden warten. Nehmen Sie Personen in die Gruppen auf, oder wählen Sie, wer ersatzweise entscheidet.',
  stepTooMany:
    'Der Genehmigungsschritt „{{step}}“ braucht mehr Genehmigungen, als er Gruppen oder Personen fragt. Anfragen würden ewig warten. Fragen Sie mehr, oder verlangen Sie weniger.',
  fieldTwice: 'Ein Feld steht zweimal im Formular. Entfernen Sie eine der Fragen.',
  partTwice: 'Zwei Teile haben denselben Schlüssel. Entfernen Sie einen, und fügen Sie ihn neu hinzu.',
  emptyText: 'Ein Text zwischen Fragen ist leer. Schreiben Sie ihn, oder entfernen Sie ihn.',
  textMissesField:
    'Ein Text zwischen Fragen nutzt „{{field}}“, und dieses Feld gibt es nicht. Man würde „…“ lesen. Nehmen Sie es aus dem Text.',
  questionMissesField:
    'Eine Frage gehört zu einem Feld, das es nicht gibt. Die Antwort ginge verloren. Entfernen Sie die Frage.',
  staffPicker:
    '„{{label}}“ listet Mitarbeitende. Außenstehende sehen diese Frage deshalb nicht. Wählen Sie eine andere Art, wenn sie antworten sollen.',
  pickerLostGroup:
    '„{{label}}“ listet Mitglieder einer Gruppe, die es nicht gibt. Niemand wäre wählbar. Wählen Sie eine andere Gruppe.',
  sectionNoTitle: 'Ein Abschnitt hat keinen Titel. Geben Sie einen ein.',
  pageNoTitle: 'Eine Seite hat keinen Titel. Geben Sie einen ein.',
  noLabel: 'Ein Feld hat keinen Namen. Die Liste wäre nicht lesbar. Geben Sie einen Namen ein.',
  sameLabel: 'Zwei Felder heißen „{{label}}“. In Listen sind sie nicht zu unterscheiden. Benennen Sie eines um.',
  unusedField:
    '„{{label}}“ steht nicht im Formular, und nichts nutzt es. Es bliebe immer leer. Fügen Sie eine Frage dazu ein, oder entfernen Sie das Feld.',
  noOptions: '„{{label}}“ hat keine Optionen. Niemand kann antworten. Fügen Sie eine Option hinzu.',
  optionNoLabel: 'Eine Option von „{{label}}“ hat keinen Namen. Geben Sie einen ein.',
  fewLevels: 'Die Skala von „{{label}}“ hat weniger als zwei Stufen. Fügen Sie eine hinzu.',
  levelsNotRising:
    'Die Stufen von „{{label}}“ steigen nicht an und lassen sich nicht vergleichen. Ändern Sie die Reihenfolge.',
  lowestAboveHighest:
    '„{{label}}“: Der kleinste Wert liegt über dem größten. Keine Antwort ist möglich. Korrigieren Sie einen davon.',
  linesAskNothing: 'Die Zeilen von „{{label}}“ haben keine Spalte zum Ausfüllen. Fügen Sie eine Spalte hinzu.',
  columnNoLabel: 'Eine Spalte von „{{label}}“ hat keinen Namen. Geben Sie einen ein.',
  'notAskable.desk-only': '„{{label}}“ ist intern und kann nicht im Formular stehen. Entfernen Sie die Frage.',
  'notAskable.computed': '„{{label}}“ wird berechnet und kann nicht im Formular stehen. Entfernen Sie die Frage.',
  'notAskable.given':
    '„{{label}}“ wird automatisch vergeben und kann nicht im Formular stehen. Entfernen Sie die Frage.',
  'notAskable.carried':
    '„{{label}}“ kommt aus einem anderen Register und kann nicht im Formular stehen. Entfernen Sie die Frage.',
  aColumn: 'eine Spalte',
  columnOf: '{{field}}, {{column}}',
  defaultOf: 'Vorgabe von {{label}}',
  formulaWrong: '„{{label}}“: {{message}}',
  computedAs:
    '„{{label}}“ wird als {{gives}} berechnet, das Feld ist aber {{wants}}. Ändern Sie die Formel oder die Art des Feldes.',
  presetWrong: 'Die Vorgabe von „{{label}}“ ist nicht möglich: {{message}} {{fix}}',
  presetLostField: 'Die Vorgabe von „{{label}}“ ist ein Feld, das es nicht gibt. Wählen Sie eine andere.',
  presetOtherField: 'Die Vorgabe von „{{label}}“ ist „{{other}}“, ein Feld anderer Art. Wählen Sie eine andere.',
  'presetOther.today':
    'Die Vorgabe von „{{label}}“ ist ein Tag und passt nicht zu dieser Art Feld. Wählen Sie eine andere.',
  'presetOther.now':
    'Die Vorgabe von „{{label}}“ ist ein Zeitpunkt und passt nicht zu dieser Art Feld. Wählen Sie eine andere.',
  'presetOther.me':
    'Die Vorgabe von „{{label}}“ ist eine Person und passt nicht zu dieser Art Feld. Wählen Sie eine andere.',
  'presetOther.department':
    'Die Vorgabe von „{{label}}“ ist ein Teamname und passt nicht zu dieser Art Feld. Wählen Sie eine andere.',
  lostVocabulary: '„{{label}}“ nutzt ein Vokabular, das es nicht gibt. Niemand könnte antworten. Wählen Sie eines.',
  lostBranch:
    '„{{label}}“ nutzt einen Teil von „{{vocabulary}}“, den es nicht gibt. Niemand könnte antworten. Wählen Sie einen anderen.',
  numberNeedsPrefix: 'Die laufende Nummer „{{label}}“ hat nichts vor den Ziffern. Geben Sie etwas wie SA- ein.',
  numberIsGiven:
    '„{{label}}“ ist eine laufende Nummer und wird automatisch vergeben. Sie lässt sich nicht ausfüllen. Ändern Sie die Herkunft.',
  onlyNumbersGiven:
    '„{{label}}“ wird automatisch vergeben, das geht nur mit laufenden Nummern. Ändern Sie die Herkunft.',
  lostRegister: '„{{label}}“ verweist auf ein Register, das es nicht gibt. Niemand könnte antworten. Wählen Sie eines.',
  showsLostField: '„{{label}}“ zeigt ein Feld, das „{{register}}“ nicht hat. Entfernen Sie es.',
  noPictures:
    'Die Karten von „{{label}}“ haben „{{field}}“ als Bild, das keine Dateien aufnimmt. Wählen Sie ein Feld für Dateien.',
  showsOnlyNumbers:
    '„{{label}}“ zeigt nur die Nummern von „{{register}}“. Man erkennt sie nicht. Wählen Sie Felder, die man kennt.',
  offerWrong: '„{{label}}“, Einschränkung der Liste: {{message}}',
  carriedLostReference:
    '„{{label}}“ kommt von einem Verweis, den es nicht gibt. Es bliebe leer. Wählen Sie einen anderen.',
  carriedLostField:
    '„{{label}}“ kommt aus einem Feld, das „{{register}}“ nicht hat. Es bliebe leer. Wählen Sie ein anderes.',
  carriedOtherKind: '„{{label}}“ kommt aus „{{source}}“, einem Feld anderer Art. Wählen Sie eines derselben Art.',
  wouldShow:
    '„{{label}}“ würde „{{field}}“ zeigen. Der Zugriffsplan von „{{register}}“ verbirgt das vor einigen. Entfernen Sie es.',
  wouldTest:
    '„{{label}}“ ist durch „{{field}}“ eingeschränkt. Der Zugriffsplan von „{{register}}“ verbirgt das vor einigen. Nehmen Sie es aus der Einschränkung.',
  outsideSearch:
    '„{{label}}“: Außenstehende können „{{register}}“ nach {{fields, and}} durchsuchen. Schränken Sie die Liste ein, wenn sie das nicht sollen.',
  byNumber: 'Nummer',
  ruleRetired:
    'Die Regel „{{rule}}“ prüft auf „{{option}}“ bei „{{field}}“. Das kann niemand mehr wählen. Nehmen Sie es aus der Bedingung.',
  stepRetired:
    'Der Genehmigungsschritt „{{step}}“ prüft auf „{{option}}“ bei „{{field}}“. Das kann niemand mehr wählen. Nehmen Sie es aus der Bedingung.',
  rowRetired:
    'Zeile {{row}} prüft auf „{{option}}“ bei „{{field}}“. Das kann niemand mehr wählen. Ändern Sie die Zelle.',
  ruleIdle: 'Die Regel „{{rule}}“ tut noch nichts. Fügen Sie eine Aktion hinzu, oder entfernen Sie die Regel.',
  ruleOnlyFills:
    'Die Regel „{{rule}}“ füllt nur ein Feld aus. Eine Vorgabe tut dasselbe, und man kann sie ändern. Verwenden Sie eine Vorgabe.',
  ruleWrong: 'Die Regel „{{rule}}“: {{message}}',
  ruleAlwaysElse:
    'Die Bedingung der Regel „{{rule}}“ trifft immer zu, „sonst“ tritt also nie ein. Ändern Sie die Bedingung, oder entfernen Sie diesen Teil.',
  ruleAlwaysShow:
    'Die Bedingung der Regel „{{rule}}“ trifft immer zu, ihre Fragen erscheinen also immer. Entfernen Sie die Regel.',
  ruleNeverThen: 'Die Bedingung der Regel „{{rule}}“ trifft nie zu, nur „sonst“ tritt ein. Ändern Sie die Bedingung.',
  ruleNever:
    'Die Bedingung der Regel „{{rule}}“ trifft nie zu, die Regel tut also nichts. Ändern Sie die Bedingung, oder entfernen Sie die Regel.',
  neverShown:
    '„{{label}}“ erscheint nie, weil keine Regel zutreffen kann, die es zeigt. Ändern Sie eine Bedingung, oder nehmen Sie es aus dem Formular.',
  rulesContradict:
    'Die Regeln „{{first}}“ und „{{second}}“ widersprechen sich bei „{{label}}“, wenn beide zutreffen. Es gilt „{{later}}“, weil sie später steht. Ändern Sie eine, wenn das falsch ist.',
  rulesNotCompared:
    '„{{first}}“ und die {{count}} Regeln danach wurden nicht auf Widersprüche geprüft. Es sind zu viele Fälle. Vereinfachen Sie die Bedingungen, oder teilen Sie das Formular.',
  ruleOffersRetired:
    'Die Regel „{{rule}}“ bietet bei „{{label}}“ Optionen an, die niemand mehr wählen kann. Nehmen Sie sie aus der Regel.',
  aText: 'Ein Text',
  circleSelf: '„{{label}}“ hängt von sich selbst ab und hat keinen klaren Wert. Ändern Sie eine der Regeln.',
  circle:
    'Diese Felder hängen voneinander ab und haben keinen klaren Wert: {{labels, names}}. Ändern Sie eine der Regeln.',
  'rule.partGone':
    'Die Regel „{{rule}}“ zeigt oder verbirgt einen Teil, der nicht im Formular steht. Nehmen Sie ihn aus der Regel.',
  'rule.fieldGone': 'Die Regel „{{rule}}“ nutzt ein Feld, das es nicht gibt. Nehmen Sie es aus der Regel.',
  'rule.requiresUnasked':
    'Die Regel „{{rule}}“ verlangt „{{label}}“, das nicht im Formular steht. Niemand könnte senden. Nehmen Sie es aus der Regel.',
  'rule.limitsNoOptions':
    'Die Regel „{{rule}}“ schränkt Optionen eines Feldes ein, das keine hat. Entfernen Sie diese Aktion.',
  'rule.leavesNothing':
    'Die Regel „{{rule}}“ lässt bei „{{label}}“ keine Option übrig. Niemand könnte antworten. Wählen Sie eine Option.',
  'rule.warnsEmpty': 'Die Regel „{{rule}}“ warnt ohne Text. Schreiben Sie den Text.',
  'rule.refusesEmpty': 'Die Regel „{{rule}}“ lehnt ohne Text ab. Niemand wüsste, warum. Schreiben Sie den Text.',
  'rule.saysNowhere':
    'Die Regel „{{rule}}“ zeigt ihren Text bei einem Feld, das es nicht gibt. Wählen Sie einen anderen Ort.',
  'rule.jumpsNowhere':
    'Die Regel „{{rule}}“ springt von oder zu einer Seite, die es im Formular nicht gibt. Wählen Sie eine andere Seite.',
  'rule.setsComputed': 'Die Regel „{{rule}}“ setzt „{{label}}“, das berechnet wird. Entfernen Sie diese Aktion.',
  'rule.setsWrong': 'Die Regel „{{rule}}“ setzt „{{label}}“: {{message}}',
  'rule.setsOther':
    'Die Regel „{{rule}}“ setzt „{{label}}“ auf {{gives}}, das Feld ist aber {{wants}}. Ändern Sie den Wert.',
  editionNever:
    '„{{edition}}“ wird nie vergeben. Alle, für die sie ist, bekommen vorher „{{before}}“. Schieben Sie sie nach oben, oder ändern Sie, für wen sie ist.',
  editionGetsNobody: '„{{edition}}“ bekommt heute niemand. Ändern Sie, für wen die Fassung ist, oder ihre Bedingung.',
  editionGetsBefore:
    '„{{edition}}“ bekommt heute niemand, denn alle, auf die sie passt, bekommen eine davor. Schieben Sie sie nach oben.',
  editionNoName: 'Diese Fassung hat keinen Namen. Geben Sie einen Namen ein.',
  editionNobody: '„{{edition}}“ ist für niemanden. Wählen Sie, für wen sie ist.',
  editionLostGroup: '„{{edition}}“ nennt eine Gruppe, die es nicht gibt. Wählen Sie eine andere Gruppe.',
  editionGonePerson: '„{{edition}}“ nennt jemanden, der nicht mehr aktiv ist. Wählen Sie jemand anderen.',
  editionLostStage: '„{{edition}}“ nennt einen Stand, den es nicht gibt. Entfernen Sie den Stand.',
  editionNoStage: '„{{edition}}“ wird bei keinem Stand vergeben. Wählen Sie einen Stand.',
  editionBeforeAnswers:
    '„{{edition}}“ hängt von Antworten ab und wird gewählt, bevor es welche gibt. Niemand bekommt sie. Ändern Sie die Bedingung, oder wählen Sie einen Stand.',
  editionLeadsUnasked:
    '„{{edition}}“ führt nach „{{field}}“ woandershin, wonach dieses Formular nicht fragt. Sie führt niemanden. Ändern Sie die Bedingung.',
  editionNoDifference: '„{{edition}}“ weicht in nichts ab. Ändern Sie etwas daran, oder entfernen Sie sie.',
  editionLostPart: '„{{edition}}“ ändert „{{name}}“, das nicht mehr im Formular steht. Entfernen Sie diese Abweichung.',
  editionShowsLost: '„{{edition}}“ zeigt Fragen, die nicht mehr im Formular stehen. Entfernen Sie sie aus der Liste.',
  editionHidesIt: '„{{edition}}“ ändert „{{name}}“ und blendet es zugleich aus. Entfernen Sie eines von beiden.',
  'editionIdle.required':
    '„{{edition}}“ verlangt „{{name}}“. Das tut das Formular schon selbst. Entfernen Sie diese Abweichung.',
  'editionIdle.spared':
    '„{{edition}}“ verlangt „{{name}}“ nicht. Das Formular auch nicht. Entfernen Sie diese Abweichung.',
  'editionIdle.worded': '„{{edition}}“ sagt zu „{{name}}“ dasselbe wie das Formular. Entfernen Sie diese Abweichung.',
  'editionIdle.locked':
    '„{{edition}}“ verlangt „{{name}}“ und sperrt es. Was sich nicht ausfüllen lässt, wird nicht verlangt. Entfernen Sie eines von beiden.',
  editionHidesRequired:
    '„{{edition}}“ blendet „{{name}}“ aus, das das Formular verlangt. Es bleibt dort leer. Geben Sie ihm eine Vorgabe, oder lassen Sie es im Formular.',
  editionLostPlace:
    '„{{edition}}“ stellt „{{name}}“ hinter etwas, das nicht mehr im Formular steht. Wählen Sie einen anderen Platz.',
  editionAddsTwice:
    '„{{edition}}“ fragt „{{name}}“, das jetzt das Formular selbst fragt. Entfernen Sie diese Abweichung.',
  buttonNoWords: '„{{edition}}“ hat einen Knopf ohne Aufschrift. Schreiben Sie, was darauf steht.',
  buttonNoList:
    '„{{label}}“ in „{{edition}}“ trägt in ein Feld ein, das nicht für mehrere Personen ist. Wählen Sie ein anderes Feld.',
  buttonNoPath:
    '„{{label}}“ in „{{edition}}“ beginnt einen Genehmigungsweg, den es nicht gibt. Wählen Sie einen anderen.',
  againMissesField:
    'Der Genehmigungsweg „{{path}}“ fragt erneut, wenn sich ein Feld ändert, das es nicht gibt. Entfernen Sie das Feld.',
  buttonNobody:
    '„{{label}}“ in „{{edition}}“ fragt ein Feld, das nicht für eine Person ist. Wählen Sie ein anderes Feld.',
  buttonNever:
    '„{{edition}}“ hat Knöpfe und gilt nur beim Ausfüllen, wo man sie nicht sieht. Wählen Sie auch einen Stand.',
  editionAddsLost:
    '„{{edition}}“ fragt nach einem Feld, das es nicht gibt. Die Antwort ginge verloren. Entfernen Sie die Frage.',
  editionAddsUnasked: '„{{edition}}“ fragt „{{name}}“, das kein Formular fragen kann. Entfernen Sie die Frage.',
  editionNoChoice:
    '„{{edition}}“ bietet Optionen von „{{name}}“ an, das keine Auswahl mehr ist. Entfernen Sie diese Abweichung.',
  editionOffersNone:
    '„{{edition}}“ lässt keine Option von „{{name}}“ übrig. Niemand könnte antworten. Fügen Sie eine Option hinzu.',
  editionOffersAll:
    '„{{edition}}“ bietet alle Optionen von „{{name}}“ an, wie das Formular. Entfernen Sie diese Abweichung.',
  editionOffersLost:
    '„{{edition}}“ bietet Optionen von „{{name}}“ an, die es nicht mehr gibt. Wählen Sie die Optionen neu.',
  editionCircle:
    'Die Vorgaben von „{{edition}}“ hängen im Kreis voneinander ab. Nichts würde ausgefüllt. Ändern Sie eine davon.',
  editionMissesStages:
    'Diese Fassungen unterscheiden Stände, und bei diesen wird keine vergeben: {{stages, list}}. Dort gilt das Formular, wie es ist. Fügen Sie diese Stände hinzu, wenn das falsch ist.',
  editionMissesOptions:
    'Die Fassungen unterscheiden, was „{{label}}“ ist, und bei diesen wird keine vergeben: {{options, list}}. Fügen Sie eine Bedingung hinzu, wenn das falsch ist.',
  updatesWhose: 'Dieses Formular ändert, was da ist, sagt aber nicht, wessen. Wählen Sie ein Feld für eine Person.',
  updatesNobody:
    'Was dieses Formular hinzufügt, würde niemandem gehören, weil es nicht nach „{{label}}“ fragt. Fügen Sie die Frage hinzu.',
  updatesOutside:
    '„{{label}}“ nennt Mitarbeitende. Außenstehende finden deshalb nichts Eigenes. Wählen Sie ein anderes Feld oder schließen Sie die Tür für Außenstehende.',
  updatesBy:
    'Dieses Formular sucht einen Eintrag nach „{{label}}“, fragt aber nicht danach. Fügen Sie die Frage hinzu oder suchen Sie nicht danach.',
  updatesByWhose:
    '„{{label}}“ sagt schon, wessen Eintrag es ist. Nehmen Sie es aus den Antworten heraus, nach denen der Eintrag gefunden wird.',
  updatesNothing:
    'Dieses Formular ändert, was da ist, fragt aber nach nichts, das sich ändern könnte. Fügen Sie eine Frage hinzu.',
  updatesStamp:
    'Der Tag der letzten Antwort braucht ein Datum, das nur die Stelle ausfüllt. Wählen Sie ein anderes Feld.',
  publicNames_one:
    'Anfragende von außerhalb lesen {{fields, names}} mit dem Namen, den Mitarbeitende benutzen. Geben Sie an, was sie lesen, oder lassen Sie sie diesen Namen lesen.',
  publicNames_other:
    'Anfragende von außerhalb lesen {{fields, names}} mit den Namen, die Mitarbeitende benutzen. Geben Sie an, was sie lesen, oder lassen Sie sie diese Namen lesen.',
  knownFromProfile:
    '„{{label}}“ fragt, was in den Profilen schon steht. Nutzen Sie das Profil als Vorgabe oder nehmen Sie die Frage heraus.',
  knownFromDoor:
    '„{{label}}“ fragt Personen von außen nach einer E-Mail-Adresse, und ihre eigene geben sie vor dem Senden ohnehin an. Nehmen Sie die Frage heraus oder machen Sie sie freiwillig.',
  notTranslated_one:
    '{{language}}: {{count}} Text ist nicht übersetzt. Gelesen wird er, wie er geschrieben ist. Geben Sie die Übersetzung ein.',
  notTranslated_other:
    '{{language}}: {{count}} Texte sind nicht übersetzt. Gelesen werden sie, wie sie geschrieben sind. Geben Sie die Übersetzungen ein.',
  termsNotTranslated_one:
    '{{language}}: {{count}} Begriff von „{{name}}“ ist nicht übersetzt. Gelesen wird er, wie er geschrieben ist. Geben Sie die Übersetzung beim Vokabular ein.',
  termsNotTranslated_other:
    '{{language}}: {{count}} Begriffe von „{{name}}“ sind nicht übersetzt. Gelesen werden sie, wie sie geschrieben sind. Geben Sie die Übersetzungen beim Vokabular ein.',
  translatedBefore_one:
    '{{language}}: {{count}} Text ist seit der Übersetzung ein anderer. Gelesen wird er, wie er geschrieben ist. Prüfen Sie die Übersetzung.',
  translatedBefore_other:
    '{{language}}: {{count}} Texte sind seit der Übersetzung andere. Gelesen werden sie, wie sie geschrieben sind. Prüfen Sie die Übersetzungen.',
  translatedBeyond_one:
    '{{language}}: {{count}} Übersetzung nennt ein Feld, das ihr Text nicht nennt. Gelesen wird der Text, wie er geschrieben ist. Entfernen Sie das Feld.',
  translatedBeyond_other:
    '{{language}}: {{count}} Übersetzungen nennen Felder, die ihre Texte nicht nennen. Gelesen werden die Texte, wie sie geschrieben sind. Entfernen Sie die Felder.',
  editionElsewhereStages:
    '„{{edition}}“ führt woandershin und wird nicht beim Ausfüllen gegeben. Wählen Sie „beim Ausfüllen“.',
  editionElsewhereHost:
    '„{{edition}}“ führt zu einer Adresse, die nicht erlaubt ist. Erlauben Sie ihren Host unter Grundlagen, Service-Desk, oder wählen Sie einen von diesen: {{hosts, list}}.',
  editionElsewhereItself: '„{{edition}}“ führt zu diesem Formular selbst. Wählen Sie ein anderes Formular.',
  editionElsewhereLost:
    '„{{edition}}“ führt zu einem Formular, das es nicht gibt oder das nicht in Gebrauch ist. Man bekäme dieses Formular. Wählen Sie ein anderes Formular.',
  editionElsewhereRound:
    '„{{edition}}“ führt vielleicht hierher zurück: {{forms, list}}. Wer im Kreis geht, bekommt dieses Formular. Ändern Sie eine der Fassungen.',
  deadlineTwice: 'Zwei Fristen heißen „{{name}}“. Geben Sie einer einen anderen Namen.',
  deadlineWrong: 'Wann die Frist „{{deadline}}“ gilt: {{message}}',
  deadlineFormula: 'Wie lang die Frist „{{deadline}}“ ist: {{message}}',
  deadlineNoNumber:
    'Die Formel der Frist „{{deadline}}“ ergibt keine Zahl. Nichts wäre fällig. Berichtigen Sie die Formel.',
  deadlineLostField:
    'Die Frist „{{deadline}}“ richtet sich nach einem Feld, das kein Datum enthält oder nicht existiert. Nichts wäre fällig. Wählen Sie ein anderes Feld.',
  deadlineTooLong:
    'Die Frist „{{deadline}}“ hat keine Länge oder eine von mehr als 400 Tagen. Geben Sie eine andere Länge an.',
  deadlineNeverLeft:
    'Die Frist „{{deadline}}“ endet, wenn ihre Stufen verlassen werden, beginnt aber mit der Anfrage. Wählen Sie Stufen, in denen sie beginnt, oder ein anderes Ende.',
  deadlineNoStage: 'Die Frist „{{deadline}}“ wartet auf eine Stufe, und keine ist gewählt. Wählen Sie eine Stufe.',
  deadlineLostStage: 'Die Frist „{{deadline}}“ nennt eine Stufe, die es nicht gibt. Wählen Sie eine andere Stufe.',
  ringTooFar: 'Die Frist „{{deadline}}“ tut etwas in mehr als 400 Tagen Abstand. Wählen Sie eine kürzere Zeit.',
  ringLostGroup:
    'Die Frist „{{deadline}}“ nennt eine Gruppe, die es nicht gibt. Niemand würde davon erfahren. Wählen Sie eine andere Gruppe.',
  ringLostRoster:
    'Die Frist „{{deadline}}“ benachrichtigt den Dienst eines Dienstplans, den es nicht gibt. Wählen Sie einen anderen Dienstplan.',
  ringLostField:
    'Die Frist „{{deadline}}“ benachrichtigt, wen ein Feld nennt, und das Feld ist nicht für eine Person. Wählen Sie ein anderes Feld.',
  ringLostPath:
    'Die Frist „{{deadline}}“ beginnt einen Genehmigungsweg, den es nicht gibt. Wählen Sie einen anderen Weg.',
  ringIdle:
    'Zu einer ihrer Zeiten benachrichtigt die Frist „{{deadline}}“ niemanden und tut nichts. Wählen Sie, wer benachrichtigt wird, oder entfernen Sie die Zeit.',
};
