import { said } from '@tolvek/words';
import type { Read, Readers, Sink, SinkKind } from '../access/index.ts';
import { type ApprovalPath, type ApprovalPlan, type ApprovalStep, pathName, seatsPlanned } from '../approval/index.ts';
import { type DeadlineRule, deadlineName, fieldsOfDeadlines, ruleOf } from '../deadline/index.ts';
import { placeholdersIn } from '../design/index.ts';
import {
  columnsRead,
  conditionOf,
  type Lists,
  namesIn,
  namesRead,
  nodesOfTest,
  parseExpression,
  parseTests,
} from '../expression/index.ts';
import { own } from '../own/index.ts';
import { columnKey, columnNamed, columnsOf, type Field, isFilled, partsOf, requestScope } from '../register/index.ts';
import {
  allRows,
  allThatMayBe,
  followersIn,
  formulasOf,
  handlersIn,
  lengthFormula,
  OUTCOME_WORDS,
} from '../routing/index.ts';
import { type Action, type Edition, type FormDesign, type FormRule, type Part, partKey } from './design.ts';
import { ASKING, differenceKey } from './editions/index.ts';
import type { Finding } from './findings/finding.ts';
import type { Fix } from './findings/fix.ts';
import { pageKeys, pagesBetween, placesOf } from './layout.ts';
import { pathsBegun } from './namedActions.ts';
import { isReferring } from './offers.ts';
import { presetReads } from './presets.ts';
import { partName } from './words.ts';

/** A place of a form where something is made from fields: where it stands, and what takes it away. */
export interface FormSink extends Sink {
  readonly page: Finding['page'];
  readonly at: string;
  readonly fix: Fix | null;
}

type Making = Pick<FormDesign, 'fields'> &
  Partial<Pick<FormDesign, 'parts' | 'rules' | 'unique' | 'routing' | 'approval' | 'deadline' | 'editions'>>;

const values = (names: readonly string[]): Read[] => names.map((field) => ({ field, how: 'value' }));
const verdicts = (names: readonly string[]): Read[] => names.map((field) => ({ field, how: 'verdict' }));
const listed = new WeakMap<readonly Field[], Lists>();

/** The fields of lines, each with its columns. */
function linesAmong(fields: readonly Field[]): Lists {
  let found = listed.get(fields);
  if (!found) {
    const lines = fields.flatMap(({ key, type }): [string, readonly string[]][] =>
      type.kind === 'line-items' ? [[key, type.columns.map((column) => column.key)]] : [],
    );
    listed.set(fields, (found = new Map(lines)));
  }
  return found;
}

/** What an expression reads: names, and of lines the columns besides. */
function readsOf(text: string, fields: readonly Field[]): readonly string[] {
  const names = namesIn(text);
  const lines = linesAmong(fields);
  if (!names.some((name) => lines.has(name))) return names;
  const parsed = parseExpression(text);
  const columns = parsed.ok ? columnsRead([parsed.value], lines) : [];
  return [...names, ...[...columns].flatMap(([list, read]) => [...read].map((column) => columnKey(list, column)))];
}

/** Fields that are read as they are: of lines, every column. */
const wholly = (names: readonly string[], fields: readonly Field[]): readonly string[] =>
  names.flatMap((name) => [name, ...(linesAmong(fields).get(name) ?? []).map((column) => columnKey(name, column))]);

const intoField = (field: string): Readers => ({ who: 'field', field });
/** What is told to whoever fills a field in: the asker typed all of it, so it is who changes it later. */
const whereChanged = (field: string): Readers => ({ who: 'touching', field });

/**
 * Every place of a form where something is made from its fields and somebody reads it. What is made
 * anew for each reader is not among them, but for what fields are computed from or carried along by:
 * values go on from there.
 */
