import type { refusals } from './en/refusals.ts';
import type { Places, Said, Words } from './said.ts';

type Texts = typeof refusals;
/** Every refusal there is: one for which all three parts are written. */
export type RefusalName = {
  [Name in keyof Texts]: Name extends `${infer Base}.happened`
    ? `${Base}.saved` extends keyof Texts
      ? `${Base}.now` extends keyof Texts
        ? Base
        : never
      : never
    : never;
}[keyof Texts];

type PartOf<N extends RefusalName, P extends string> = Places<Texts[`${N}.${P}` & keyof Texts]>;
type GivenTo<N extends RefusalName> = PartOf<N, 'happened'> & PartOf<N, 'saved'> & PartOf<N, 'now'>;

/** What somebody is told whose call was refused: three sentences, and a way on where there is one. */
export interface Refusal {
  readonly happened: Words;
  /** What is saved, and what is not. */
  readonly saved: Words;
  /** What to do now. */
  readonly now: Words;
  /** The button or link that belongs beside it. */
  readonly way?: Way;
}

/** Where a refusal leads: a page of ours, an email to the desk, this page anew, or the same call again. */
export type Way = (typeof WAY_NAMES)[number];
export const WAY_NAMES = ['front-desk', 'sign-in', 'email', 'reload', 'again'] as const;

/** The refusals after which something can be done at once. */
const WAYS: Readonly<Partial<Record<RefusalName, Way>>> = {
  notFound: 'front-desk',
  signIn: 'sign-in',
  unreadable: 'reload',
  unexpected: 'again',
  offline: 'again',
  cannotWrite: 'email',
  noDecision: 'front-desk',
  decideLinkGone: 'front-desk',
  noLongerDecides: 'front-desk',
  alreadyApproved: 'front-desk',
  alreadyRefused: 'front-desk',
  alreadyFreed: 'front-desk',
  alreadyYours: 'front-desk',
  someoneDecided: 'reload',
  closed: 'email',
  notAdmitted: 'email',
  formChanged: 'reload',
  consentChanged: 'reload',
  workMissing: 'again',
  confirmGone: 'front-desk',
  keptGone: 'front-desk',
  keptExpired: 'front-desk',
  signInToKeep: 'sign-in',
  otherSite: 'reload',
  tooMany: 'again',
  tooManyPages: 'reload',
  linkUnknown: 'front-desk',
  confirmUsed: 'front-desk',
  decideUsed: 'front-desk',
  linkUsed: 'front-desk',
  confirmExpired: 'front-desk',
  decideExpired: 'sign-in',
  followExpired: 'email',
  sharedOver: 'front-desk',
  sharedClosed: 'front-desk',
  busy: 'again',
  diskFull: 'again',
  findingGone: 'reload',
  changedSinceDryRun: 'reload',
  busySigningIn: 'again',
  starting: 'again',
  firstStartUsed: 'sign-in',
  inviteUsed: 'sign-in',
};

/**
 * Says why a call is refused.
 *
 * @example refused('taken', { label: 'School' })
 */
export function refused<N extends RefusalName>(
  name: N,
  ...[given]: unknown extends GivenTo<N> ? [] : [given: GivenTo<N>]
): Refusal {
  const part = (of: string): Said => ({
    say: `refusals:${name}.${of}`,
    ...(given ? { with: given as NonNullable<Said['with']> } : {}),
  });
  const way = WAYS[name];
  return { happened: part('happened'), saved: part('saved'), now: part('now'), ...(way ? { way } : {}) };
}
