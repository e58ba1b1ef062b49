import type { AnswerOf } from '@tolvek/contract';
import { levelsAsking, momentArriving } from '@tolvek/core/access';
import {
  ASKING,
  ASKS,
  askedBy,
  chooseEdition,
  editionOf,
  type FormDesign,
  fieldsAsked,
  inLanguage,
  leadsByAnswers,
  ledByAnswers,
  OWN_REQUESTS,
  prepareCompletion,
} from '@tolvek/core/form';
import { askedAbout } from '@tolvek/core/mailing';
import { type Audience, profileConditionsIn, type Viewer } from '@tolvek/core/people';
import {
  calledFields,
  type KnownFile,
  type KnownRequest,
  personMeets,
  type RawAnswer,
  type RequestFacts,
  requestScope,
  requestSlots,
  vocabularyIn,
} from '@tolvek/core/register';
import { useCallback, useMemo, useState } from 'react';
import type { Language } from '../wire/words.ts';
import { workshopApi } from './endpoints.ts';
import { useOver } from './useOver.ts';

/** Whose eyes the proof has: somebody from outside, any colleague, or somebody by id. */
export type Seat = 'outside' | 'staff' | (string & {});

/** Whether nobody in particular sits there. */
export const isAnybody = (seat: Seat): seat is 'outside' | 'staff' => seat === 'outside' || seat === 'staff';

type Sitting = AnswerOf<'proofSeat'>;

const NO_RIGHTS: Viewer['rights'] = [];

/** What conditions would know if whoever sits there asked now. */
export function factsAtSeat(
  seat: Seat,
  sitting: Sitting | undefined,
  { people, profile, today, now, calendar, vocabularies }: AnswerOf<'form'>,
  references: readonly KnownRequest[],
  files: readonly KnownFile[],
): RequestFacts {
  const person = sitting ?? people.find((each) => each.key === seat);
  const isOutside = seat === 'outside' || sitting?.kind === 'contact';
  return {
    requesterIsOutside: isOutside,
    requesterId: person?.key ?? null,
    requesterGroups: person?.groups ?? [],
    department: person?.department ?? '',
    profile: { fields: profile, values: person?.profile ?? {} },
    door: isOutside ? 'outside' : 'staff',
    today,
    now,
    calendar,
    files,
    vocabularies,
    references,
    numbers: {},
    people: people.map((each) => ({ id: each.key, name: each.label, groups: each.groups })),
  };
}

/** Who sits there, as far as rules of access tell people apart. */
export const viewerAtSeat = (
  facts: RequestFacts,
  rights: Viewer['rights'],
  rules: readonly { readonly audience: Audience }[],
): Viewer => ({
  ...{ personId: facts.requesterId ?? '', kind: facts.requesterIsOutside ? 'contact' : 'staff' },
  ...{ groups: facts.requesterGroups, rights },
  meets: rules
    .flatMap(({ audience }) => profileConditionsIn(audience))
    .filter((condition) => personMeets(condition, facts.profile)),
});

/**
 * The draft as the chosen person meets it, with the answers typed into the proof: what rules and
 * routing are tried on.
 */
