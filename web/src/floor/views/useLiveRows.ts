import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useDispatch } from 'react-redux';
import { viewsApi } from './endpoints.ts';
import { type Heard, heardOf, NOTHING_HEARD, sinceOf, withNews } from './liveRows.ts';

/** How many are asked for one by one at most: of more it is only said that much has changed. */
const MOST = 100;
/** How long sums and counts may be older than the rows, ms. */
const SUMS_AFTER = 8_000;

type Asked = Pick<BodyOf<'lookThrough'>, 'view' | 'picture'>;
type Page = AnswerOf<'lookThrough'>;

/**
 * Keeps the rows of a view as they are by now: each that has changed is asked for by itself and stays where it is seen; what
 * came, went or stands elsewhere is only said, until it is asked for.
 */
export function useLiveRows(asked: Asked, pages: readonly Page[]) {
  const dispatch = useDispatch();
  const [heard, setHeard] = useState<Heard>(NOTHING_HEARD);
  const [lookAgain] = viewsApi.useLazyLookAgainQuery();
  const [addUp, { isFetching, isUninitialized }] = viewsApi.useLazyAddUpViewQuery();
  const rows = useMemo(() => pages.flatMap((page) => page.rows), [pages]);
  const latest = useRef({ asked, pages, rows });
  latest.current = { asked, pages, rows };
  const summing = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const forget = useCallback((): void => setHeard(NOTHING_HEARD), []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was heard is of the view that is looked at
  useEffect(() => {
    forget();
    return () => {
      clearTimeout(summing.current);
      summing.current = undefined;
    };
  }, [asked, forget]);
  const sum = async (): Promise<void> => {
    const of = latest.current.asked;
    const { data } = await addUp({ body: { view: of.view } });
    if (data && latest.current.asked === of) change(of, ([first]) => first && Object.assign(first, data));
  };
  const sumSoon = (): void => {
    summing.current ??= setTimeout(() => {
      summing.current = undefined;
      void sum();
    }, SUMS_AFTER);
  };
  // The rows are there at once; of very many, how many they are and what they add up to comes after them.
  const isMany = pages[0]?.more === true;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each view that is looked at
  useEffect(() => {
    if (isMany) void sum();
  }, [isMany, asked]);
  const change = (of: Asked, put: (pages: Page[]) => unknown): void => {
    const update = viewsApi.util.updateQueryData('lookThrough', of, ({ pages: kept }) => {
      put(kept as Page[]);
    });
    dispatch(update as unknown as Parameters<typeof dispatch>[0]);
  };
  const hear = async (numbers: readonly string[]): Promise<void> => {
    const { asked: of, pages: there } = latest.current;
    const much = (): void => setHeard((before) => ({ ...before, isMuch: true }));
    if (numbers.length > MOST) return much();
    const until = there.at(-1)?.next;
    const { data } = await lookAgain({ body: { ...of, only: [...numbers], ...(until ? { until } : {}) } });
    if (latest.current.asked !== of) return;
    // What could not be asked for is not known: it is said that something is otherwise.
    if (!data) return much();
    const loaded = new Set(latest.current.rows.map(({ number }) => number));
    setHeard((before) => heardOf(before, numbers, data, loaded));
    change(of, (kept) => {
      for (const page of kept) page.rows = withNews(page.rows, data.rows);
    });
    if (numbers.some((each) => loaded.has(each)) || data.rows.length > 0) sumSoon();
  };
  return { since: sinceOf(heard, rows), hear, forget, isAddingUp: isMany && (isFetching || isUninitialized) };
}
