import { type Said, said } from '@tolvek/words';
import {
  compareContents,
  type DesignFinding,
  type DesignKind,
  type MergeRules,
  mergeContents,
} from '../design/index.ts';
import { isForAll } from '../people/index.ts';
import { isOrigin, namedIn } from '../register/index.ts';
import type { DoorDesign, DoorLimit } from './door.ts';

const PLACES: Readonly<Record<string, Said>> = {
  name: said('doors:theName'),
  audience: said('doors:theAudience'),
  proof: said('doors:theProof'),
  unnamed: said('doors:isUnnamed'),
  open: said('doors:isOpen'),
  opensAt: said('doors:theOpening'),
  closesAt: said('doors:theClosing'),
  limits: said('doors:theLimits'),
  closedMessage: said('doors:theMessage'),
  says: said('doors:theRefusals'),
  finishing: said('doors:theFinishing'),
  showsPlaces: said('doors:thePlaces'),
  instead: said('doors:theOtherDoor'),
  waits: said('doors:theWaiting'),
  confirmation: said('doors:theConfirmation'),
  consent: said('doors:theConsent'),
  prefills: said('doors:thePrefills'),
  whose: said('doors:theOwner'),
  proves: said('doors:theAsking'),
  follows: said('doors:theFollowing'),
  embeds: said('doors:theEmbedding'),
  changes: said('doors:theChanges'),
  again: said('doors:theAnew'),
  withdraws: said('doors:theWithdrawing'),
  slowsRobots: said('doors:theRobots'),
  onlySent: said('doors:isOnlySent'),
  translations: said('doors:theTranslations'),
};

const RULES: MergeRules = {
  lists: { limits: (item) => String(item.id) },
  nameOf: ([place = '']) => PLACES[place] ?? said('doors:theDoor'),
};

/** Whether two limits count the same requests. */
const countsAlike = (a: DoorLimit, b: DoorLimit): boolean =>
  a.of === b.of && a.days === b.days && a.period === b.period && a.unfinished === b.unfinished;

function found({ name, proof, opensAt, closesAt, limits, unnamed, ...door }: DoorDesign): readonly DesignFinding[] {
  const error = (at: string, message: Said): DesignFinding => ({ severity: 'error', page: 'doors', at, message });
  return [
    ...(name.trim() === '' ? [error('name', said('doors:noName'))] : []),
    ...(unnamed && limits.some(({ of }) => of === 'each') ? [error('limits', said('doors:unnamedEach'))] : []),
    ...(opensAt !== null && closesAt !== null && closesAt <= opensAt
      ? [error('closesAt', said('doors:closesFirst'))]
      : []),
    ...limits.flatMap((limit, place) =>
      limits.findIndex((each) => countsAlike(each, limit)) === place
        ? []
        : [error(`limits ${limit.id}`, said('doors:sameLimits'))],
    ),
    ...(door.showsPlaces && !limits.some(({ of }) => of === 'all')
      ? [error('showsPlaces', said('doors:noPlaces'))]
      : []),
    ...(door.waits !== undefined && !limits.some(({ of }) => of === 'all')
      ? [error('waits', said('doors:noPlacesToWait'))]
      : []),
    ...(door.waits !== undefined && unnamed ? [error('waits', said('doors:unnamedWaits'))] : []),
    ...(door.slowsRobots && proof === 'sign-in' ? [error('slowsRobots', said('doors:noRobots'))] : []),
    ...(door.onlySent && unnamed ? [error('onlySent', said('doors:unnamedSent'))] : []),
    ...(door.whose !== undefined && unnamed ? [error('whose', said('doors:unnamedWhose'))] : []),
    ...(door.whose !== undefined && door.proves === 'never' ? [error('whose', said('doors:neverWhose'))] : []),
    ...(door.whose !== undefined && limits.some(({ of }) => of === 'each')
      ? [error('limits', said('doors:whoseEach'))]
      : []),
    ...(door.proves && proof === 'sign-in' ? [error('proves', said('doors:noProving'))] : []),
    ...(door.proves && unnamed ? [error('proves', said('doors:unnamedProves'))] : []),
    ...(door.proves === 'never' && limits.some(({ of }) => of === 'each')
      ? [error('limits', said('doors:neverEach'))]
      : []),
    ...(door.proves === 'never' && !isForAll(door.audience) ? [error('proves', said('doors:neverKnown'))] : []),
    ...(door.again && door.changes === 'never' ? [error('again', said('doors:neverAnew'))] : []),
    ...(door.follows && proof === 'sign-in' ? [error('follows', said('doors:noFollowing'))] : []),
    ...(door.embeds?.every(isOrigin) === false ? [error('embeds', said('doors:badOrigins'))] : []),
    ...((door.embeds ?? []).length > 0 && proof === 'sign-in' ? [error('embeds', said('doors:embedsStaff'))] : []),
    ...(door.consent && door.consent.text.trim() === '' ? [error('consent', said('doors:emptyConsent'))] : []),
  ];
}

/** Doors as designs. They are in force at once; what came in stays. */
export const DOOR: DesignKind<DoorDesign> = {
  kind: 'door',
  titleOf: ({ name }) => name,
  compare: (before, after) => compareContents(before, after, RULES),
  merge: (base, mine, theirs) => mergeContents(base, mine, theirs, RULES),
  findings: found,
  refersTo: ({ audience, instead }) => [
    ...namedIn(audience).map((each) => ({ ...each, at: said('doors:theAudience') })),
    ...(instead === undefined ? [] : [{ kind: 'door' as const, key: instead, at: said('doors:theOtherDoor') }]),
  ],
};
