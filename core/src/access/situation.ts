import { said, type Words } from '@tolvek/words';
import type { Explanation } from '../expression/index.ts';
import { isSame, own } from '../own/index.ts';
import { belongs, type Viewer } from '../people/index.ts';
import {
  cellOf,
  columnsOf,
  FACT_NAMES,
  type Field,
  type FieldValue,
  fieldKeyOf,
  firstFile,
  type ItemRow,
  isFilled,
  linesComeAndGo,
  mergedText,
  type NameOf,
  partsOf,
  sayValue,
  type Values,
  withCells,
  withColumns,
} from '../register/index.ts';
import { type Access, accessTo, type Relation, stricter } from './accessTo.ts';
import { type Circumstance, circumstancesOf, levelIn, type RequestMoment } from './circumstance.ts';
import type { Activity } from './plan.ts';
import type { Protection } from './protection.ts';
import { readsAlso } from './relation.ts';
import { openFields } from './restricted.ts';
import type {
  Revealed,
  ValueChange,
  VisibleChange,
  VisibleColumn,
  VisibleField,
  VisibleLines,
  VisibleReason,
  VisibleValues,
} from './revealed.ts';
import type { Sink } from './sinks.ts';

/**
 * What somebody looks for. Letters leave the house: they hold only what the plan hides from nobody
 * of the desk. Whoever follows a request does so as its requester, whatever else they are.
 */
export type Purpose = 'sheet' | 'changing' | 'following' | 'list' | 'letter' | 'taking-out' | 'counting';

/** All that a look at a request depends on besides the request. */
export interface Situation {
  readonly viewer: Viewer;
  readonly relation: Relation;
  readonly purpose: Purpose;
  /** What of the request rules hang on; null where no one request is meant: then the strictest of what may be. */
  readonly at: RequestMoment | null;
}

/** What is done with a request, as rules speak of it. */
export const ACTIVITY: Readonly<Record<Purpose, Activity>> = {
  ...{ sheet: 'working', changing: 'working', following: 'working', list: 'browsing', counting: 'searching' },
  ...{ letter: 'letters', 'taking-out': 'taking-out' },
};

/** What holds for everybody whom a plan does not tell apart. */
interface Levels {
  readonly known: Map<string, Access>;
  readable: ReadonlySet<string> | null;
  /** Fields of lines of which some columns may be read and others not, each as it is with those that may. */
  partly: ReadonlyMap<string, Field> | null;
}

const NOT_HERE: Access = { level: 'hidden', rule: said('access:noField') };
const STAYS: Access = { level: 'hidden', rule: said('access:notInEmails') };
const NOT_FOR_LOOKER: Access = { level: 'hidden', rule: said('access:hiddenFromYou') };
const HANGS_ON_TOO_MUCH: Access = { level: 'hidden', rule: said('access:hangsOnTooMuch') };

/** The fields that a subject names, by what protects them. */
const inSubjects = new WeakMap<Protection, Map<string, readonly Field[]>>();

/** Signs that stand for values while a subject line is put together (Unicode, private use area). */
const VALUE_PLACES = String.fromCharCode(...Array.from({ length: 200 }, (_, index) => 0xe000 + index));

/** What is told in lines, in one. */
function oneLine(words: Words): Words {
  if (typeof words === 'string') return words.replace(/\s+/g, ' ').trim();
  return words.say === 'values:lines' ? said('values:list', { items: words.with?.lines as readonly Words[] }) : words;
}

function namedIn(protection: Protection, subject: string): readonly Field[] {
  const known = inSubjects.get(protection) ?? new Map<string, readonly Field[]>();
  inSubjects.set(protection, known);
  let named = known.get(subject);
  if (!named) known.set(subject, (named = protection.fields.filter(({ key }) => subject.includes(`{${key}}`))));
  return named;
}

/** Kinds of viewer whose levels are remembered for one protection. */
const REMEMBERED = 1_024;

const prepared = new WeakMap<Protection, (situation: Situation) => Reading>();

