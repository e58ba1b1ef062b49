import { DOOR } from '@tolvek/core/door';
import { FORM, REGISTER } from '@tolvek/core/form';
import { MAILING } from '@tolvek/core/mailing';
import { REPORT } from '@tolvek/core/report';
import { VIEW } from '@tolvek/core/view';
import { said, type Words } from '@tolvek/words';
import { eq } from 'drizzle-orm';
import { referringTo } from '../design/queries.ts';
import { designs } from '../design/tables.ts';
import { doors } from '../door/tables.ts';
import { formById } from '../form/queries.ts';
import { mailingById } from '../mailing/queries.ts';
import { rulesNaming } from '../people/rules.ts';
import type { Reader } from '../platform/database.ts';
import { isReportThere } from '../report/queries.ts';
import { isViewThere } from '../view/savedViews.ts';

/** Something that names a group, or a field of profiles: what it is called, where in it, and the page on which it is set. */
interface Use {
  readonly title: string;
  readonly at: Words;
  readonly to: string;
}

/** What names something: forms, registers, doors, mailings, views, reports and rules of groups, and where; each place once. */
export function namedIn(db: Reader, of: { readonly kind: 'group' | 'profile'; readonly key: string }): readonly Use[] {
  const formOf = new Map(
    db
      .select({ slug: doors.slug, form: designs.key })
      .from(doors)
      .innerJoin(designs, eq(designs.id, doors.formId))
      .all()
      .map(({ slug, form }) => [slug, form]),
  );
  const all = [
    ...referringTo(db, FORM, of).map((each) => ({ ...each, to: `/workshop/${each.key}` })),
    ...referringTo(db, REGISTER, of).map((each) => ({ ...each, to: `/workshop/registers/${each.key}` })),
    ...referringTo(db, DOOR, of).map((each) => ({ ...each, to: `/workshop/${formOf.get(each.key) ?? ''}/doors` })),
    ...referringTo(db, MAILING, of).map((each) => ({ ...each, to: `/workshop/${formWith(db, each.key)}/mailings` })),
    ...referringTo(db, VIEW, of)
      .filter(({ key }) => isViewThere(db, key))
      .map((each) => ({ ...each, to: `/floor/views/${each.key}` })),
    ...referringTo(db, REPORT, of)
      .filter(({ key }) => isReportThere(db, key))
      .map((each) => ({ ...each, to: `/floor/reports/${each.key}` })),
    ...rulesNaming(db, of).map(({ key, name }) => ({
      ...{ title: name, at: said('ground:itsRule'), to: `/workshop/groundwork/groups/${key}` },
    })),
  ];
  const uses = all.map(({ title, at, to }) => [JSON.stringify([title, at]), { title, at, to }] as const);
  return [...new Map(uses).values()];
}

/** The key of the form that a mailing sends. */
const formWith = (db: Reader, mailing: string): string => {
  const found = mailingById(db, mailing);
  return (found && formById(db, found.formId)?.key) ?? '';
};
