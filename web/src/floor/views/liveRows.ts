import type { AnswerOf } from '@tolvek/contract';

type Looked = AnswerOf<'lookThrough'>;
type Row = Looked['rows'][number];
type Again = AnswerOf<'lookAgain'>;

/** What is known of a view since its rows were read: numbers of those that came and went, and where others stand by now. */
export interface Heard {
  readonly came: readonly string[];
  readonly gone: readonly string[];
  readonly stands: Readonly<Record<string, string>>;
  /** More has changed than is asked for one by one. */
  readonly isMuch: boolean;
}
export const NOTHING_HEARD: Heard = { came: [], gone: [], stands: {}, isMuch: false };

/** Where a row stands: in which group, and where there. */
const placeOf = ({ group, stands }: Pick<Row, 'group' | 'stands'>): string => `${group} ${stands}`;

/** What is known once some were asked for again. `asked`: their numbers; `found`: those that are in the view by now, and which of them come after the end of what is seen. */
export function heardOf(
  before: Heard,
  asked: readonly string[],
  { rows: found, later }: Again,
  loaded: ReadonlySet<string>,
): Heard {
  const isLater = new Set(later);
  const isAsked = new Set(asked);
  const isFound = new Set(found.map(({ number }) => number));
  const others = (numbers: readonly string[]): readonly string[] => numbers.filter((each) => !isAsked.has(each));
  return {
    came: [
      ...others(before.came),
      ...found.filter(({ number }) => !loaded.has(number) && !isLater.has(number)).map(({ number }) => number),
    ],
    gone: [...others(before.gone), ...asked.filter((each) => loaded.has(each) && !isFound.has(each))],
    stands: { ...before.stands, ...Object.fromEntries(found.map((row) => [row.number, placeOf(row)])) },
    isMuch: before.isMuch,
  };
}

/** How many came, went, and stand elsewhere than where they are seen: of what was read again since, nothing is told. */
export function sinceOf(
  { came, gone, stands, isMuch }: Heard,
  rows: readonly Pick<Row, 'number' | 'group' | 'stands'>[],
) {
  const loaded = new Set(rows.map(({ number }) => number));
  const away = new Set(gone.filter((each) => loaded.has(each)));
  return {
    came: came.filter((each) => !loaded.has(each)).length,
    away,
    moved: rows.filter((row) => !away.has(row.number) && (stands[row.number] ?? placeOf(row)) !== placeOf(row)).length,
    isMuch,
  };
}

/** Rows with what some of them say by now: each stays where it is seen. */
export const withNews = (rows: readonly Row[], found: readonly Row[]): Row[] => {
  const news = new Map(found.map((each) => [each.number, each]));
  return rows.map((row) => {
    const again = news.get(row.number);
    if (!again || again.version < row.version) return row;
    return { ...again, group: row.group, stands: row.stands };
  });
};