export function sinksOf(design: Making): readonly FormSink[] {
  const { fields, parts = [], rules = [], unique = [], routing } = design;
  return [
    ...fields.flatMap((field) => fieldSinks(field, design)),
    ...rules.filter((rule) => rule.on).flatMap((rule) => new RuleSinks(rule, design).all),
    ...unique.map(
      (rule): FormSink => ({
        kind: 'unique',
        id: `unique ${rule.id}`,
        text: rule.fields.join(' '),
        says: (it) => said('sinks:unique', { it }),
        readers: { who: 'anybody' },
        reads: values(wholly(rule.fields, fields)),
        page: 'questions',
        at: rule.id,
        fix: { fix: 'drop-unique', unique: rule.id },
      }),
    ),
    ...(routing
      ? [
          ...routingSinks(routing, fields),
          ...computedSinks(routing, fields),
          ...handlerSinks(routing, fields),
          ...lengthSinks(routing, design.deadline, fields),
        ]
      : []),
    ...(routing && design.approval ? pathsUsed(routing, fields, design.approval, pathsBegun(design)) : []).flatMap(
      (path) => [...againSinks(path, fields), ...path.steps.flatMap((step) => stepSinks(step, fields))],
    ),
    ...(design.deadline?.deadlines ?? []).flatMap((rule) => deadlineSinks(rule, fields)),
    ...parts.flatMap((part): FormSink[] => instructionSinks(part, fields)),
    ...(design.editions ?? []).flatMap((edition) => editionSinks(edition, design)),
  ];
}

/** What an edition presets, and the words of its own. By which condition it is given is asked anew for each reader. */
function editionSinks({ id, differences, stages }: Edition, design: Making): readonly FormSink[] {
  // What is only said beside requests that are there is made anew for each reader.
  const isAsked = !stages || stages.includes(ASKING);
  return differences.flatMap((difference): readonly FormSink[] => {
    const fix = { fix: 'drop-difference', edition: id, difference: differenceKey(difference) } as const;
    const here = { page: 'editions', at: id, fix } as const;
    const of = (sink: FormSink): FormSink => ({ ...sink, ...here, id: `${sink.id} in ${id}` });
    switch (difference.does) {
      case 'preset': {
        const field = design.fields.find(({ key }) => key === difference.part);
        if (!field || !isFilled(field) || difference.preset === null) return [];
        const presetting = fieldSinks({ ...field, preset: difference.preset }, design);
        return presetting.filter(({ kind }) => kind === 'preset').map(of);
      }
      case 'add':
        return isAsked ? instructionSinks(difference.adds, design.fields).map(of) : [];
      case 'reword': {
        const part = (design.parts ?? []).find((each) => partKey(each) === difference.part);
        if (!isAsked || part?.part !== 'instruction' || difference.text === undefined) return [];
        return instructionSinks({ ...part, text: difference.text }, design.fields).map(of);
      }
      default:
        return [];
    }
  });
}

/** Where one field is made from others, and what limits it by them. */
export function fieldSinks(field: Field, design: Making): readonly FormSink[] {
  const label = labelIn(design, field.key);
  const at = { page: 'questions', at: field.key } as const;
  const sinks: FormSink[] = [];
  const add = (
    kind: SinkKind,
    text: string,
    says: Sink['says'],
    reads: readonly Read[],
    fix: Fix | null,
    readers = intoField(field.key),
  ): void => {
    if (reads.length > 0) sinks.push({ kind, id: `${kind} ${field.key}`, text, says, readers, reads, ...at, fix });
  };
  if (field.source === 'computed')
    add(
      'computed',
      field.formula,
      (it) => said('sinks:computed', { field: label, it }),
      values(readsOf(field.formula, design.fields)),
      null,
    );
  for (const part of columnsOf(field)) {
    const formula = columnNamed(field, part.key)?.formula;
    if (formula === undefined) continue;
    const reads = namesIn(formula).map((column) => columnKey(field.key, column));
    const says: Sink['says'] = (it) => said('sinks:computed', { field: part.label, it });
    const made = { kind: 'computed', id: `computed ${part.key}`, text: formula, says, fix: null } as const;
    sinks.push({ ...made, readers: intoField(part.key), reads: values(reads), ...at });
  }
  if (field.source === 'carried')
    add('carried', field.field, (it) => said('sinks:carried', { field: label, it }), values([field.reference]), null);
  if (isFilled(field) && field.preset)
    add(
      'preset',
      JSON.stringify(field.preset),
      (it) => said('sinks:preset', { field: label, it }),
      values(
        field.preset.from === 'formula'
          ? readsOf(field.preset.formula, design.fields)
          : wholly(presetReads(field.preset), design.fields),
      ),
      { fix: 'drop-preset', field: field.key },
    );
  const { type } = field;
  if (isReferring(type) && type.offered?.trim())
    add(
      'offer',
      type.offered,
      (it) => said('sinks:offer', { field: label, it }),
      verdicts(
        readsOf(type.offered, design.fields).filter((name) => partsOf(design.fields).some(({ key }) => key === name)),
      ),
      { fix: 'drop-limit', field: field.key },
      whereChanged(field.key),
    );
  if ('notBefore' in type && type.notBefore !== undefined)
    add(
      'order',
      type.notBefore,
      (it) => said('sinks:order', { field: label, it }),
      verdicts([type.notBefore]),
      { fix: 'drop-order', field: field.key },
      whereChanged(field.key),
    );
  return sinks;
}