/**
 * Makes ready what protects some requests: asked for a situation, it gives what may be read there.
 * The levels of viewers whom the plan does not tell apart are worked out once.
 *
 * @example
 * const reading = prepareAccess(protection)({ viewer, relation, purpose: 'sheet' });
 * reading.reveal(request.values, nameOf).fields; // what this viewer may read, and whether change
 */
export function prepareAccess(protection: Protection): (situation: Situation) => Reading {
  const ready = prepared.get(protection);
  if (ready) return ready;
  const { rules } = protection.plan;
  const kinds = new Map<string, Levels>();
  const unknown = new Map<Activity, readonly Circumstance[]>();
  /** In what circumstances somebody looks: in one, or where no one request is meant, in all that there can be. */
  const circumstances = ({ purpose, at }: Situation): readonly Circumstance[] => {
    const activity = ACTIVITY[purpose];
    if (at) {
      const { stage, holds } = at;
      // The day is looked up where a rule asks for it.
      return [
        {
          ...{ activity, stage, holds },
          get day() {
            return at.day;
          },
        },
      ];
    }
    let found = unknown.get(activity);
    if (!found) unknown.set(activity, (found = circumstancesOf(rules, [activity]) ?? []));
    return found;
  };
  const made = (situation: Situation): Reading => {
    const { viewer, purpose, at } = situation;
    // Whoever follows a request does so as who asked it.
    const relation =
      at && purpose !== 'following'
        ? readsAlso(protection.plan, viewer, situation.relation, at.holds)
        : situation.relation;
    const within = circumstances(situation);
    const said = rules.map((rule) => {
      if (!belongs(rule.audience, viewer, relation)) return '';
      return at ? levelIn(rule, within[0] as Circumstance) : 'any';
    });
    const kind = `${relation.isDesk} ${relation.onlyReads ?? false} ${relation.builds ?? false} ${relation.isRequester} ${relation.calledIn ?? false} ${at ? purpose === 'letter' : purpose} ${said.join('.')}`;
    let levels = kinds.get(kind);
    if (!levels) {
      if (kinds.size >= REMEMBERED) kinds.clear();
      kinds.set(kind, (levels = { known: new Map(), readable: null, partly: null }));
    }
    return new Reading(
      relation === situation.relation ? situation : { ...situation, relation },
      protection,
      levels,
      within,
    );
  };
  prepared.set(protection, made);
  return made;
}

/**
 * A look at requests that one protection protects, in one situation. Whatever it makes of values is
 * `Revealed`; nothing else in the house hands values out.
 */
export class Reading {
  constructor(
    readonly situation: Situation,
    readonly protection: Protection,
    private readonly levels: Levels,
    private readonly within: readonly Circumstance[],
    /** Who looks through the eyes of another: what is hidden from them stays so. */
    private readonly looker: Reading | null = null,
  ) {}

  /** Keys of the fields whose reading is noted, of which something was told here. */
  readonly told = new Set<string>();

  /** The same look, through the eyes of another: what the plan hides from whoever looks stays hidden from them. */
  through(looker: Reading): Reading {
    return new Reading(
      this.situation,
      this.protection,
      { ...this.levels, readable: null, partly: null },
      this.within,
      looker,
    );
  }

  /** What the one who is looked as may do with a field, whoever looks. */
  levelThere(key: string): Access {
    return this.looker ? this.levelWithout(key) : this.levelOf(key);
  }

  /** What may be done with a field, and the rule that says so; a field that is not there is hidden. */
  levelOf(key: string): Access {
    const own = this.levelWithout(key);
    return own.level !== 'hidden' && this.looker?.levelOf(key).level === 'hidden' ? NOT_FOR_LOOKER : own;
  }

  private levelWithout(key: string): Access {
    let found = this.levels.known.get(key);
    if (!found) {
      const field = partsOf(this.protection.fields).find((each) => each.key === key);
      this.levels.known.set(key, (found = field ? this.accessTo(field) : NOT_HERE));
    }
    return found;
  }

