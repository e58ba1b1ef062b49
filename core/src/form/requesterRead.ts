import { said } from '@tolvek/words';
import type { Reference } from '../design/index.ts';
import { entriesIn } from '../expression/index.ts';
import { isFilled } from '../register/index.ts';
import type { AskedForm, FormDesign } from './design.ts';
import { isReferring } from './offers.ts';

/** All that is written in a form where it is filled in: formulas, conditions, values of rules. */
const writtenIn = ({ fields, rules }: AskedForm): readonly string[] => [
  ...fields.flatMap((field) => {
    const limit = isReferring(field.type) && field.type.offered ? [field.type.offered] : [];
    if (field.source === 'computed') return [...limit, field.formula];
    return isFilled(field) && field.preset?.from === 'formula' ? [...limit, field.preset.formula] : limit;
  }),
  ...rules.flatMap(({ when, then, otherwise }) => [
    when,
    ...[...then, ...otherwise].flatMap((action) => (action.do === 'set' ? [action.value] : [])),
  ]),
];

/** What of the requester some expressions read: their groups, fields of their profile. */
const readIn = (texts: readonly string[]): ReadonlySet<string> =>
  new Set(texts.flatMap((text) => entriesIn(text, 'requester')));

/** What of the requester a form reads where it is filled in. */
export const requesterReadBy = (form: AskedForm): ReadonlySet<string> => readIn(writtenIn(form));

/** The parts of people that a form reads, as what it names: in its rules and formulas, and in its routing. */
export const profileNamed = (form: FormDesign): readonly Reference[] => {
  const { columns, rows } = form.routing;
  const routing = [...columns.map(({ input }) => input), ...rows.flatMap(({ cells }) => Object.values(cells))];
  return [
    ...[...requesterReadBy(form)].map((key) => ({ kind: 'profile', key, at: said('pages:rules') })),
    ...[...readIn(routing)].map((key) => ({ kind: 'profile', key, at: said('pages:routing') })),
  ];
};