/** What one rule makes. */
export class RuleSinks {
  readonly all: readonly FormSink[];
  private readonly when: readonly Read[];

  constructor(
    private readonly rule: FormRule,
    private readonly design: Making,
  ) {
    this.when = verdicts(readsOf(rule.when, design.fields));
    const made = [...rule.then, ...rule.otherwise].flatMap((action) => this.made(action));
    // The same may be done on both sides: it is one place.
    this.all = [...new Map(made.map((sink) => [`${sink.id}\n${sink.text}`, sink])).values()];
  }

  private made(action: Action): readonly FormSink[] {
    const { parts = [] } = this.design;
    const nameOf = (key: string): string => labelIn(this.design, key);
    switch (action.do) {
      case 'set': {
        const reads = [...this.when, ...values(readsOf(action.value, this.design.fields))];
        return [
          this.sink(
            'set',
            action.field,
            (it, how) => said(how === 'value' ? 'sinks:puts' : 'sinks:sets', { it, field: nameOf(action.field) }),
            intoField(action.field),
            reads,
            action.value,
          ),
        ];
      }
      case 'clear':
      case 'lock':
        return action.fields.map((key) =>
          this.sink(
            action.do,
            key,
            (it) => said(action.do === 'clear' ? 'sinks:clears' : 'sinks:locks', { it, field: nameOf(key) }),
            // A locked question stands at its default; what is not asked is only kept from being changed.
            action.do === 'clear' || this.isAsked(key) ? intoField(key) : whereChanged(key),
          ),
        );
      case 'show':
      case 'hide':
        return action.parts.flatMap((part) =>
          this.questions(part, (key) =>
            this.sink(
              action.do,
              key,
              (it) => said(action.do === 'show' ? 'sinks:shows' : 'sinks:hides', { it, field: nameOf(key) }),
              intoField(key),
              this.when,
              '',
              part,
            ),
          ),
        );
      case 'jump':
        return pagesBetween(pageKeys(parts), action.after, action.to).flatMap((page) =>
          this.questions(page, (key) =>
            this.sink(
              'jump',
              key,
              (it) => said('sinks:skips', { it, field: nameOf(key) }),
              intoField(key),
              this.when,
              '',
              action.after,
            ),
          ),
        );
      case 'require':
        return action.fields.map((key) =>
          // At a saving, who changes something is told that a field is still empty.
          this.sink('require', key, (it) => said('sinks:requires', { it, field: nameOf(key) }), this.changers, [
            ...this.when,
            ...verdicts([key]),
          ]),
        );
      case 'limit':
        return [
          this.sink(
            'limit',
            action.field,
            (it) => said('sinks:limits', { it, field: nameOf(action.field) }),
            this.rule.runs === 'saving' ? whereChanged(action.field) : { who: 'asker' },
          ),
        ];
      case 'warn':
        return [this.sink('warn', action.field, (it) => said('sinks:warns', { it }), this.changers)];
      case 'refuse':
        return [this.sink('refuse', action.field, (it) => said('sinks:refuses', { it }), this.changers)];
    }
  }

  /** Whom this rule speaks to: whoever fills the form in, and at every saving whoever changes something. */
  private get changers(): Readers {
    return this.rule.runs === 'saving' ? { who: 'changers' } : { who: 'asker' };
  }

  private isAsked(key: string): boolean {
    return (this.design.parts ?? []).some((part) => part.part === 'question' && part.field === key);
  }

  private questions(part: string, make: (key: string) => FormSink): readonly FormSink[] {
    return placesOf(this.design.parts ?? []).flatMap((place) =>
      place.part.part === 'question' && (place.key === part || place.section === part || place.page === part)
        ? [make(place.key)]
        : [],
    );
  }