  private accessTo(field: Field): Access {
    const { purpose, viewer, relation } = this.situation;
    // Lines with a column that stays do not leave the house: what is left of them would tell that it is there.
    const lines = fieldKeyOf(field.key);
    if (purpose === 'letter' && !openFields(this.protection, ['letters']).some(({ key }) => key === lines))
      return STAYS;
    return this.within
      .map((at) => accessTo(field, this.protection, viewer, relation, at))
      .reduce(stricter, this.within.length > 0 ? null : HANGS_ON_TOO_MUCH) as Access;
  }

  /**
   * The keys of the fields that may be read, and of columns of lines. Lines are among them where all of their columns may
   * be read: what is asked of lines as a whole would tell of each.
   */
  get readable(): ReadonlySet<string> {
    this.levels.readable ??= new Set(
      partsOf(this.protection.fields).flatMap(({ key }) =>
        this.levelOf(key).level === 'hidden' || this.partly.has(key) ? [] : [key],
      ),
    );
    return this.levels.readable;
  }

  /** Fields of lines of which some columns may be read and others not, by key, each as it is with those that may. */
  get partly(): ReadonlyMap<string, Field> {
    if (this.levels.partly === null) {
      const found = this.protection.fields.flatMap((field): [string, Field][] => {
        const columns = columnsOf(field);
        if (columns.length === 0 || this.levelOf(field.key).level === 'hidden') return [];
        const open = columns.flatMap(({ key }) => (this.levelOf(key).level === 'hidden' ? [] : [key]));
        return open.length === columns.length ? [] : [[field.key, withColumns(field, new Set(open))]];
      });
      this.levels.partly = new Map(found);
    }
    return this.levels.partly;
  }

  /** A field and its value as they may be read here: of lines, the columns that may. The field itself may be read. */
  private toldOf(field: Field, value: FieldValue): readonly [Field, FieldValue] {
    const open = this.partly.get(field.key);
    if (!open) return [field, value];
    const keys = new Set(columnsOf(open).map(({ key }) => key));
    // As the field is read, which may be in another language.
    return [withColumns(field, keys), withCells(field, value as readonly ItemRow[], keys)];
  }

  /** What may be done with lines, where that is not the same for all of their columns. */
  private linesShown(field: Field): VisibleLines | null {
    const { type } = field;
    if (type.kind !== 'line-items') return null;
    const whole = this.levelOf(field.key).level;
    const accesses = columnsOf(field).map(({ key }) => this.levelOf(key));
    const isAlike = type.columns.every(({ formula }, place) => {
      const level = accesses[place]?.level;
      return formula === undefined ? level === whole : level !== 'hidden';
    });
    if (isAlike) return null;
    const columns = type.columns.flatMap(({ key, formula }, place): readonly VisibleColumn[] => {
      const { level, rule, looksEmpty } = accesses[place] as Access;
      if (level === 'hidden') return looksEmpty ? [{ key, writable: false }] : [];
      const isLocked = this.situation.relation.isDesk && level === 'read' && whole === 'write' && formula === undefined;
      return [{ key, writable: level === 'write', ...(isLocked ? { why: rule } : {}) }];
    });
    const { mayAdd, mayRemove } = linesComeAndGo(type, columns);
    return { columns, mayAdd: whole === 'write' && mayAdd, mayRemove: whole === 'write' && mayRemove };
  }

  private note(key: string): void {
    const { plan, madeFrom } = this.protection;
    if (!plan.noted?.length) return;
    // What is made of a field tells of it.
    for (const each of [key, ...madeFrom(key).map((from) => from.key)])
      if (plan.noted.includes(each)) this.told.add(each);
  }

  /** Whether a name in an expression may be known: a fact of every request, or a field to be read. */
  mayKnow(name: string): boolean {
    return FACT_NAMES.has(name) || this.readable.has(name);
  }

  /** Whether something may be said at a place: whoever may not read what it tells of is told nothing. */
  mayHear(sink: Sink): boolean {
    return this.protection.tells(sink).every((key) => this.levelOf(key).level !== 'hidden');
  }

