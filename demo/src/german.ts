import { translated } from '@tolvek/core/design';
import { type FormDesign, spokenAlso, textsToTranslate, withTranslation } from '@tolvek/core/form';
import type { Stage } from '@tolvek/core/register';

/** What site access says in German; names of institutes stay as they are. */
const SITE_ACCESS: Readonly<Record<string, string>> = {
  'Come on site': 'Auf die Station kommen',
  Visits: 'Besuche',
  'For visitors and contractors. Ask at least two days ahead; we answer within the working days shown when you send it.':
    'Für Gäste und Fremdfirmen. Fragen Sie wenigstens zwei Tage vorher an; wir antworten in den Arbeitstagen, die beim Senden genannt werden.',
  'Who is coming?': 'Wer kommt?',
  'First and last name, as on their identity card.': 'Vor- und Nachname, wie im Ausweis.',
  Visitor: 'Gast',
  'Where are they from?': 'Woher kommt die Person?',
  Institute: 'Institut',
  'Guest of the station': 'Gast der Station',
  'Invited by a colleague': 'Eingeladen von jemandem hier',
  'Another institute or firm': 'Ein anderes Institut, eine andere Firma',
  'What do they come for?': 'Wozu kommt die Person?',
  'A sentence is enough: the work, the place, who expects them.':
    'Ein Satz genügt: die Arbeit, der Ort, wer sie erwartet.',
  Reason: 'Anlass',
  'First day on site': 'Erster Tag auf der Station',
  Arrival: 'Ankunft',
  'Last day on site': 'Letzter Tag auf der Station',
  Departure: 'Abreise',
  'Will they work on the water?': 'Wird auf dem Wasser gearbeitet?',
  'On board, on the pontoon, or diving.': 'An Bord, auf dem Ponton oder tauchend.',
  'Works on water': 'Arbeit auf dem Wasser',
  'Until when is their sea survival certificate valid?': 'Bis wann gilt das Zeugnis „Überleben auf See“?',
  'It has to cover the last day on site.': 'Es muss am letzten Tag noch gelten.',
  'Sea survival certificate valid until': 'Zeugnis „Überleben auf See“ gültig bis',
  'Fee in EUR': 'Entgelt in EUR',
  'What they charge the station for the visit; leave it empty when there is none.':
    'Was der Station für den Besuch berechnet wird; leer lassen, wenn es keines gibt.',
  Fee: 'Entgelt',
  'Anything medical we should know?': 'Gibt es Medizinisches, das wir wissen sollten?',
  'Only the site safety officers and you can read this.': 'Das lesen nur die Sicherheitsbeauftragten und Sie.',
  'Medical note': 'Medizinische Notiz',
  'Come and work on site': 'Auf der Station arbeiten',
  'For firms that work here. Ask at least two days ahead, and send one request for each person.':
    'Für Firmen, die hier arbeiten. Fragen Sie wenigstens zwei Tage vorher an, für jede Person einzeln.',
  'Which works, and who ordered them?': 'Welche Arbeiten, und wer hat sie bestellt?',
  'Name the order, and the tools or machines you bring.':
    'Nennen Sie die Bestellung und die Werkzeuge oder Maschinen, die Sie mitbringen.',
  'What you charge for the work, without tax.': 'Was Sie für die Arbeit berechnen, ohne Steuer.',
  'The gate opens at 07:30. Works on the roof or with open fire need a permit: write to Estates before you come.':
    'Das Tor öffnet um 07:30. Arbeiten auf dem Dach oder mit offenem Feuer brauchen eine Erlaubnis: Schreiben Sie vorher an Estates.',
  'Which project, and who here do you work with?': 'Welches Projekt, und mit wem hier arbeiten Sie?',
  'Name the project and the instruments you bring.': 'Nennen Sie das Projekt und die Geräte, die Sie mitbringen.',
  'For your guests. Ask at least two days ahead; you hear from us within the working days shown when you send it.':
    'Für Ihre Gäste. Fragen Sie wenigstens zwei Tage vorher an; Sie hören von uns in den Arbeitstagen, die beim Senden genannt werden.',
  'Whom do you expect?': 'Wen erwarten Sie?',
};

const STAGES: Readonly<Record<string, string>> = {
  'We have it': 'Ist bei uns',
  'Being decided': 'Wird entschieden',
  'In hand': 'In Arbeit',
  'Waiting for papers from you': 'Wartet auf Papiere von Ihnen',
  Done: 'Erledigt',
  'Not approved': 'Nicht genehmigt',
};

/** Site access as it is read in German as well. */
export const inGermanToo = (design: FormDesign): FormDesign =>
  textsToTranslate(design).reduce(
    (form, text) => withTranslation(form, text, 'de', SITE_ACCESS[text.text] ?? text.text),
    spokenAlso(design, 'de', true),
  );

/** Stages whose requesters read them in German as well. */
export const stagesInGermanToo = (stages: readonly Stage[]): readonly Stage[] =>
  stages.map((stage) => ({
    ...stage,
    translations: translated(
      stage.translations,
      'de',
      { place: 'public', text: stage.publicLabel },
      STAGES[stage.publicLabel] ?? '',
    ),
  }));