  private sink(
    kind: Action['do'],
    about: string,
    says: Sink['says'],
    readers: Readers,
    reads = this.when,
    value = '',
    part = about,
  ): FormSink {
    const { rule } = this;
    return {
      kind,
      id: `${kind} ${rule.id} ${about}`,
      text: value === '' ? rule.when : `${rule.when}; ${value}`,
      says: (it, how) => said('sinks:rule', { rule: rule.name, does: says(it, how) }),
      readers,
      reads,
      page: 'rules',
      at: rule.id,
      fix: { fix: 'drop-action', rule: rule.id, does: kind, about: part },
    };
  }
}

/** One for each column that some row asks for. */
function routingSinks({ columns, rows }: FormDesign['routing'], fields: readonly Field[]): readonly FormSink[] {
  const keys = new Set(fields.map((field) => field.key));
  return columns.flatMap((column): FormSink[] => {
    const cellOf = (row: (typeof rows)[number]): string => own(row.cells, column.id) ?? '';
    const asking = rows.filter((row) => cellOf(row).trim() !== '');
    const [first] = asking;
    if (!first) return [];
    const cells = asking.map(cellOf);
    return [
      {
        kind: 'routing',
        id: `routing ${column.id}`,
        text: [column.input, ...cells].join('; '),
        says: (it) => said('sinks:routing', { it }),
        readers: { who: 'desk' },
        reads: verdicts([
          ...new Set([
            ...readsOf(column.input, fields),
            ...wholly(
              cells.flatMap((cell) => namesInCell(cell, keys)),
              fields,
            ),
          ]),
        ]),
        page: 'routing',
        at: first.id,
        fix: { fix: 'drop-column', column: column.id },
      },
    ];
  });
}

/** Whoever works on a request sees what a row has computed of its answers. */
const computedSinks = (routing: FormDesign['routing'], fields: readonly Field[]): readonly FormSink[] =>
  allRows(routing).flatMap((row) =>
    formulasOf(row).map(([name, text]) => ({
      kind: 'routing' as const,
      id: `computed ${row.id} ${name}`,
      text,
      says: (it: string) => said('sinks:routingComputed', { it, what: OUTCOME_WORDS[name] }),
      readers: { who: 'desk' as const },
      reads: verdicts(readsOf(text, fields)),
      ...{ page: 'routing' as const, at: row.id },
      fix: { fix: 'drop-formula' as const, row: row.id, of: name },
    })),
  );

/** How long a row says that deadlines are: whoever works on a request sees by when each is due. */
const lengthSinks = (
  routing: FormDesign['routing'],
  deadline: FormDesign['deadline'] | undefined,
  fields: readonly Field[],
): readonly FormSink[] =>
  allRows(routing).flatMap(({ id: row, outcome: { deadlines = [] } }) =>
    deadlines.flatMap((each): FormSink[] => {
      const text = lengthFormula(each);
      const rule = deadline && ruleOf(deadline, each.deadline);
      if (text === null || !rule) return [];
      return [
        {
          ...{ kind: 'deadline', id: `due ${row} ${rule.key}`, text },
          says: (it) => said('sinks:due', { deadline: deadlineName(rule), it }),
          readers: { who: 'desk' },
          reads: values(readsOf(text, fields)),
          ...{ page: 'routing', at: row, fix: null },
        },
      ];
    }),
  );

/** Whoever works on a request sees who its handler is and who follows it: an answer that names them is told by that. */
function handlerSinks(routing: FormDesign['routing'], fields: readonly Field[]): readonly FormSink[] {
  const ways = handlersIn(routing).flatMap((handler) => handler.ways);
  const named = new Set([
    ...ways.flatMap((way) => (way.by === 'field' ? [way.field] : [])),
    ...followersIn(routing).flatMap((each) => ('field' in each ? [each.field] : [])),
  ]);
  return [...named].map((field) => ({
    kind: 'step',
    id: `handler ${field}`,
    text: field,
    says: (it) => said('sinks:handler', { it }),
    readers: { who: 'desk' },
    reads: values(wholly([field], fields)),
    page: 'routing',
    at: 'otherwise',
    fix: null,
  }));
}

/** The paths that rows of a table choose, or a button begins. */
const pathsUsed = (
  routing: FormDesign['routing'],
  fields: readonly Field[],
  { paths }: ApprovalPlan,
  begun: ReadonlySet<string>,
) => {
  const chosen = allThatMayBe(routing, 'path', () => requestScope(fields));
  return paths.filter(({ id }) => chosen.has(id) || begun.has(id));
};