  /** Projects values to what may be seen here. `only`: the fields wanted, when not all are. */
  reveal(values: Values, nameOf: NameOf, only?: readonly Field[]): Revealed<VisibleValues> {
    const fields: VisibleField[] = [];
    const withheld: { label: string; rule: Words }[] = [];
    const { relation, purpose } = this.situation;
    for (const field of only ?? this.protection.fields) {
      const access = this.levelOf(field.key);
      if (access.level === 'hidden' && access.looksEmpty) {
        const { key, label, source } = field;
        fields.push({ key, label, value: null, shown: '', writable: false, source });
        continue;
      }
      if (access.level === 'hidden') {
        if (relation.isDesk && purpose !== 'letter') withheld.push({ label: field.label, rule: access.rule });
        continue;
      }
      const stored = own(values, field.key) ?? null;
      if (stored !== null) this.note(field.key);
      const [as, value] = stored === null ? [field, null] : this.toldOf(field, stored);
      const lines = this.linesShown(field);
      if (lines && relation.isDesk && purpose !== 'letter')
        for (const { key, label } of columnsOf(field)) {
          const { level, rule, looksEmpty } = this.levelOf(key);
          if (level === 'hidden' && !looksEmpty) withheld.push({ label, rule });
        }
      fields.push({
        key: field.key,
        label: field.label,
        value,
        shown: value === null ? '' : sayValue(as, value, nameOf),
        writable: access.level === 'write',
        source: field.source,
        ...(lines ? { lines } : {}),
        ...(relation.isDesk && access.level === 'read' && isFilled(field) ? { why: access.rule } : {}),
      });
    }
    return { fields, withheld } as unknown as Revealed<VisibleValues>;
  }

  /** Texts with the values they name that may be read here; the others are told by dots. */
  texts(
    texts: readonly string[],
    values: Values,
    nameOf: NameOf,
    fields: readonly Field[] = this.protection.fields,
  ): Revealed<readonly Words[]> {
    const told = texts.map((text) =>
      mergedText(text, (key) => {
        const field = fields.find((each) => each.key === key);
        const value = field && this.levelOf(key).level !== 'hidden' ? own(values, key) : undefined;
        if (!field || value === undefined) return null;
        this.note(key);
        return sayValue(...this.toldOf(field, value), nameOf);
      }),
    );
    return told as unknown as Revealed<readonly Words[]>;
  }

  /**
   * The subject line of a request, filled only with what may be seen here: its days, sums and numbers in
   * the reader’s language. Empty parts leave no stray commas; with nothing to say it is called as its form.
   */
  subject(
    design: { readonly subject: string; readonly title: string },
    values: Values,
    nameOf: NameOf,
    fields?: readonly Field[],
  ): Revealed<Words> {
    const named = fields ?? namedIn(this.protection, design.subject);
    const told: Words[] = [];
    // A value keeps its own commas: a sign of nobody’s use stands for it meanwhile.
    const filled = design.subject.replace(/\{(\w+)\}/g, (_, key: string) => {
      const field = named.find((each) => each.key === key);
      const value = field && this.levelOf(key).level !== 'hidden' ? own(values, key) : undefined;
      const words = field && value !== undefined ? oneLine(sayValue(...this.toldOf(field, value), nameOf)) : '';
      if (words !== '') this.note(key);
      return words === '' ? '' : VALUE_PLACES.charAt(told.push(words) - 1);
    });
    const tidy = filled
      .replace(/\s+/g, ' ')
      .replace(/(\s*[,·–-]\s*)+(?=[,·–-]|$)/g, '')
      .replace(/^[\s,·–-]+/, '')
      .trim();
    const pieces = [...tidy.matchAll(/[\uE000-\uF8FF]|[^\uE000-\uF8FF]+/g)].map(
      ([piece]): Words => told[VALUE_PLACES.indexOf(piece)] ?? piece,
    );
    const words = pieces.every((piece) => typeof piece === 'string')
      ? pieces.join('')
      : said('values:joined', { pieces });
    return (words || design.title) as unknown as Revealed<Words>;
  }

