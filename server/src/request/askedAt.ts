import { levelsAsking, momentArriving, speaksToAskers } from '@tolvek/core/access';
import {
  ASKING,
  ASKS,
  askedBy,
  askedInWordsOf,
  chooseEdition,
  type Elsewhere,
  editionOf,
  type FormDesign,
  fieldsAsked,
  inLanguage,
  type LeadingEdition,
  leadsByAnswers,
  type Opening,
  OWN_REQUESTS,
  readIn,
  stoodIn,
  type Unasked,
} from '@tolvek/core/form';
import { type PreparedForm, prepareIntake } from '@tolvek/core/intake';
import { askedAbout, type KnownAnswer } from '@tolvek/core/mailing';
import { inRegister, profileConditionsIn, STRANGER } from '@tolvek/core/people';
import { calledFields, type RequestFacts, type Values } from '@tolvek/core/register';
import type { Language } from '@tolvek/words/speech';
import { LRUCache } from 'lru-cache';
import { formById, type ReleaseRow, registerOfForm, releaseById } from '../form/queries.ts';
import { meetingAlso, personById, viewerIn } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import type { Reader } from '../platform/database.ts';
import { firstStage, type RegisterRow } from '../register/queries.ts';
import { factsFor } from './facts.ts';
import { theirsOf } from './theirs.ts';

/** Who asks, by which kind of door. */
export interface Asking {
  readonly kind: 'staff' | 'outside';
  /** Null for who is not signed in; at an outside door they are asked as a stranger, whoever they turn out to be. */
  readonly id: string | null;
  /** What it is about where the form was sent to them, and the question that says so. */
  readonly about?: { readonly field: string; readonly value: string } | null | undefined;
  /** What is theirs and was sent to them to look at, by id: what it is found by is shown, and not asked. */
  readonly entry?: string | null | undefined;
  /** The language they read it in; that of whom they are when nothing is said. */
  readonly reads?: Language | undefined;
}

/** A release as it is asked of somebody. */
export interface AskedRelease extends PreparedForm {
  readonly release: ReleaseRow;
  /** The id of the edition they are given; null: the form as it is. */
  readonly edition: string | null;
  /** The language it is in, with its register’s words of now; null: as it was written. */
  readonly spoken: Language | null;
  /** Where they ask instead; null: here. */
  readonly elsewhere: Elsewhere | null;
  /** What leads them elsewhere by what they answer, in order. */
  readonly leads: Leads | null;
}

/** What leads somebody elsewhere by what they answer. */
export interface Leads {
  readonly editions: readonly LeadingEdition[];
  /** Over answers that are complete. */
  readonly at: (values: Values, facts: () => RequestFacts) => Pick<Opening, 'holds'>;
}

/** Forms as they are asked of somebody, by edition and by what is kept from them. */
const prepared = new LRUCache<string, AskedRelease>({ max: 200 });

/**
 * The form of a release as it is asked of somebody: in the edition they are given, without what the access plan of its
 * register keeps from them while they ask. The same for everybody who is given the same and from whom the same is kept.
 * `tried`: the edition that is tried whoever asks, null for the form as it is.
 */
