/** Headers of an email by their names in small letters, each as it was written. */
export type Headers = ReadonlyMap<string, string>;

/** Mail that programs send to many, or by themselves, as its `Precedence` says; no standard, and in use since long before there was one. */
const BULK = new Set(['bulk', 'junk', 'list', 'auto_reply']);

/**
 * Whether somebody wrote an email, a program did, or it tells that another one could not be delivered.
 * Nothing that a program wrote is ever answered, or taken for words of whoever is named as its sender.
 * Sources: RFC 3834 (`Auto-Submitted`, the empty way back), RFC 3464 (reports on delivery),
 * RFC 8098 (reports on reading), RFC 2919 (`List-Id`).
 *
 * @param wayBack the address that undeliverable mail would go to; empty for mail that must not be answered
 */
export function kindOfEmail(headers: Headers, wayBack: string): 'written' | 'automatic' | 'undelivered' {
  const type = headers.get('content-type')?.toLowerCase() ?? '';
  if (type.startsWith('multipart/report'))
    return type.includes('delivery-status') && !type.includes('disposition') ? 'undelivered' : 'automatic';
  const submitted = wordIn(headers.get('auto-submitted'));
  if (submitted !== '' && submitted !== 'no') return 'automatic';
  if (wayBack === '' || headers.has('list-id')) return 'automatic';
  return BULK.has(wordIn(headers.get('precedence'))) ? 'automatic' : 'written';
}

/** What a header says before its parameters and comments. */
const wordIn = (value: string | undefined): string => (value?.split(/[;(]/, 1)[0] ?? '').trim().toLowerCase();

/** An email that could not be delivered: by its Message-ID, with what the mail server says. */
export interface Undelivered {
  readonly messageId: string;
  readonly reason: string;
}

/**
 * What a report on delivery says of the email that it is about; null where it tells of no final failure, or does not
 * name the email (RFC 3464, 2.1 and 2.3; what is said after folded lines counts to the line before: RFC 5322, 2.2.3).
 *
 * @param parts its parts, in order, by their media type
 */
export function failedDelivery(
  parts: readonly { readonly media: string; readonly text: string }[],
): Undelivered | null {
  const report = parts.find(({ media }) => media === 'message/delivery-status');
  const returned = parts.find(({ media }) => media === 'message/rfc822' || media === 'text/rfc822-headers');
  if (!report || !returned) return null;
  const messageId = fieldsIn(returned.text)[0]?.get('message-id');
  const failed = fieldsIn(report.text).find((about) => about.get('action')?.toLowerCase() === 'failed');
  if (!messageId || !failed) return null;
  const said = [failed.get('diagnostic-code')?.replace(/^[\w-]+;\s*/, ''), failed.get('status')];
  return { messageId, reason: said.find((each) => each) ?? '' };
}

/** Fields in blocks that empty lines part, by their names in small letters. */
function fieldsIn(text: string): readonly ReadonlyMap<string, string>[] {
  const unfolded = text.replace(/\r\n?/g, '\n').replace(/\n[ \t]+/g, ' ');
  return unfolded.split(/\n{2,}/).map(
    (block) =>
      new Map(
        block.split('\n').flatMap((line) => {
          const colon = line.indexOf(':');
          return colon < 1 ? [] : [[line.slice(0, colon).trim().toLowerCase(), line.slice(colon + 1).trim()] as const];
        }),
      ),
  );
}
