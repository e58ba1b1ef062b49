import { find } from 'linkifyjs';

/** Schemes that a link may lead by. */
const OPEN = /^(https?|mailto):/;

/** A text in which addresses of pages and mailboxes can be followed. */
export default function Linked({ text }: { text: string }) {
  const links = find(text).filter(({ href }) => OPEN.test(href));
  let at = 0;
  const pieces = links.flatMap(({ start, end, href, value }) => {
    const before = text.slice(at, start);
    at = end;
    return [
      before,
      <a key={start} href={href} rel="noreferrer" target={href.startsWith('mailto:') ? undefined : '_blank'}>
        {value}
      </a>,
    ];
  });
  return [...pieces, text.slice(at)];
}
