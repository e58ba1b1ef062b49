import type Sqlite from 'better-sqlite3';

/** Places that amounts of a currency were kept with, when this step was written. */
const WAS: Readonly<Record<string, number>> = { JPY: 0, KWD: 3, BHD: 3 };

/** Places by ISO 4217, as the platform knows them; two for a code that it doesn’t. */
const IS = new Map<string, number>();
function placesOf(currency: string): number {
  let places = IS.get(currency);
  if (places === undefined) {
    try {
      places =
        new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2;
    } catch {
      places = 2;
    }
    IS.set(currency, places);
  }
  return places;
}

/** An amount in the minor units it has from now on: rounded where a currency has none for what there was. */
const renewed = (minor: number, currency: string): number =>
  Math.round(minor * 10 ** (placesOf(currency) - (WAS[currency] ?? 2)));

/** Everything in it that is an amount, or limits amounts, renewed. */
export function withPlaces(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withPlaces);
  if (typeof value !== 'object' || value === null) return value;
  const all = Object.fromEntries(Object.entries(value).map(([key, each]) => [key, withPlaces(each)]));
  const { minor, currency, kind } = all;
  if (typeof currency !== 'string') return all;
  if (typeof minor === 'number') return { ...all, minor: renewed(minor, currency) };
  if (kind !== 'money') return all;
  const limits = (['least', 'most'] as const).flatMap((name) => {
    const limit = all[name];
    return typeof limit === 'number' ? [[name, renewed(limit, currency)] as const] : [];
  });
  return { ...all, ...Object.fromEntries(limits) };
}

const PLACES_OF = [
  ['requests', '"values"'],
  ['history', 'changes'],
  ['history', 'data'],
  ['rule_run_changes', 'changes'],
  ['designs', 'draft'],
  ['design_states', 'content'],
  ['draft_states', 'draft'],
] as const;

/**
 * Amounts are kept in the minor units their currency really has, in requests, histories and designs:
 * all but three were kept with two places. What no two may have is claimed anew where amounts changed.
 */
export function placesOfCurrencies(db: Sqlite.Database): void {
  let changed = 0;
  for (const [table, column] of PLACES_OF) {
    const update = db.prepare(`update ${table} set ${column} = ? where rowid = ?`);
    const page = db.prepare(
      `select rowid, ${column} as text from ${table} where rowid > ? and ${column} like '%"currency":"%' order by rowid limit 1000`,
    );
    for (let last = 0; ; ) {
      const rows = page.all(last) as { rowid: number; text: string }[];
      for (const { rowid, text } of rows) {
        const named = [...text.matchAll(/"currency":"([A-Z]{3})"/g)].map(([, code = '']) => code);
        if (named.every((code) => placesOf(code) === (WAS[code] ?? 2))) continue;
        update.run(JSON.stringify(withPlaces(JSON.parse(text))), rowid);
        changed += 1;
      }
      const end = rows.at(-1);
      if (!end) break;
      last = end.rowid;
    }
  }
  if (changed > 0) db.prepare("delete from settings where key = 'claims-of-all'").run();
}
