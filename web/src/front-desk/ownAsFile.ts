import { instantsOf } from '@tolvek/core/deadline';
import type { Words } from '@tolvek/words';
import ICAL from 'ical.js';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';

/** A request as its owner reads it, as far as they take it along. */
export interface Own {
  readonly number: string;
  readonly form: string;
  readonly subject: Words;
  readonly stage: string;
  readonly sentAt: string;
  readonly promise: Words | null;
  readonly values: {
    readonly fields: readonly { readonly key: string; readonly label: string; readonly shown: Words }[];
  };
  /** Its days and moments, on the clock of the desk (ISO 8601). */
  readonly dates: readonly { readonly key: string; readonly label: string; readonly at: string }[];
  readonly messages: readonly {
    readonly at: string;
    readonly from: string;
    readonly mine: boolean;
    readonly text: string;
  }[];
}

interface Spoken {
  readonly told: (words: Words) => string;
  /** The heads of the two lists, and a line over a message. */
  readonly answers: string;
  readonly messages: string;
  readonly messageBy: (message: Own['messages'][number]) => string;
  readonly sentOn: string;
}

/** A request on paper: what it is, where it stands, what was sent, and what was written about it. */
export function asDocument(request: Own, { told, ...spoken }: Spoken): TDocumentDefinitions {
  const shown = request.values.fields.map(({ label, shown: words }) => [label, told(words)] as const);
  const answers = shown.filter(([, text]) => text !== '');
  const head = (text: string): Content => ({ text, style: 'head' });
  return {
    info: { title: `${request.number} ${told(request.subject)}` },
    pageSize: 'A4',
    pageMargins: [56, 56, 56, 64],
    content: [
      { text: `${request.number} · ${request.form}`, color: '#555555' },
      { text: told(request.subject), style: 'title' },
      { text: [request.stage, request.promise ? ` · ${told(request.promise)}` : ''] },
      { text: spoken.sentOn, color: '#555555', margin: [0, 2, 0, 0] },
      head(spoken.answers),
      {
        layout: 'lightHorizontalLines',
        table: {
          widths: ['34%', '*'],
          body: answers.map(([label, text]) => [{ text: label, color: '#555555' }, text]),
        },
      },
      ...(request.messages.length === 0
        ? []
        : [
            head(spoken.messages),
            ...request.messages.flatMap((message): Content[] => [
              { text: spoken.messageBy(message), color: '#555555', margin: [0, 6, 0, 0] },
              message.text,
            ]),
          ]),
    ],
    footer: (page, pages) => ({
      text: `${request.number} · ${page}/${pages}`,
      alignment: 'center',
      color: '#555555',
      fontSize: 9,
    }),
    styles: {
      title: { fontSize: 20, margin: [0, 4, 0, 8] },
      head: { fontSize: 12, bold: true, margin: [0, 18, 0, 4] },
    },
    defaultStyle: { fontSize: 10.5, lineHeight: 1.2 },
  };
}

/**
 * The days and moments of a request as iCalendar (RFC 5545): whole days as days, moments as such. `zone`: of the desk;
 * `link`: the page of the request; `now`: epoch ms.
 */
export function asCalendar(
  request: Pick<Own, 'number' | 'subject' | 'dates'>,
  {
    zone,
    link,
    now,
    told,
  }: { readonly zone: string; readonly link: string; readonly now: number } & Pick<Spoken, 'told'>,
): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', '-//Tolvek//Request//EN');
  for (const { key, label, at } of request.dates) {
    const event = new ICAL.Component('vevent');
    const start =
      at.length > 10
        ? ICAL.Time.fromJSDate(new Date(instantsOf(at.slice(0, 16), zone)[0] ?? Date.parse(`${at}Z`)), true)
        : ICAL.Time.fromDateString(at);
    event.updatePropertyWithValue('uid', `${request.number}-${key}@${new URL(link).host}`);
    event.updatePropertyWithValue('dtstamp', ICAL.Time.fromJSDate(new Date(now), true));
    event.updatePropertyWithValue('dtstart', start);
    event.updatePropertyWithValue('summary', `${told(request.subject)}: ${label}`);
    event.updatePropertyWithValue('description', request.number);
    event.updatePropertyWithValue('url', link);
    calendar.addSubcomponent(event);
  }
  return calendar.toString();
}

/** Makes the pages of a document; what does it is large, and is fetched only then. */
export async function printed(document: TDocumentDefinitions): Promise<Blob> {
  const [{ default: pdf }, { default: fonts }] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
  ]);
  pdf.addVirtualFileSystem(fonts);
  return pdf.createPdf(document).getBlob();
}
