import { type Said, said, type Words } from '@tolvek/words';
import { conditionHolds, exceptionScope } from '../../access/index.ts';
import { placeholdersIn } from '../../design/index.ts';
import { conditionFindings, namesIn, type Scope } from '../../expression/index.ts';
import { type Audience, isGroup, peopleIn, wordsIn } from '../../people/index.ts';
import { hostAllowed, isFilled, type KnownStanding } from '../../register/index.ts';
import {
  addedParts,
  type Difference,
  type Edition,
  type FormDesign,
  fieldsAsked,
  type NamedAction,
  type Part,
  partKey,
} from '../design.ts';
import { ASKING, aboutPart, differenceKey, editionOf, type Leading, roundBy } from '../editions/index.ts';
import { partName } from '../words.ts';
import { circleOf } from './circles.ts';
import { presetFindings } from './fields.ts';
import type { Add } from './finding.ts';

/** What of the house editions name. */
export interface EditionsAround {
  readonly groups: ReadonlyMap<string, unknown>;
  /** The stages of the register, in order. */
  readonly stages: readonly { readonly key: string; readonly label: string }[];
  /** The key of this form, the forms in use with those they lead to, and the hosts that people may be led to. */
  readonly form: string;
  readonly forms: readonly Leading[];
  readonly hosts: readonly string[];
  /** Ids of people whom editions name and who are not here any more. */
  readonly gone: readonly string[];
  /** What conditions name. */
  readonly known: KnownStanding;
}

/** What is wrong or doubtful in the editions: one by one, where they collide with the form, and between them. */
export function editionFindings(design: FormDesign, scope: Scope, around: EditionsAround, add: Add): void {
  const editions = design.editions ?? [];
  for (const [index, edition] of editions.entries()) {
    const here: Add = (severity, page, _at, message, fix, of) => add(severity, page, edition.id, message, fix, of);
    audienceFindings(edition, around, here);
    conditionsOf(edition, design, around, here);
    differenceFindings(edition, design, scope, here);
    elsewhereFindings(edition, around, here);
    const over = editions.slice(0, index).find((before) => before.on && takesAll(before, edition));
    if (edition.on && over)
      here('caution', 'editions', '', said('findings:editionNever', { edition: edition.name, before: over.name }));
  }
  uncovered(design, editions, around, add);
}

function audienceFindings(edition: Edition, { groups, stages, gone }: EditionsAround, add: Add): void {
  const { name, audience, id } = edition;
  const error = (message: Said): void => add('error', 'editions', id, message);
  if (name.trim() === '') add('caution', 'editions', id, said('findings:editionNoName'));
  if (isNobody(audience)) add('caution', 'editions', id, said('findings:editionNobody', { edition: name }));
  const lost = wordsIn(audience).filter((word) => isGroup(word) && !groups.has(word));
  if (lost.length > 0) error(said('findings:editionLostGroup', { edition: name }));
  if (peopleIn(audience).some((person) => gone.includes(person)))
    add('caution', 'editions', id, said('findings:editionGonePerson', { edition: name }));
  for (const key of edition.stages ?? [])
    if (key !== ASKING && !stages.some((stage) => stage.key === key))
      add('error', 'editions', id, said('findings:editionLostStage', { edition: name }), {
        fix: 'drop-stage',
        ...{ edition: id, stage: key },
      });
  if (edition.stages?.length === 0) error(said('findings:editionNoStage', { edition: name }));
}

const isNobody = ({ in: inside, requester }: Audience): boolean =>
  requester !== 'in' &&
  (('anyOf' in inside && inside.anyOf.length === 0) || ('allOf' in inside && inside.allOf.length === 0));

function conditionsOf(edition: Edition, design: FormDesign, { known }: EditionsAround, add: Add): void {
  const { when, id, name, stages, elsewhere } = edition;
  if (when.trim() === '') return;
  const [wrong] = conditionFindings(when, exceptionScope(design.fields, known));
  if (wrong) {
    add('error', 'editions', id, wrong.message, undefined, 'condition');
    return;
  }
  const names = namesIn(when);
  const asked = design.fields.filter((field) => names.includes(field.key));
  const isAsking = stages?.length === 1 && stages[0] === ASKING;
  // By what is answered somebody is led elsewhere, and given nothing else.
  if (elsewhere) {
    const questions = fieldsAsked(design.parts);
    const unasked = asked.find(({ key }) => !questions.has(key));
    if (unasked)
      add('caution', 'editions', id, said('findings:editionLeadsUnasked', { edition: name, field: unasked.label }));
  } else if (asked.length > 0 && isAsking)
    add('caution', 'editions', id, said('findings:editionBeforeAnswers', { edition: name }));
}