/** That it is decided anew when some fields change is seen by whoever works on a request. */
const againSinks = ({ id, again = [], label, steps }: ApprovalPath, fields: readonly Field[]): readonly FormSink[] =>
  again.map((field) => ({
    kind: 'step',
    id: `again ${id} ${field}`,
    text: field,
    says: (it) => said('sinks:again', { path: pathName({ label, steps }), it }),
    readers: { who: 'desk' },
    reads: verdicts(wholly([field], fields)),
    page: 'approval',
    at: 'step',
    fix: { fix: 'not-again', path: id, field },
  }));

/** Whether a step of the approval is asked, and whom: whoever works on a request sees who decides. */
function stepSinks(step: ApprovalStep, fields: readonly Field[]): readonly FormSink[] {
  const when = conditionOf(step);
  const named = seatsPlanned(step).flatMap((seat) => ('field' in seat ? [seat.field] : []));
  const asks: readonly FormSink[] = named.map((field) => ({
    kind: 'step',
    id: `seat ${step.id} ${field}`,
    text: field,
    says: (it) => said('sinks:seat', { step: step.label, it }),
    readers: { who: 'desk' },
    reads: values(wholly([field], fields)),
    page: 'approval',
    at: 'step',
    fix: null,
  }));
  if (when === null) return asks;
  return [
    ...asks,
    {
      kind: 'step',
      id: `step ${step.id}`,
      text: when,
      says: (it) => said('sinks:step', { step: step.label, it }),
      readers: { who: 'desk' },
      reads: verdicts(readsOf(when, fields)),
      page: 'approval',
      at: 'step',
      fix: { fix: 'always-asked', step: step.id },
    },
  ];
}

/** What a request is due by, and whether: whoever works on it sees the moment, and hears of it. */
function deadlineSinks(rule: DeadlineRule, fields: readonly Field[]): readonly FormSink[] {
  const { key, length } = rule;
  const when = conditionOf(rule);
  const made = (what: string, text: string, reads: readonly Read[]): FormSink => ({
    kind: 'deadline',
    id: `${what} ${key}`,
    text,
    says: (it) =>
      said(`sinks:${what === 'due' ? 'due' : what === 'told' ? 'dueTold' : 'dueWhen'}`, {
        ...{ deadline: deadlineName(rule), it },
      }),
    readers: { who: 'desk' },
    reads,
    page: 'approval',
    at: key,
    fix: null,
  });
  const told = fieldsOfDeadlines({ deadlines: [rule] }).filter(
    (field) => length.by !== 'field' || field !== length.field,
  );
  return [
    ...(when === null ? [] : [made('due-when', when, verdicts(readsOf(when, fields)))]),
    ...(length.by === 'formula' ? [made('due', length.formula, values(readsOf(length.formula, fields)))] : []),
    ...(length.by === 'field' ? [made('due', length.field, values(wholly([length.field], fields)))] : []),
    ...told.map((field) => made('told', field, values(wholly([field], fields)))),
  ];
}

/**
 * Fields that the tests of a cell read. A table has thousands of cells and hardly any reads one, so
 * only a cell in which the key of a field stands outside of quotes is parsed.
 */
function namesInCell(text: string, keys: ReadonlySet<string>): readonly string[] {
  const words = text.replace(/"(?:[^"\\]|\\.)*"/g, ' ').match(/[a-z][a-z0-9_]*/g) ?? [];
  if (!words.some((word) => keys.has(word))) return [];
  const parsed = parseTests(text);
  return parsed.ok ? namesRead(parsed.value.flatMap(nodesOfTest)) : [];
}

function instructionSinks(part: Part, fields: readonly Field[]): FormSink[] {
  if (part.part !== 'instruction') return [];
  return [...new Set(placeholdersIn(part.text))].map((field) => ({
    kind: 'instruction',
    id: `instruction ${part.id} ${field}`,
    text: field,
    says: (it) => said('sinks:text', { it }),
    readers: { who: 'asker' },
    reads: values(wholly([field], fields)),
    page: 'questions',
    at: partKey(part),
    fix: { fix: 'drop-word', part: part.id, field },
  }));
}

const labelIn = (design: Making, key: string): string =>
  design.fields.find((field) => field.key === key)?.label ??
  partName({ fields: design.fields, parts: design.parts ?? [] }, key);