export function askedAt(
  db: Reader,
  release: ReleaseRow,
  asking: Asking,
  now: number,
  tried?: string | null,
): AskedRelease {
  const whole = releaseById(db, release.id);
  const register = registerOfForm(db, release.formId);
  const { design } = release;
  const { editions = [] } = design;
  const isSpokenOf = speaksToAskers(register.access);
  // Most plans say nothing while somebody asks, and most forms have no editions: nobody is looked up then.
  const known = knownOf(db, release, asking);
  // Where nothing is translated it is not looked up what they read.
  const isSpoken = design.translations !== undefined || design.written !== undefined;
  const spoken = isSpoken ? readIn(design, asking.reads ?? languageOf(db, asking)) : null;
  const isAsWritten = known.length === 0 && spoken === null && calledFields(register.fields) === register.fields;
  if (!isSpokenOf && editions.length === 0 && isAsWritten)
    return { ...whole, edition: null, spoken, elsewhere: null, leads: null };
  const { viewer, at, after } = askerOf(db, register, release, asking, now);
  const asked = fieldsAsked(design.parts);
  const chosen = chooseEdition(editions, { who: viewer, stands: ASKS, stage: ASKING, holds: at.holds, asked });
  const edition = tried === undefined ? chosen.edition : (editions.find(({ id }) => id === tried) ?? null);
  const leading = tried === undefined ? leadsByAnswers(editions, chosen) : [];
  const leads = leading.length > 0 ? { editions: leading, at: after } : null;
  const elsewhere = edition?.elsewhere ?? null;
  const unasked: Unasked = isSpokenOf ? levelsAsking(design.fields, register.access, viewer, at) : new Map();
  if (unasked.size === 0 && edition === null && isAsWritten)
    return { ...whole, edition: null, spoken, elsewhere: null, leads };
  const words = isAsWritten ? null : [spoken, register.id, register.version];
  const name = JSON.stringify([release.id, edition?.id ?? null, [...unasked].toSorted(), known, words]);
  let found = prepared.get(name);
  if (!found) {
    const worded = isAsWritten ? design : inWordsOf(design, register);
    const said = spoken === null ? worded : inLanguage(worded, spoken);
    const read = isAsWritten ? said : { ...said, fields: calledFields(said.fields) };
    const laid = edition && (read.editions ?? []).find(({ id }) => id === edition.id);
    const given = askedBy(laid ? editionOf(read, laid) : read, unasked);
    const about = known.length > 0 ? askedAbout(given, known) : given;
    found = {
      release: { ...release, design: about },
      edition: edition?.id ?? null,
      spoken,
      elsewhere,
      leads: null,
      ...prepareIntake(about),
    };
    prepared.set(name, found);
  }
  return leads ? { ...found, leads } : found;
}

/** A form with its fields called as its register calls them now. */
const inWordsOf = (design: FormDesign, { fields }: RegisterRow): FormDesign => ({
  ...design,
  fields: askedInWordsOf(design.fields, fields),
});

const languageOf = (db: Reader, { id }: Asking): Language | undefined =>
  id === null ? undefined : (personById(db, id)?.language ?? undefined);

/** What is known of the answers before they are asked: what it is about, whose it is, what it is found by. */
function knownOf(db: Reader, { design, formId }: ReleaseRow, { id, about, entry = null }: Asking) {
  const known: KnownAnswer[] = about ? [about] : [];
  const { updates } = design;
  if (!updates || id === null) return known;
  const { whose, by } = updates;
  if (whose !== OWN_REQUESTS) known.push({ field: whose, value: id });
  const person = entry === null ? undefined : personById(db, id);
  if (!person) return known;
  const [sent] = theirsOf(db, updates, registerOfForm(db, formId), viewerIn(db, person), entry);
  const stood = sent ? stoodIn(design, sent.values) : {};
  return [...known, ...by.map((field) => ({ field, value: stood[field] ?? null }))];
}

/** Who asks, as far as audiences tell people apart, and what conditions may know then. */
function askerOf(db: Reader, register: RegisterRow, release: ReleaseRow, { kind, id }: Asking, now: number) {
  const person = id !== null ? personById(db, id) : undefined;
  const { design } = release;
  const profile = (design.editions ?? []).flatMap(({ audience }) => profileConditionsIn(audience));
  const known = inRegister(person ? viewerIn(db, person) : STRANGER, register.id);
  const viewer = meetingAlso(db, known, person, profile);
  const requester = person ? { id: person.id, kind: person.kind } : null;
  const facts = () => factsFor(db, { door: { kind }, design, requester, now });
  const form = formById(db, release.formId)?.key ?? '';
  const arriving = { form, stage: firstStage(register).key, day: todayAt(db, now) };
  const at = momentArriving(register.fields, arriving, facts);
  const after: Leads['at'] = (values, known) => momentArriving(register.fields, arriving, known, values);
  return { viewer, at, after };
}