/** Whether all whom a later edition could be given are given an earlier one, as far as that shows from how they are set. */
function takesAll(before: Edition, later: Edition): boolean {
  if (before.when.trim() !== '' && before.when.trim() !== later.when.trim()) return false;
  if (before.stages && !later.stages?.every((stage) => before.stages?.includes(stage))) return false;
  const [a, b] = [before.audience, later.audience];
  if (a.outOf.some((word) => !b.outOf.includes(word))) return false;
  if (a.requester === 'out' && b.requester !== 'out') return false;
  if (b.requester === 'in' && a.requester !== 'in' && !('everyone' in a.in)) return false;
  if ('everyone' in a.in) return true;
  if ('everyone' in b.in) return false;
  const ofA = 'anyOf' in a.in ? a.in.anyOf : a.in.allOf;
  const ofB = 'anyOf' in b.in ? b.in.anyOf : b.in.allOf;
  if (ofA.length === 0) return false;
  if ('anyOf' in b.in)
    return ofB.length > 0 && ofB.every((word) => ('anyOf' in a.in ? ofA.includes(word) : ofA.every((x) => x === word)));
  return 'anyOf' in a.in ? ofA.some((word) => ofB.includes(word)) : ofA.every((word) => ofB.includes(word));
}

/** What of an edition says nothing, or not what it meant, as the form is now. */
function differenceFindings(edition: Edition, design: FormDesign, scope: Scope, add: Add): void {
  const { differences, id } = edition;
  const own = addedParts(differences);
  const parts = [...design.parts, ...own];
  const named = { fields: design.fields, parts };
  const partOf = (key: string): Part | undefined => parts.find((part) => partKey(part) === key);
  // What nobody is asked is hidden and locked where requests are read.
  const isThere = (key: string): boolean =>
    partOf(key) !== undefined || design.fields.some((field) => field.key === key);
  const hidden = new Set(differences.flatMap((each) => (each.does === 'hide' ? [each.part] : [])));
  const isAsTheForm =
    !edition.readOnly && !edition.opens && !edition.title && edition.intro === undefined && !edition.elsewhere;
  if (differences.length === 0 && isAsTheForm)
    add('caution', 'editions', id, said('findings:editionNoDifference', { edition: edition.name }));
  for (const difference of differences) {
    const about = aboutPart(difference);
    const name = about === null ? '' : partName(named, about);
    const drop = { fix: 'drop-difference', edition: id, difference: differenceKey(difference) } as const;
    const say = (message: Words, severity: 'error' | 'caution' = 'caution'): void =>
      add(severity, 'editions', id, message, drop);
    if (difference.does === 'add') {
      addedFindings(difference, edition, design, say);
      continue;
    }
    if (difference.does === 'only') {
      const lost = difference.shows.filter((key) => !isThere(key));
      if (lost.length > 0) {
        const fix = { fix: 'drop-shown', edition: id, fields: lost } as const;
        add('caution', 'editions', id, said('findings:editionShowsLost', { edition: edition.name }), fix);
      }
      continue;
    }
    const part = about === null ? undefined : partOf(about);
    if (!part && (difference.does === 'hide' || difference.does === 'lock') && isThere(difference.part)) continue;
    if (!part) {
      say(said('findings:editionLostPart', { edition: edition.name, name }));
      continue;
    }
    if (difference.does !== 'hide' && hidden.has(partKey(part)))
      say(said('findings:editionHidesIt', { edition: edition.name, name }));
    const idle = idleIn(difference, part, differences, design);
    if (idle) say(said(`findings:editionIdle.${idle}`, { edition: edition.name, name }));
    if (difference.does === 'hide' && part.part === 'question' && part.required)
      add('caution', 'editions', id, said('findings:editionHidesRequired', { edition: edition.name, name }));
    if (difference.does === 'move' && difference.after !== null && !partOf(difference.after))
      say(said('findings:editionLostPlace', { edition: edition.name, name }));
    if (difference.does === 'offer') offerFindings(difference, edition, design, name, say);
    if (difference.does === 'preset' && difference.preset !== null) {
      const field = design.fields.find(({ key }) => key === difference.part);
      if (field && isFilled(field))
        presetFindings({ ...field, preset: difference.preset }, design, scope, (severity, _page, _at, message) =>
          say(message, severity),
        );
    }
  }
  const presets = differences.some((each) => each.does === 'preset');
  if (presets && !circleOf(design) && circleOf(editionOf(design, edition)))
    add('error', 'editions', id, said('findings:editionCircle', { edition: edition.name }));
}

