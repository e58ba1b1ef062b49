import type { AnswerOf } from '@tolvek/contract';
import { said } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import { wrongFields } from '../platform/problem.ts';

/** Years that are asked for at once, at most. */
const MOST_YEARS = 10;

/** The days are loaded when somebody first asks: they take a while to read. */
const load = async () => (await import('date-holidays')).default;

const byName = <T extends { readonly name: string }>(all: T[]): T[] => all.sort((a, b) => a.name.localeCompare(b.name));

const listed = (names: Readonly<Record<string, string>> | undefined) =>
  byName(Object.entries(names ?? {}).map(([code, name]) => ({ code, name })));

/** The countries whose public holidays are known, with their regions. */
export async function countriesIn(language: Language): Promise<AnswerOf<'countries'>['countries']> {
  const Holidays = await load();
  const all = new Holidays();
  return byName(
    listed(all.getCountries(language)).map(({ code, name }) => ({
      ...{ code, name },
      regions: listed(all.getStates(code, language)),
    })),
  );
}

/** Public holidays over some years, by day; each once. @throws Problem 422 for a country that is not known. */
export async function holidaysOf({
  country,
  region,
  from,
  to,
  language,
}: {
  readonly country: string;
  readonly region?: string | undefined;
  readonly from: number;
  readonly to: number;
  readonly language: Language;
}): Promise<AnswerOf<'holidays'>['holidays']> {
  const Holidays = await load();
  const all = new Holidays();
  const isKnown = country in (all.getCountries() ?? {}) && (!region || region in (all.getStates(country) ?? {}));
  if (!isKnown)
    throw wrongFields([
      { field: 'country', message: said('calendars:noCountry'), fix: said('calendars:chooseCountry') },
    ]);
  if (region) all.init(country, region);
  else all.init(country);
  const days = new Map<string, string>();
  for (let year = from; year <= Math.min(to, from + MOST_YEARS - 1); year += 1)
    for (const { date, name, type } of all.getHolidays(year, language))
      if (type === 'public' && !days.has(date.slice(0, 10))) days.set(date.slice(0, 10), name);
  return [...days].map(([date, name]) => ({ date, name })).sort((a, b) => (a.date < b.date ? -1 : 1));
}
