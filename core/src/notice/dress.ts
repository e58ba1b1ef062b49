import type { Letter, LetterItem } from './letter.ts';

/** A subject on one line, as the header of an email needs it. */
export const subjectLine = (subject: string): string => subject.replace(/[\r\n]+/g, ' ');

export interface DressedLetter {
  readonly text: string;
  readonly html: string;
}

/** What an email carries besides its letter: how the desk signs, its colour, and the language it is written in (BCP 47). */
export interface Envelope {
  readonly signature: string;
  readonly language: string;
  /** Of the button: six digits in hexadecimal after `#`. */
  readonly colour: string;
  /** Where one of several things leads. */
  readonly urlOf?: (item: LetterItem) => string;
}

/** A letter as plain text and as HTML that says the same. `url`: where its button leads. */
export function dressLetter(
  letter: Letter,
  url: string,
  { signature, language, colour, urlOf }: Envelope,
): DressedLetter {
  const { greeting, paragraphs, facts, action, reply = '' } = letter;
  const items = (letter.items ?? []).map((item) => ({ words: item.words, url: urlOf?.(item) ?? url }));
  const text = [
    greeting,
    ...paragraphs,
    items.map((item) => `- ${item.words}\n  ${item.url}`).join('\n'),
    facts.map((fact) => `${fact.label}: ${fact.shown}`).join('\n'),
    `${action.label}:\n${url}${action.note ? `\n${action.note}` : ''}`,
    reply,
    signature,
  ];
  const html = [
    `<p>${escaped(greeting)}</p>`,
    ...paragraphs.map((paragraph) => `<p>${escaped(paragraph)}</p>`),
    items.length > 0
      ? `<ul style="padding-left:20px">${items
          .map(
            (item) =>
              `<li style="margin:6px 0"><a href="${escaped(item.url)}" style="color:${colour}">${escaped(item.words)}</a></li>`,
          )
          .join('')}</ul>`
      : '',
    facts.length > 0
      ? `<table cellpadding="0" cellspacing="0" style="border-collapse:collapse;margin:12px 0">${facts
          .map(
            (fact) =>
              `<tr><td style="padding:5px 18px 5px 0;border-bottom:1px solid #ddd4c2;color:#5a645e;vertical-align:top">${escaped(fact.label)}</td><td style="padding:5px 0;border-bottom:1px solid #ddd4c2">${escaped(fact.shown)}</td></tr>`,
          )
          .join('')}</table>`
      : '',
    `<p style="margin:20px 0 6px"><a href="${escaped(url)}" style="display:inline-block;background:${colour};color:#fffdf8;padding:9px 16px;border-radius:3px;text-decoration:none;font-weight:600">${escaped(action.label)}</a></p>${action.note ? `<p style="color:#5a645e;font-size:14px">${escaped(action.note)}</p>` : ''}`,
    reply ? `<p style="color:#5a645e;font-size:14px">${escaped(reply)}</p>` : '',
    `<p style="color:#5a645e">${escaped(signature)}</p>`,
  ];
  const body = html.filter(Boolean).join('\n');
  return {
    text: `${text.filter(Boolean).join('\n\n')}\n`,
    html: `<!doctype html><html lang="${language}"><body style="font:16px/1.5 sans-serif;color:#1f2926;background:#fffdf8;padding:20px;max-width:40rem">\n${body}\n</body></html>`,
  };
}

const escaped = (text: string): string =>
  // Most texts have none of these.
  !/[&<>"'\n]/.test(text)
    ? text
    : text
        .replace(
          /[&<>"']/g,
          (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[sign] ?? sign,
        )
        .replace(/\n/g, '<br>');