/** What is wrong where an edition leads, and where that leads on. */
function elsewhereFindings({ elsewhere, id, name, stages, on }: Edition, around: EditionsAround, add: Add): void {
  if (!elsewhere) return;
  const { form, forms, hosts } = around;
  const say = (severity: 'error' | 'caution', message: Said): void => add(severity, 'editions', id, message);
  if (stages && !stages.includes(ASKING)) say('error', said('findings:editionElsewhereStages', { edition: name }));
  if ('address' in elsewhere) {
    if (hostAllowed(elsewhere.address, hosts) === null)
      say('error', said('findings:editionElsewhereHost', { edition: name, hosts }));
    return;
  }
  const to = forms.find(({ key }) => key === elsewhere.form);
  if (elsewhere.form === form) say('error', said('findings:editionElsewhereItself', { edition: name }));
  else if (!to) say('error', said('findings:editionElsewhereLost', { edition: name }));
  const round = on && elsewhere.form !== form ? roundBy(form, [elsewhere.form], forms) : [];
  const titles = round.map((key) => forms.find((each) => each.key === key)?.title ?? key);
  if (round.length > 0) say('caution', said('findings:editionElsewhereRound', { edition: name, forms: titles }));
}

/** Why a difference changes nothing, as the form is now. */
function idleIn(
  difference: Exclude<Difference, { does: 'add' | 'only' }>,
  part: Part,
  all: readonly Difference[],
  design: FormDesign,
): 'required' | 'spared' | 'worded' | 'locked' | null {
  const isQuestion = part.part === 'question';
  if (difference.does === 'require' && isQuestion) {
    if (all.some((each) => each.does === 'lock' && each.part === difference.part)) return 'locked';
    return part.required ? 'required' : null;
  }
  if (difference.does === 'spare' && isQuestion && !part.required) return 'spared';
  if (difference.does !== 'reword') return null;
  const now: Readonly<Record<string, unknown>> = { ...part };
  const label = isQuestion ? design.fields.find(({ key }) => key === part.field)?.label : undefined;
  const isSaid = (name: 'asks' | 'help' | 'title' | 'text'): boolean =>
    difference[name] === undefined ||
    difference[name] === now[name] ||
    (name === 'asks' && difference.asks === label && now.asks === '');
  return (['asks', 'help', 'title', 'text'] as const).every(isSaid) ? 'worded' : null;
}

/** Buttons that do nothing, as the form is now, or that nobody comes to see. */
function buttonFindings(
  actions: readonly NamedAction[],
  { name: edition, stages }: Pick<Edition, 'name' | 'stages'>,
  { fields, approval }: FormDesign,
  say: SayOf,
): void {
  const isOf = (key: string, kind: 'people' | 'person'): boolean =>
    fields.some((field) => field.key === key && field.type.kind === kind);
  for (const action of actions) {
    const { label } = action;
    const texts = action.does === 'take-part' ? [label, action.back] : [label];
    if (texts.some((text) => text.trim() === '')) say(said('findings:buttonNoWords', { edition }), 'error');
    if (action.does === 'take-part' && !isOf(action.field, 'people'))
      say(said('findings:buttonNoList', { edition, label }), 'error');
    if (action.does === 'begin' && !approval.paths.some(({ id }) => id === action.path))
      say(said('findings:buttonNoPath', { edition, label }), 'error');
    if (action.does === 'ask' && action.asks !== '' && !isOf(action.asks, 'person'))
      say(said('findings:buttonNobody', { edition, label }), 'error');
  }
  if (actions.length > 0 && stages?.every((stage) => stage === ASKING)) say(said('findings:buttonNever', { edition }));
}

type SayOf = (message: Words, severity?: 'error' | 'caution') => void;

