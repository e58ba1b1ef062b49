import type { Letter } from './letter.ts';

export interface DressedLetter {
  readonly subject: string;
  readonly text: string;
  readonly html: string;
}

/** A letter as plain text and as HTML that says the same. The signature is the desk's name. */
export function dressLetter(letter: Letter, signature: string): DressedLetter {
  const { subject, greeting, paragraphs, facts, action } = letter;
  const text = [
    greeting,
    ...paragraphs,
    facts.map((fact) => `${fact.label}: ${fact.shown}`).join('\n'),
    action ? `${action.label}:\n${action.url}${action.note ? `\n${action.note}` : ''}` : '',
    signature,
  ];
  const html = [
    `<p>${escaped(greeting)}</p>`,
    ...paragraphs.map((paragraph) => `<p>${escaped(paragraph)}</p>`),
    facts.length > 0
      ? `<table cellpadding="0" cellspacing="0" style="border-collapse:collapse;margin:12px 0">${facts
          .map(
            (fact) =>
              `<tr><td style="padding:5px 18px 5px 0;border-bottom:1px solid #ddd4c2;color:#5a645e;vertical-align:top">${escaped(fact.label)}</td><td style="padding:5px 0;border-bottom:1px solid #ddd4c2">${escaped(fact.shown)}</td></tr>`,
          )
          .join('')}</table>`
      : '',
    action
      ? `<p style="margin:20px 0 6px"><a href="${escaped(action.url)}" style="background:#1c5443;color:#fffdf8;padding:9px 16px;border-radius:3px;text-decoration:none;font-weight:600">${escaped(action.label)}</a></p>${action.note ? `<p style="color:#5a645e;font-size:14px">${escaped(action.note)}</p>` : ''}`
      : '',
    `<p style="color:#5a645e">${escaped(signature)}</p>`,
  ];
  const body = html.filter(Boolean).join('\n');
  return {
    subject: subject.replace(/[\r\n]+/g, ' '),
    text: `${text.filter(Boolean).join('\n\n')}\n`,
    html: `<!doctype html><html lang="en"><body style="font:16px/1.5 sans-serif;color:#1f2926;background:#fffdf8;padding:20px;max-width:40rem">\n${body}\n</body></html>`,
  };
}

const escaped = (text: string): string =>
  text
    .replace(
      /[&<>"']/g,
      (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[sign] ?? sign,
    )
    .replace(/\n/g, '<br>');
