import type { Outlook } from '@tolvek/core/forecast';
import type { Viewer } from '@tolvek/core/people';
import { and, eq } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { inList } from '../platform/prepared.ts';
import { registersOnce } from '../register/queries.ts';
import { type OpenRequest, openRequest } from '../request/open.ts';
import { SHOWN_COLUMNS, type ShownRow } from '../request/queries.ts';
import { requests } from '../request/tables.ts';
import { tellingOf } from '../view/telling.ts';
import { lookingAt, workedBy } from '../view/workedBy.ts';

/** What somebody may know of a forecast: the requests that they work on, where they may know by when and by which row. */
export class Known {
  private readonly open = new Map<string, OpenRequest<ShownRow>>();
  private readonly knows = new Map<string, boolean>();

  constructor(
    private readonly db: Reader,
    viewer: Viewer,
    ids: readonly string[],
  ) {
    const looking = lookingAt(db, viewer);
    const rows: ShownRow[] = db
      .select(SHOWN_COLUMNS)
      .from(requests)
      .where(and(inList(requests.id, [...new Set(ids)]), eq(requests.trial, false), workedBy(looking, requests)))
      .all();
    const registers = registersOnce(db, looking.registers);
    for (const row of rows) this.open.set(row.id, openRequest(db, row, viewer, 'list', { registers }));
  }

  of(id: string): OpenRequest<ShownRow> | undefined {
    return this.open.get(id);
  }

  /** Whether they may know by when a request is due, and how: a deadline and a row can tell of what it holds. */
  may({ id, key }: Pick<Outlook, 'id' | 'key'>): boolean {
    const open = this.open.get(id);
    if (!open) return false;
    let known = this.knows.get(`${id} ${key}`);
    if (known === undefined) {
      known = tellingOf(this.db, open.request, key).every((sink) => open.reading.mayHear(sink));
      this.knows.set(`${id} ${key}`, known);
    }
    return known;
  }
}