function addedFindings(
  { adds, after }: Extract<Difference, { does: 'add' }>,
  { name: edition, differences, stages }: Edition,
  design: FormDesign,
  say: SayOf,
): void {
  const key = partKey(adds);
  const name = partName({ fields: design.fields, parts: [adds] }, key);
  if (design.parts.some((part) => partKey(part) === key)) {
    say(said('findings:editionAddsTwice', { edition, name }));
    return;
  }
  if (adds.part === 'question') {
    const field = design.fields.find((each) => each.key === adds.field);
    if (!field) say(said('findings:editionAddsLost', { edition }), 'error');
    else if (field.source !== 'asked')
      say(said('findings:editionAddsUnasked', { edition, name: field.label }), 'error');
  }
  if (adds.part === 'instruction')
    for (const field of placeholdersIn(adds.text))
      if (!design.fields.some((each) => each.key === field)) say(said('findings:textMissesField', { field }), 'error');
  if (adds.part === 'instruction') buttonFindings(adds.actions ?? [], { name: edition, stages }, design, say);
  const there = [...design.parts, ...addedParts(differences)];
  if (after !== null && !there.some((part) => partKey(part) === after))
    say(said('findings:editionLostPlace', { edition, name }));
}

function offerFindings(
  { part, offers }: Extract<Difference, { does: 'offer' }>,
  { name: edition }: Edition,
  design: FormDesign,
  name: string,
  say: SayOf,
): void {
  const type = design.fields.find(({ key }) => key === part)?.type;
  if (type?.kind !== 'choice' && type?.kind !== 'choices') {
    say(said('findings:editionNoChoice', { edition, name }), 'error');
    return;
  }
  const open = type.options.filter((option) => !option.retired).map(({ key }) => key);
  const left = open.filter((key) => offers.includes(key));
  if (left.length === 0) say(said('findings:editionOffersNone', { edition, name }), 'error');
  else if (left.length === open.length) say(said('findings:editionOffersAll', { edition, name }));
  else if (offers.some((key) => !type.options.some((option) => option.key === key)))
    say(said('findings:editionOffersLost', { edition, name }));
}

/**
 * Stages and options that were told apart and forgotten: where editions of one audience name stages, those that none
 * names; where conditions ask for the option of a choice, those for which none holds.
 */
function uncovered(design: FormDesign, editions: readonly Edition[], { stages }: EditionsAround, add: Add): void {
  const on = editions.filter((edition) => edition.on);
  const byAudience = new Map<string, Edition[]>();
  for (const edition of on) {
    const key = JSON.stringify(edition.audience);
    byAudience.set(key, [...(byAudience.get(key) ?? []), edition]);
  }
  for (const alike of byAudience.values()) {
    const [first] = alike;
    const named = alike.filter((edition) => edition.stages !== undefined);
    if (!first || named.length < 2 || named.length < alike.length) continue;
    const missed = stages.filter(({ key }) => !named.some((edition) => edition.stages?.includes(key)));
    const isAtSome = named.some((edition) => edition.stages?.some((key) => key !== ASKING));
    if (isAtSome && missed.length > 0)
      add(
        'caution',
        'editions',
        first.id,
        said('findings:editionMissesStages', { stages: missed.map((s) => s.label) }),
      );
  }
  for (const field of design.fields) {
    if (field.type.kind !== 'choice') continue;
    const asking = on.filter(
      ({ when }) =>
        namesIn(when).includes(field.key) &&
        design.fields.every(({ key }) => key === field.key || !namesIn(when).includes(key)),
    );
    const [first] = asking;
    if (!first || asking.length < 2) continue;
    const nothing = () => {
      throw new Error('Not asked for.');
    };
    const isCovered = (option: string): boolean =>
      asking.some(({ when }) => {
        const values = { [field.key]: option };
        try {
          return conditionHolds(when, { fields: design.fields, values, facts: nothing, standing: nothing });
        } catch {
          // It asks for more than the answer: that can be anything.
          return true;
        }
      });
    const missed = field.type.options.filter((option) => !option.retired && !isCovered(option.key));
    if (missed.length > 0)
      add(
        'caution',
        'editions',
        first.id,
        said('findings:editionMissesOptions', { label: field.label, options: missed.map(({ label }) => label) }),
      );
  }
}