  /**
   * An explanation as it may be read here: a part that read a hidden field keeps its verdict, not
   * its values.
   */
  reason(reason: Explanation): Revealed<VisibleReason> {
    const open = reason.reads.every((name) => this.mayKnow(name));
    if (open) for (const name of reason.reads) this.note(name);
    const visible: VisibleReason = {
      words: open ? reason.words : reason.guarded,
      result: reason.result,
      parts: open ? reason.parts.map((part) => this.reason(part)) : [],
    };
    return visible as unknown as Revealed<VisibleReason>;
  }

  /** The changes of a history entry that may be read here. */
  changes(
    changes: readonly ValueChange[],
    nameOf: NameOf,
    fields: readonly Field[] = this.protection.fields,
  ): Revealed<readonly VisibleChange[]> {
    const visible = changes.flatMap((change) => {
      const field = fields.find((each) => each.key === change.field);
      if (!field || this.levelOf(change.field).level === 'hidden') return [];
      const [before, after] = [change.before, change.after].map((value) =>
        value === null ? null : this.toldOf(field, value),
      );
      // What became otherwise may all be in columns that are hidden.
      if (this.partly.has(field.key) && isSame(before?.[1] ?? null, after?.[1] ?? null)) return [];
      const show = (told: typeof before): Words => (told ? sayValue(...told, nameOf) : '');
      this.note(change.field);
      return [{ label: field.label, before: show(before), after: show(after) }];
    });
    return visible as unknown as Revealed<readonly VisibleChange[]>;
  }

  /** The cells of some fields in a sheet, those that may not be read empty. */
  cells(
    fields: readonly Field[],
    values: Values,
    nameOf: NameOf,
    around: Parameters<typeof cellOf>[3],
  ): Revealed<readonly string[]> {
    const cells = fields.map((field) => {
      const value = this.levelOf(field.key).level === 'hidden' ? undefined : own(values, field.key);
      if (value === undefined) return '';
      this.note(field.key);
      return cellOf(...this.toldOf(field, value), nameOf, around);
    });
    return cells as unknown as Revealed<readonly string[]>;
  }

  /**
   * The values of some fields, in words; empty where one may not be read. `keys`: of the fields, in their order, and of the
   * columns that are told of lines. `fields`: as they are read.
   */
  row(
    keys: readonly string[],
    values: Values,
    nameOf: NameOf,
    fields: readonly Field[] = this.protection.fields,
  ): Revealed<readonly Words[]> {
    const told = this.among(keys, values, fields).map((each) => (each ? sayValue(...each, nameOf) : ''));
    return told as unknown as Revealed<readonly Words[]>;
  }

  /** The id of the first file that a field holds; null where there is none, or it may not be read. */
  file(key: string, values: Values): Revealed<string | null> {
    const id = this.levelOf(key).level === 'hidden' ? null : firstFile(own(values, key));
    if (id !== null) this.note(key);
    return id as unknown as Revealed<string | null>;
  }

  /** The same as cells of a sheet. */
  rowCells(
    keys: readonly string[],
    values: Values,
    nameOf: NameOf,
    around: Parameters<typeof cellOf>[3],
    fields: readonly Field[] = this.protection.fields,
  ): Revealed<readonly string[]> {
    const cells = this.among(keys, values, fields).map((each) => (each ? cellOf(...each, nameOf, around) : ''));
    return cells as unknown as Revealed<readonly string[]>;
  }

  private among(
    keys: readonly string[],
    values: Values,
    fields: readonly Field[],
  ): readonly (readonly [Field, FieldValue] | null)[] {
    const named = new Set(keys);
    return keys.flatMap((key) => {
      if (fieldKeyOf(key) !== key) return [];
      const field = fields.find((each) => each.key === key);
      const value = field && this.levelOf(key).level !== 'hidden' ? own(values, key) : undefined;
      if (!field || value === undefined) return [null];
      this.note(key);
      const [as, told] = this.toldOf(field, value);
      if (field.type.kind !== 'line-items') return [[as, told] as const];
      return [[withColumns(as, named), withCells(field, told as readonly ItemRow[], named)] as const];
    });
  }

  /** The values of fields that may be read, for computing with what may be told. */
  only(values: Values): Values {
    return Object.fromEntries(Object.entries(values).filter(([key]) => this.readable.has(key)));
  }
}