export function useProof(draft: FormDesign, form: AnswerOf<'form'>) {
  const { groups, people, profile, vocabularies } = form;
  const [seat, setSeat] = useState<Seat>(form.doors.some((door) => door.kind === 'outside') ? 'outside' : 'staff');
  /** The id of an edition that is looked at whoever sits there; empty: the form as it is, null: the one they are given. */
  const [wanted, setWanted] = useState<string | null>(null);
  /** In which language it is looked at; null: as it is written. */
  const [language, setLanguage] = useState<Language | null>(null);
  const [answers, setAnswers] = useState<Readonly<Record<string, RawAnswer>>>({});
  const know = useCallback(
    (known: KnownRequest) => setReferences((before) => [...before.filter((each) => each.id !== known.id), known]),
    [],
  );
  const { fields, updates } = draft;
  /** The field that says whose it is, where a form changes what is there. */
  const named = updates && updates.whose !== OWN_REQUESTS ? updates.whose : null;
  const scope = useMemo(
    () =>
      requestScope(fields, {
        people,
        profile,
        vocabularies,
        groups: groups.map((group) => ({ key: group.key, label: group.name })),
      }),
    [fields, groups, people, profile, vocabularies],
  );
  const [references, setReferences] = useState<readonly KnownRequest[]>([]);
  const [files, setFiles] = useState<readonly KnownFile[]>([]);
  const hold = useCallback((file: KnownFile) => setFiles((before) => [...before, file]), []);
  const { data } = workshopApi.useProofSeatQuery({ key: form.key, person: seat }, { skip: isAnybody(seat) });
  const sitting = data?.key === seat ? data : undefined;
  const rights = sitting?.rights ?? NO_RIGHTS;
  const facts = useMemo(() => {
    const known = factsAtSeat(seat, sitting, form, references, files);
    return { ...known, vocabularies: known.vocabularies.map((each) => vocabularyIn(each, language)) };
  }, [seat, sitting, form, references, files, language]);
  const read = useMemo(() => (language === null ? draft : inLanguage(draft, language)), [draft, language]);
  const { parts: wholeParts, rules: wholeRules, editions, title, intro } = read;
  // Called as whoever asks reads them.
  const all = calledFields(read.fields);
  const arriving = useMemo(
    () => ({ form: form.key, stage: form.stages[0]?.key ?? '', day: facts.today }),
    [form.key, form.stages, facts.today],
  );
  const moment = useMemo(() => momentArriving(all, arriving, () => facts), [all, arriving, facts]);
  /** The edition that whoever sits there is given. */
  const given = useMemo(() => {
    const audiences = [...form.asking, ...(editions ?? [])];
    const who = viewerAtSeat(facts, rights, audiences);
    return chooseEdition(editions ?? [], {
      who,
      stands: ASKS,
      stage: ASKING,
      holds: moment.holds,
      asked: fieldsAsked(wholeParts),
    });
  }, [editions, wholeParts, form.asking, rights, facts, moment]);
  const edition = wanted === null ? given.edition : ((editions ?? []).find(({ id }) => id === wanted) ?? null);
  // What the edition has otherwise, and what the access plan lets whoever sits there fill in while they ask.
  const { parts, ...asked } = useMemo(() => {
    const whole = { title, intro, fields: all, parts: wholeParts, rules: wholeRules };
    const laid = edition ? editionOf(whole, edition) : whole;
    const rules = form.asking;
    const given =
      rules.length === 0
        ? laid
        : askedBy(laid, levelsAsking(all, { rules }, viewerAtSeat(facts, rights, rules), moment));
    // Whose it is, is whoever sits there.
    return named === null || isAnybody(seat) ? given : askedAbout(given, [{ field: named, value: seat }]);
  }, [title, intro, all, wholeParts, wholeRules, edition, form.asking, rights, facts, moment, named, seat]);
  const complete = useMemo(
    () => prepareCompletion({ fields: asked.fields, rules: asked.rules, parts }),
    [asked.fields, asked.rules, parts],
  );
  const known = useMemo(() => {
    const asked = fieldsAsked(parts);
    return Object.fromEntries(Object.entries(answers).filter(([key]) => asked.has(key)));
  }, [answers, parts]);
  const over = useOver(draft, form, { seat, fields: asked.fields, parts, complete, known, facts });
  const completion = useMemo(() => over?.completion ?? complete(known, facts), [over, complete, known, facts]);
  /** Where the answers so far lead; null while it is asked here. */
  const led = useMemo(() => {
    const leads = wanted === null ? leadsByAnswers(editions ?? [], given) : [];
    if (leads.length === 0) return null;
    const { holds } = momentArriving(all, arriving, () => facts, completion.values);
    return ledByAnswers(leads, { fields: all, asked: fieldsAsked(parts), holds });
  }, [wanted, editions, given, all, arriving, facts, completion.values, parts]);
  return {
    draft,
    led,
    seat,
    setSeat,
    /** Who is looked up to sit there: somebody by id. */
    sitting,
    given,
    wanted,
    setWanted,
    language,
    setLanguage,
    edition,
    asked: { ...asked, parts },
    facts,
    named,
    over,
    answers: known,
    answer: (key: string, value: RawAnswer) => setAnswers((before) => ({ ...before, [key]: value })),
    know,
    hold,
    clear: () => {
      setAnswers({});
      over?.clear();
    },
    completion,
    scope,
    slots: requestSlots(fields, completion.values, facts),
  };
}

export type ProofState = ReturnType<typeof useProof>;
