import { type Said, said, type Words } from '@tolvek/words';
import { conditionInWords, parseExpression, type Scope } from '../expression/index.ts';
import type { Field } from '../register/index.ts';
import { calledIn, kindIn, orderWay } from './subjects.ts';
import type { MatrixCell, Total, ViewDesign, ViewOrder, ViewShape } from './view.ts';

/** What the parts of a view’s sentence are made of. */
export interface ViewNames {
  readonly register: (key: string) => string;
  readonly fields: readonly Field[];
  readonly scope: Scope;
}

/** A part of the sentence a view reads as: each is changed by itself. */
export const VIEW_PARTS = ['of', 'when', 'groups', 'orders', 'marks'] as const;
export type ViewPart = (typeof VIEW_PARTS)[number];

const conditionSaid = (when: string, scope: Scope): Words => {
  const parsed = parseExpression(when);
  return parsed.ok ? conditionInWords(parsed.value, scope) : when;
};

/** How rows are put in order by one thing: “Leaves, earliest first”. */
export const orderSaid = ({ of, down }: ViewOrder, fields: readonly Field[]): Said =>
  said(`views:order.${orderWay(of, fields)}${down ? 'Down' : ''}`, { what: calledIn(of, fields) });

/** What is measured: “Sum of Cost”. */
export const measureSaid = ({ is, of }: MatrixCell, fields: readonly Field[]): Said =>
  of === null || is === 'count'
    ? said('views:measure.count')
    : said(`views:measure.${is}`, { what: calledIn(of, fields) });

/** What a column of totals tells: “Cost an hour of Hours”. */
export function totalSaid(total: Total, fields: readonly Field[]): Words {
  if (total.is === 'share') return total.word;
  if (total.is !== 'rate') return measureSaid(total, fields);
  const named = { what: calledIn(total.of, fields), per: calledIn(total.per, fields) };
  return said(`views:rate.${kindIn(total.per, fields) === 'duration' ? 'hour' : 'each'}`, named);
}

/** What a shape of a view is: “Board by stage”. */
export function shapeSaid(shape: ViewShape, fields: readonly Field[]): Said {
  switch (shape.is) {
    case 'table':
      return said('views:shape.table');
    case 'board':
      return said('views:shape.board', { by: calledIn(shape.by, fields) });
    case 'calendar':
      return said('views:shape.calendar', { from: calledIn(shape.from, fields) });
    case 'chart':
      return said('views:shape.chart', {
        measure: measureSaid(shape.measure, fields),
        by: calledIn(shape.by, fields),
      });
    case 'matrix':
      return said('views:shape.matrix', { down: calledIn(shape.down, fields), across: calledIn(shape.across, fields) });
    case 'gallery':
      return said('views:shape.gallery', { picture: calledIn(shape.picture, fields) });
    case 'totals':
      return said('views:shape.totals', { by: calledIn(shape.by, fields) });
  }
}

/** One part of a view, as it stands in its sentence; null for what it does not say. */
function partSaid(part: ViewPart, view: ViewDesign, { register, fields, scope }: ViewNames): Words | null {
  switch (part) {
    case 'of':
      return said('views:says.of', { registers: view.of.map(register) });
    case 'when':
      return view.when === '' ? null : said('views:says.when', { condition: conditionSaid(view.when, scope) });
    case 'groups': {
      const [outer, inner] = view.groups.map((subject) => calledIn(subject, fields));
      if (outer === undefined) return null;
      return inner === undefined ? said('views:says.group', { outer }) : said('views:says.groups', { outer, inner });
    }
    case 'orders':
      return view.orders.length === 0
        ? null
        : said('views:says.orders', { orders: view.orders.map((each) => orderSaid(each, fields)) });
    case 'marks':
      return view.marks.length === 0
        ? null
        : said('views:says.marks', { words: view.marks.map(({ word, when }) => word || conditionSaid(when, scope)) });
  }
}

/** A view as the parts of one sentence, in their order; what it does not say is left out. */
export const viewInParts = (
  view: ViewDesign,
  names: ViewNames,
): readonly { readonly part: ViewPart; readonly words: Words }[] =>
  VIEW_PARTS.flatMap((part) => {
    const words = partSaid(part, view, names);
    return words === null ? [] : [{ part, words }];
  });

/** The same as one sentence, where nothing is pressed: in lists, files and emails. */
export const viewInWords = (view: ViewDesign, names: ViewNames): Said =>
  said('views:sentence', { parts: viewInParts(view, names).map(({ words }) => words) });
