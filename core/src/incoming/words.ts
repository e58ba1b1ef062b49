/** What is known of an answer besides its words. */
interface Around {
  /** The email that it answers, as plain text; empty where it is not kept any more. */
  readonly answers: string;
  /** The address that it came to. */
  readonly address: string;
}

type Sort = 'own' | 'blank' | 'quoted';

/** Lines that are shorter stand in many emails by chance: they are known again beside longer ones. */
const KNOWN_LENGTH = 12;
/** Lines of a header before what is quoted without a mark. */
const HEADER_LINES = 3;

/**
 * What is new in an answer: without the email it answers, the line that says whose it was, and the signature. What is
 * answered piece by piece stays between the answers. Empty where nothing is new.
 * Quoted lines begin with `>` (RFC 3676, 4.5), or stand in the email that is answered, or follow a header of several
 * lines that names its address; a signature follows `-- ` (RFC 3676, 4.3).
 */
export function newWords(text: string, { answers, address }: Around): string {
  const lines = text
    .replace(/\r\n?/g, '\n')
    .replace(/\u00a0/g, ' ')
    .split('\n')
    .map((line) => line.trimEnd());
  const known = new Set(answers.split('\n').map(bare).filter(Boolean));
  const sorts = lines.map((line): Sort => {
    if (line.trim() === '') return 'blank';
    return /^\s*>/.test(line) || (isLong(bare(line)) && known.has(bare(line))) ? 'quoted' : 'own';
  });
  const isKnown = (at: number): boolean => sorts[at] === 'own' && known.has(bare(lines[at] ?? ''));
  for (const way of [1, -1]) spread(sorts, way, isKnown);
  cutHeader(lines, sorts, address);
  cutSignature(lines, sorts);
  cutAttribution(lines, sorts, address);
  return shown(lines, sorts);
}

const bare = (line: string): string =>
  line
    .replace(/[\s>*_|]+/g, ' ')
    .trim()
    .toLowerCase();
const isLong = (line: string): boolean => line.length >= KNOWN_LENGTH;

/** Goes on with what is quoted in one direction, over empty lines, as far as lines are known. */
function spread(sorts: Sort[], way: number, isKnown: (at: number) => boolean): void {
  let isQuoted = false;
  for (let at = way > 0 ? 0 : sorts.length - 1; at >= 0 && at < sorts.length; at += way) {
    if (isQuoted && isKnown(at)) sorts[at] = 'quoted';
    if (sorts[at] !== 'blank') isQuoted = sorts[at] === 'quoted';
  }
}

/** What stands below a header with the address of the desk is the email that is answered. */
function cutHeader(lines: readonly string[], sorts: Sort[], address: string): void {
  const isField = (line: string): boolean => /^\s*\*?\p{L}[\p{L} .-]{0,24}\s?:\*?\s/u.test(`${line} `);
  for (let first = 0; first < lines.length; first += 1) {
    if (!isField(lines[first] ?? '')) continue;
    let end = first;
    while (end < lines.length && isField(lines[end] ?? '')) end += 1;
    const names = lines.slice(first, end).some((line) => line.toLowerCase().includes(address.toLowerCase()));
    if (end - first >= HEADER_LINES && names) {
      const isRule = /^\s*[-_*=]{3,}/.test(lines[first - 1] ?? '');
      sorts.fill('quoted', isRule ? first - 1 : first);
      return;
    }
    first = end;
  }
}

/** A signature goes up to what is quoted below it. */
function cutSignature(lines: readonly string[], sorts: Sort[]): void {
  const from = lines.findIndex((line, at) => sorts[at] === 'own' && /^--\s*$/.test(line));
  if (from < 0) return;
  const end = sorts.indexOf('quoted', from);
  sorts.fill('blank', from, end < 0 ? sorts.length : end);
}

/** Most lines that say whose the quoted words are, as programs break them. */
const ATTRIBUTION_LINES = 3;
/** A time of day, as people write it. */
const TIME = /\d{1,2}[:.]\d{2}/;

/** The line before what is quoted that says whose it was and when: it ends with a colon, and names the address or a time. */
function cutAttribution(lines: readonly string[], sorts: Sort[], address: string): void {
  for (let at = 1; at < lines.length; at += 1) {
    if (sorts[at] !== 'quoted' || sorts[at - 1] === 'quoted') continue;
    let last = at - 1;
    while (last >= 0 && sorts[last] === 'blank') last -= 1;
    if (!/:\s*$/.test(lines[last] ?? '')) continue;
    let first = last;
    while (first > 0 && sorts[first - 1] === 'own' && last - first + 1 < ATTRIBUTION_LINES) first -= 1;
    // The fewest lines that say it: what stands above may be the answer.
    const says = (from: number): boolean => {
      const words = lines.slice(from, last + 1).join(' ');
      return words.toLowerCase().includes(address.toLowerCase()) || TIME.test(words);
    };
    let from = last;
    while (from >= first && !says(from)) from -= 1;
    if (from < first) continue;
    if (from > first && TIME.test(lines[from - 1] ?? '') && !/[.!?]\s*$/.test(lines[from - 1] ?? '')) from -= 1;
    sorts.fill('quoted', from, last + 1);
  }
}

/** The own words, with what is quoted between them. */
function shown(lines: readonly string[], sorts: readonly Sort[]): string {
  const first = sorts.indexOf('own');
  if (first < 0) return '';
  const last = sorts.lastIndexOf('own');
  const isBetween = sorts.slice(first, last).includes('quoted');
  let from = first;
  // Who answers piece by piece begins with what they answer first: its last paragraph.
  if (isBetween) while (from > 0 && sorts[from - 1] !== 'own' && !/^[\s>]*$/.test(lines[from - 1] ?? '')) from -= 1;
  const kept = lines.slice(from, last + 1).filter((_, at) => {
    const sort = sorts[from + at];
    return sort !== 'blank' || lines[from + at] === '';
  });
  return kept
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

/**
 * Words without addresses of the desk: links of ours in quoted emails open requests for whoever has them. They are found
 * as well inside of addresses that lead there by way of another program.
 *
 * @param url the address of the application
 */
export function withoutLinks(text: string, url: string): string {
  const { host } = new URL(url);
  return text.replace(/[\w+.-]+:\/\/[^\s<>"']+/g, (found) => (holds(found, host) ? '[…]' : found));
}

/** Whether an address holds a host, however often it is encoded. */
function holds(found: string, host: string): boolean {
  let text = found;
  for (let times = 0; times < 5; times += 1) {
    if (text.toLowerCase().includes(host.toLowerCase())) return true;
    const decoded = text.replace(/%([0-9a-f]{2})/gi, (_, hex) => String.fromCharCode(Number.parseInt(hex, 16)));
    if (decoded === text) return false;
    text = decoded;
  }
  return true;
}
