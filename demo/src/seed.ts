import { readFileSync } from 'node:fs';
import { Readable } from 'node:stream';
import type { AccessPlan } from '@tolvek/core/access';
import { CALENDAR } from '@tolvek/core/deadline';
import { newDoor } from '@tolvek/core/door';
import { FORM, type FormDesign } from '@tolvek/core/form';
import { USUAL_HEARING } from '@tolvek/core/notice';
import { PROGRAM } from '@tolvek/core/program';
import type { RawAnswers } from '@tolvek/core/register';
import { ROSTER } from '@tolvek/core/roster';
import { USUAL_NOTICES } from '@tolvek/core/telling';
import {
  addDoor,
  addMailing,
  addPeople,
  addPerson,
  askedFor,
  assign,
  bringVocabularies,
  by,
  changeGroup,
  changePerson,
  changeProfile,
  changeRegister,
  comment,
  confirmSubmission,
  createForm,
  DEMO_PASSWORD,
  decide,
  doorView,
  enterGroup,
  findingsOfForm,
  formByKey,
  goAway,
  type House,
  layDesk,
  makeDesign,
  makeDoor,
  makeGroup,
  makeInForce,
  makeRegister,
  makeReport,
  makeView,
  moveStage,
  newId,
  nextMailingAt,
  nextTimerAt,
  personById,
  registerByKey,
  releaseForm,
  requestById,
  runDueTimers,
  runMailings,
  saveDraft,
  sendMailing,
  setOwnEmails,
  settleDoor,
  settleRights,
  submit,
  takeFile,
  viewerOf,
  write,
} from '@tolvek/server';
import {
  forms,
  links,
  mailings,
  notices,
  owedForms,
  people,
  requests,
  seats,
  waitingSubmissions,
} from '@tolvek/server/schema';
import type { Words } from '@tolvek/words';
import { and, eq, lt } from 'drizzle-orm';
import { type Asking, MADE_UP, SCHOOLS, schoolVisit } from './asking.ts';
import { DESK_AS_LAID } from './desk.ts';
import { decidedByOfficers, WAITING_DIVES } from './dives.ts';
import { SCHOOL_DOOR, UNNAMED_DOOR, UNNAMED_SET } from './doors.ts';
import { CONTRACTORS, siteEditions } from './editions.ts';
import { bringEmails } from './emails.ts';
import { ASKED, type AskedOnce } from './forms/asked.ts';
import {
  budgets,
  concern,
  type DemoForm,
  dive,
  kit,
  kitCheck,
  kitStore,
  laboratory,
  methods,
  purchase,
  rooms,
  SKILLED,
  school,
  skills,
  THINGS,
  tripReport,
  VOCABULARIES,
  vessel,
  vessels,
} from './forms/index.ts';
import { inGermanToo, stagesInGermanToo } from './german.ts';
import { KIT_CHECKS, kitFound, SKILL_CHECKS, TRIP_REPORTS, tripTold } from './mailings.ts';
import { MORE_CONTACTS, NESTED, RULED, SCIENTISTS } from './morePeople.ts';
import { addressOf, CONTACTS, GROUPS, STAFF } from './people.ts';
import { PROFILE_FIELDS, profileFor } from './profiles.ts';
import { boatLog, TOLD_LOG } from './programs.ts';
import { seeded, visit } from './requests.ts';
import { rostersBy } from './rosters.ts';
import { accessPlan, boatsCalendar, deskCalendar, labCalendar, siteAccess, stages } from './siteAccess.ts';
import { underTopic } from './topics.ts';
import { reportOfDesk, VIEWS } from './views.ts';

/** Where the demo's clock starts: a Monday morning with the desk open. */
export const DEMO_NOW = Date.parse('2026-11-23T10:42:00Z');

const DAY = 86_400_000;
const HOUR = 3_600_000;
/** How far back the demo reaches. */
const PAST = 120 * DAY;
/** For how long the coordinator has sent forms to people. */
const MAILING_FOR = 20 * DAY;

/** Whether the scenario is there. */
export const isSeeded = ({ db }: House): boolean =>
  db.select({ id: forms.id }).from(forms).limit(1).get() !== undefined;

/**
 * Fills an empty database with the scenario, played in through the server's own commands at the
 * moments they happened.
 */
export async function seed(house: House, size: number): Promise<void> {
  if (isSeeded(house)) return;
  house.db.$client.pragma('synchronous = OFF');
  const story = new Story(house);
  await story.layGround();
  await story.play(size);
  if (size > 0) {
    story.groupByRule(RULED);
    story.layUp('Guillemot');
    story.letLeave('Cormac Dewhurst');
    story.letGoAway('Edda Kilbride', 'Lorcan Abernethy');
    story.readInTheMorning('Jory Blackadder-Finn');
    await story.planDives();
    await story.shareSamples();
    await story.keepWatch();
    story.keepViews();
    await bringEmails(house);
  }
  house.db.$client.pragma('synchronous = FULL');
}

class Story {
  private moment = DEMO_NOW - PAST;
  private readonly house: House;
  private ids: ReadonlyMap<string, string> = new Map();
  private readonly random = seeded(20_261_123);
  /** Chance of its own, so that what is sent to people leaves everything else of the story as it is. */
  private readonly answering = seeded(20_261_124);
  private schools = 0;
  private readonly known = new Map<string, string>();

  constructor(house: House) {
    this.house = { ...house, clock: { now: () => this.moment }, wakeOutbox: () => {}, wakeJobs: () => {} };
  }

  async layGround(): Promise<void> {
    const { db } = this.house;
    const staff = STAFF.map((person) => ({
      name: person.name,
      email: addressOf(person.name),
      kind: 'staff' as const,
      role: person.role ?? ('member' as const),
      groups: person.groups,
      does: person.does ?? '',
      active: true,
    }));
    const contacts = CONTACTS.map((contact) => ({
      name: contact.name,
      email: addressOf(contact.name, contact.at),
      kind: 'contact' as const,
      role: 'member' as const,
      groups: [],
      does: '',
      active: contact.active ?? true,
    }));
    this.ids = await addPeople(this.house, GROUPS, [...staff, ...contacts], DEMO_PASSWORD);

    const formId = newId();
    const done = { viewer: this.viewer('Maren Okafor'), now: this.moment };
    const ada = { viewer: this.viewer('Ada Quillfeather'), now: this.moment };
    db.transaction((tx) => layDesk(tx, DESK_AS_LAID, '', ada));
    this.addMorePeople();
    this.fillProfiles();
    for (const content of [deskCalendar, boatsCalendar, labCalendar])
      db.transaction((tx) => makeInForce(tx, CALENDAR, { key: content.key, content, note: '' }, done));
    const { routing, approval, deadline } = siteAccess;
    const register = {
      ...{
        name: 'Site access',
        prefix: 'AC',
        fields: siteAccess.fields,
        stages: stagesInGermanToo(stages),
        access: placing(accessPlan, siteAccess.fields),
      },
      ...{ deskGroups: ['site-safety'], staysIn: false, holds: 'requests' as const, left: [] },
      ...{ subject: siteAccess.subject, unique: [], usual: { routing, approval, deadline } },
    };
    const registerId = db.transaction((tx) => makeRegister(tx, 'site-access', register, done));
    const content = inGermanToo({ ...underTopic(siteAccess), editions: siteEditions(this.addContractors()) });
    db.transaction((tx) => makeDesign(tx, FORM, { id: formId, key: 'site-access', content }));
    db.insert(forms).values({ id: formId, registerId }).run();
    db.transaction((tx) => {
      makeDoor(tx, { formId, slug: 'come-on-site', design: newDoor('sign-in', 'Staff door') }, done);
      makeDoor(tx, { formId, slug: 'visit', design: newDoor('confirmed-address', 'Outside door') }, done);
    });
    await this.release('site-access');
    db.transaction((tx) => bringVocabularies(tx, VOCABULARIES, done));
    for (const form of [vessels, kitStore, budgets, rooms, methods]) await this.make(form);
    await this.fillRegisters();
    for (const form of [vessel, laboratory, dive, kit, purchase, concern, school]) await this.make(form);
    for (const form of [tripReport, kitCheck, skills]) await this.make(form);
    for (const [index, [name, answers]] of SKILLED.entries()) this.tellSkill(name, answers, `${index}`);
    protectConcerns(db, done);
    this.letBuyersExport();
  }

  /** Somebody says what they can do. */
  private tellSkill(name: string, answers: RawAnswers, key: string): void {
    submit(this.house, this.viewer(name), { slug: 'my-skills', release: 1, answers, key: `demo-skill-${key}` });
  }

  /** Whoever buys takes the list of purchases to the bank; elsewhere requests stay where they are. */
  private letBuyersExport(): void {
    const ada = this.viewer('Ada Quillfeather');
    const { id } = registerByKey(this.house.db, 'purchase') ?? { id: '' };
    write(this.house, (work) => settleRights(by(work, ada.personId), ada, 'purchasing', { give: ['export:team'] }, id));
  }

  /** The scientists, groups that hold groups, and the contacts of all institutes: as the administrator adds them. */
  private addMorePeople(): void {
    write(this.house, (whole) => {
      const work = by(whole, this.id('Ada Quillfeather'));
      const group = makeGroup(work, { name: 'All scientists', about: 'Whoever does research here', isTeam: false });
      for (const name of SCIENTISTS) {
        const { id } = addPerson(work, { kind: 'staff', name, email: addressOf(name) });
        enterGroup(work, { group, member: { person: id }, from: null, until: null });
      }
      for (const { groups, ...nested } of NESTED) {
        const outer = makeGroup(work, { ...nested, isTeam: false });
        for (const inner of groups)
          enterGroup(work, { group: outer, member: { group: inner }, from: '2026-03-01', until: null });
      }
      for (const { name, at, active } of MORE_CONTACTS)
        addPerson(work, { kind: 'contact', name, email: addressOf(name, at), active });
    });
  }

  /** Who works at the station for a firm; one of them is of its staff as well. Gives the key of their group. */
  private addContractors(): string {
    return write(this.house, (whole) => {
      const work = by(whole, this.id('Ada Quillfeather'));
      const since = { from: null, until: null };
      const byAddress = new Map(
        work.tx
          .select()
          .from(people)
          .all()
          .map(({ email, id }) => [email, id]),
      );
      const idOf = (name: string): string =>
        byAddress.get(addressOf(name, MORE_CONTACTS.find((each) => each.name === name)?.at)) ?? '';
      const about = 'Firms that work at the station';
      const contractors = makeGroup(work, { name: 'Contractors', about, isTeam: false });
      for (const name of CONTRACTORS)
        enterGroup(work, { group: contractors, member: { person: idOf(name) }, ...since });
      return contractors;
    });
  }

  /** What the station knows of its people, as the coordinator fills it in. */
  private fillProfiles(): void {
    const maren = this.viewer('Maren Okafor');
    write(this.house, (whole) => {
      const work = by(whole, maren.personId);
      const profile = { fields: PROFILE_FIELDS };
      changeProfile(work.tx, { version: 0, profile, note: '' }, { viewer: maren, now: this.moment });
      const everybody = work.tx.select().from(people).orderBy(people.email).all();
      for (const [place, { id, version, ...person }] of everybody.entries())
        changePerson(work, maren, {
          id,
          version,
          changes: { profile: profileFor(person, place, (name) => this.id(name)) },
        });
    });
  }

  /** A group is made whose members follow from what the station knows of them. */
  groupByRule({ name, about, rule }: typeof RULED): void {
    write(this.house, (whole) => {
      const work = by(whole, this.id('Ada Quillfeather'));
      const key = makeGroup(work, { name, about, isTeam: false });
      changeGroup(work, { key, version: 1, changes: { rule } });
    });
  }

  /** Somebody reads what is new for their team each morning, and at once what is for today. */
  readInTheMorning(name: string): void {
    setOwnEmails(this.house, this.id(name), { ...USUAL_HEARING, ways: { team: 'digest' } });
  }

  /** Somebody is away for two weeks, and somebody else decides for them. */
  letGoAway(name: string, substitute: string): void {
    write(this.house, (work) => {
      const away = { person: this.id(name), from: '2026-11-16', until: '2026-11-27', substitute: this.id(substitute) };
      return goAway(by(work, this.id(name)), away);
    });
  }

  /** Somebody has left, and their work is still theirs. */
  letLeave(name: string): void {
    const leaver = personById(this.house.db, this.id(name));
    if (leaver)
      write(this.house, (work) =>
        changePerson(by(work, this.id('Ada Quillfeather')), this.viewer('Ada Quillfeather'), {
          ...{ id: leaver.id, version: leaver.version, changes: { active: false } },
        }),
      );
  }

  /** Dive plans are decided by several from now on; some wait, each at another step. */
  async planDives(): Promise<void> {
    const maren = this.viewer('Maren Okafor');
    const form = formByKey(this.house.db, 'dive-plan');
    if (!form) throw new Error('There is no dive plan.');
    const draft = decidedByOfficers(form.draft);
    const { version } = saveDraft(this.house, maren, { key: form.key, version: form.version, draft });
    const input = { key: form.key, version, note: 'Two officers and the lead decide; deep dives once more' };
    const { number: release } = releaseForm(this.house, maren, input, await findingsOfForm(this.house.db, form.key));
    for (const [place, { by: name, answers, agreed }] of WAITING_DIVES.entries()) {
      const key = `demo-dive-${place}`;
      const asked = submit(this.house, this.viewer(name), { slug: 'dive-plan', release, answers, key });
      if (!('number' in asked)) continue;
      for (const officer of agreed)
        decide(this.house, this.viewer(officer), {
          ...{ number: asked.number, verdict: 'approve', comment: '', seen: null, key: `${key}-${officer}` },
        });
    }
  }

  /** Samples go to whoever of the laboratory knows them already, else to whom has the least to do. */
  async shareSamples(): Promise<void> {
    const handler = { ways: [{ by: 'last' as const }, { by: 'load' as const }], most: 25 };
    await this.releaseChanged(
      'sample-analysis',
      ({ routing: { rows, otherwise, ...table }, ...draft }) => ({
        ...draft,
        routing: {
          ...table,
          rows: rows.map((row) => ({ ...row, outcome: { ...row.outcome, handler } })),
          otherwise: { ...otherwise, handler },
        },
      }),
      'Analysts get their requests by what they have to do',
    );
  }

  /** Who is on duty when: dear trips go to whoever has the watch. The boats keep a log of their own, which is told of trips. */
  async keepWatch(): Promise<void> {
    const done = { viewer: this.viewer('Maren Okafor'), now: this.moment };
    const trips = formByKey(this.house.db, 'vessel-time')?.registerId ?? '';
    const log = boatLog(this.house.config.url, trips);
    this.house.db.transaction((tx) => makeInForce(tx, PROGRAM, { key: log.key, content: log, note: '' }, done));
    for (const content of rostersBy((name) => this.id(name)))
      this.house.db.transaction((tx) => makeInForce(tx, ROSTER, { key: content.key, content, note: '' }, done));
    const handler = {
      ways: [{ by: 'duty' as const, roster: 'boat-watch', orNext: true }, { by: 'load' as const }],
    };
    await this.releaseChanged(
      'vessel-time',
      ({ routing: { rows, ...table }, notices = USUAL_NOTICES, ...draft }) => ({
        ...draft,
        routing: {
          ...table,
          rows: rows.map((row) => (row.id === 'costly' ? { ...row, outcome: { ...row.outcome, handler } } : row)),
        },
        notices: { ...notices, rules: [...notices.rules, ...TOLD_LOG] },
      }),
      'Dear trips go to the boat watch, and trips into the boat log',
    );
  }

  /** Ways to look at the work that the desk made for itself. */
  keepViews(): void {
    const made = new Map(
      VIEWS.map(({ by, view }) => [view.name, makeView(this.house, this.viewer(by), view, newId()).id]),
    );
    const report = reportOfDesk((name) => made.get(name) ?? '');
    makeReport(this.house, this.viewer('Maren Okafor'), report, newId());
  }

  /** A form otherwise, in force at once. */
  private async releaseChanged(key: string, change: (draft: FormDesign) => FormDesign, note: string): Promise<void> {
    const form = formByKey(this.house.db, key);
    if (!form) throw new Error(`There is no ${key}.`);
    const maren = this.viewer('Maren Okafor');
    const draft = change(form.draft);
    const { version } = saveDraft(this.house, maren, { key, version: form.version, draft });
    releaseForm(this.house, maren, { key, version, note }, await findingsOfForm(this.house.db, key));
  }

  /** Releases a form’s draft for the first time, as the coordinator would. */
  private async release(key: string): Promise<void> {
    const input = { key, version: 1, note: 'The first release' };
    releaseForm(this.house, this.viewer('Maren Okafor'), input, await findingsOfForm(this.house.db, key));
  }

  /** Makes a form as the coordinator would, and releases it. */
  private async make({ prefix, desk, doors: opened, design, holds }: DemoForm): Promise<void> {
    const maren = this.viewer('Maren Okafor');
    const { key } = createForm(this.house, maren, {
      prefix,
      desk,
      doors: opened,
      holds: holds ?? 'requests',
      draft: underTopic(design),
      idempotencyKey: `demo-form-${prefix}`,
    });
    await this.release(key);
  }

  /** The things that other forms let people choose from, taken in by the coordinator. */
  private async fillRegisters(): Promise<void> {
    const person = (value: unknown): unknown =>
      typeof value === 'string' && value.startsWith('person:') ? this.id(value.slice(7)) : value;
    for (const [index, { form, answers }] of THINGS.entries()) {
      const given = {
        ...(Object.fromEntries(Object.entries(answers).map(([key, value]) => [key, person(value)])) as RawAnswers),
        ...(typeof answers.photo === 'string' ? { photo: [await this.picture(form, answers.photo)] } : {}),
      };
      submit(this.house, this.viewer('Maren Okafor'), {
        slug: form,
        release: 1,
        answers: given,
        key: `demo-thing-${index}`,
      });
    }
  }

  /** Sends one of the demo’s pictures for the photo of a thing. */
  private async picture(form: string, name: string): Promise<string> {
    const bytes = readFileSync(new URL(`../pictures/${name}.png`, import.meta.url));
    const at = formByKey(this.house.db, form);
    if (!at) throw new Error(`There is no form ${form}.`);
    const { ref } = await takeFile(this.house, {
      ...{ formId: at.id, field: askedFor(at.draft, 'photo'), name: `${name}.png` },
      ...{ body: Readable.from([bytes]), announced: bytes.length, fromWhere: 'demo' },
    });
    return ref;
  }

  /** One of the boats is away for a while, at the end of the story. */
  layUp(called: string): void {
    const maren = this.viewer('Maren Okafor');
    const { number, version } = requestById(this.house.db, this.thing(called)) ?? { number: '', version: 0 };
    moveStage(this.house, maren, { number, version, stage: 'resting' });
  }

  /** The id of a thing, by its name, its tag or its code. */
  private thing(called: string): string {
    const known = this.known.get(called);
    if (known) return known;
    const found = this.house.db
      .select({ id: requests.id, values: requests.values })
      .from(requests)
      .where(eq(requests.stage, 'in_use'))
      .all()
      .find(({ values }) => values.name === called || values.tag === called || values.code === called);
    if (!found) throw new Error(`Nothing is called ${called}.`);
    this.known.set(called, found.id);
    return found.id;
  }

  /** What the coordinator set of doors, in force by now. */
  private setDoors(): void {
    const maren = this.viewer('Maren Okafor');
    const { slug } = addDoor(this.house, maren, {
      ...{ form: 'concern-report', once: 'demo-door', proof: 'confirmed-address' },
      ...UNNAMED_DOOR,
    });
    for (const [at, set] of [
      ['school-visit', SCHOOL_DOOR],
      [slug, UNNAMED_SET],
    ] as const) {
      const { version, door } = doorView(this.house.db, at, this.moment);
      settleDoor(this.house, maren, { slug: at, version, door: { ...door, ...set }, note: '' });
    }
  }

  /** Now and then somebody fills in what was sent to them. */
  private fillIn(): void {
    if (this.answering() > 0.16) return;
    const open = this.house.db
      .select({ owed: owedForms, form: mailings.formId })
      .from(owedForms)
      .innerJoin(mailings, eq(mailings.id, owedForms.mailingId))
      .innerJoin(people, and(eq(people.id, owedForms.personId), eq(people.kind, 'staff')))
      .where(and(eq(owedForms.state, 'open'), lt(owedForms.sentAt, this.moment - 6 * HOUR)))
      .all();
    if (open.length < 3) return;
    const { owed } = open[Math.floor(this.answering() * open.length)] ?? { owed: null };
    if (!owed) return;
    const viewer = viewerOf(this.house.db, owed.personId);
    if (!viewer) return;
    const isTrip = owed.field === 'trip';
    submit(this.house, viewer, {
      slug: isTrip ? 'trip-report' : 'kit-check',
      release: 1,
      answers: isTrip ? tripTold(this.answering) : kitFound(this.answering),
      key: `demo-filled-${owed.id}`,
      ...{ owed: owed.id, session: { token: '', viewer } },
    });
    this.read(isTrip ? 'Bram Solheim' : 'Jory Blackadder-Finn', owed.id);
  }

  /** Somebody of the team reads an answer at once, and lays it aside. */
  private read(by: string, owed: string): void {
    const { db } = this.house;
    const answer = db
      .select({ request: requests })
      .from(owedForms)
      .innerJoin(requests, eq(requests.id, owedForms.answerId))
      .where(eq(owedForms.id, owed))
      .get();
    if (!answer) return;
    const { number } = answer.request;
    const reader = this.viewer(by);
    const taken = assign(this.house, reader, { number, version: answer.request.version, person: this.id(by) });
    const { version } = moveStage(this.house, reader, { number, version: taken.version, stage: 'in_hand' });
    moveStage(this.house, reader, { number, version, stage: 'done' });
  }

  /** What the coordinator has sent to people; the kit was checked by hand this year. */
  private async setMailings(): Promise<void> {
    const maren = this.viewer('Maren Okafor');
    for (const slug of ['trip-report', 'kit-check']) {
      const { version, door } = doorView(this.house.db, slug, this.moment);
      const design = { ...door, name: 'Sent to those who fill it in', onlySent: true } as const;
      settleDoor(this.house, maren, { slug, version, door: design, note: '' });
    }
    addMailing(this.house, maren, { form: 'trip-report', once: 'demo-mailing-1', mailing: TRIP_REPORTS });
    addMailing(this.house, maren, { form: 'my-skills', once: 'demo-mailing-4', mailing: SKILL_CHECKS });
    const { id } = addMailing(this.house, maren, { form: 'kit-check', once: 'demo-mailing-2', mailing: KIT_CHECKS });
    await sendMailing(this.house, maren, { id, once: 'demo-mailing-3', onlyNew: false });
    await runMailings(this.house);
  }

  /** One of the few requests that are told word for word, at its moment. */
  private async askElsewhere({ form, by, daysAgo, answers }: AskedOnce, index: number): Promise<void> {
    const day = (offset: number): string => new Date(DEMO_NOW + offset * DAY).toISOString().slice(0, 10);
    await this.goOnTo(DEMO_NOW - daysAgo * DAY);
    this.unlessTaken(() =>
      submit(this.house, this.viewer(by), {
        slug: form,
        release: 1,
        answers: answers(day, (called) => this.thing(called)),
        key: `demo-asked-${index}`,
      }),
    );
  }

  /** Time passes, and whatever is due on the way happens when it is due. */
  private async goOnTo(moment: number): Promise<void> {
    const next = (): number | null => {
      const moments = [nextTimerAt(this.house.db), nextMailingAt(this.house.db)].filter((at) => at !== null);
      return moments.length === 0 ? null : Math.min(...moments);
    };
    for (let due = next(); due !== null && due <= moment; due = next()) {
      this.moment = Math.max(this.moment, due);
      await runDueTimers(this.house);
      await runMailings(this.house);
    }
    this.moment = moment;
  }

  /**
   * Lets `size` requests arrive over the last 120 days, most of the older ones worked to their end.
   */
  async play(size: number): Promise<void> {
    const start = DEMO_NOW - PAST;
    const moments = Array.from({ length: size }, () => this.arrivalBetween(start, DEMO_NOW - 20 * 60_000)).sort(
      (a, b) => a - b,
    );
    const elsewhere = size > 0 ? [...ASKED].sort((a, b) => b.daysAgo - a.daysAgo) : [];
    let isMailing = false;
    for (const [index, moment] of moments.entries()) {
      if (!isMailing && moment >= DEMO_NOW - MAILING_FOR) {
        isMailing = true;
        await this.goOnTo(DEMO_NOW - MAILING_FOR);
        await this.setMailings();
      }
      while (elsewhere[0] && DEMO_NOW - elsewhere[0].daysAgo * DAY <= moment)
        await this.askElsewhere(elsewhere.shift() as AskedOnce, elsewhere.length);
      await this.goOnTo(moment);
      this.ask(index);
      this.workOn();
      this.fillIn();
    }
    for (const [index, asked] of elsewhere.entries()) await this.askElsewhere(asked, -1 - index);
    await this.goOnTo(DEMO_NOW);
    this.setDoors();
    // Letters of days past were read long ago; the Mailroom receives the newest.
    this.house.db
      .update(notices)
      .set({ state: 'sent', sentAt: DEMO_NOW })
      .where(lt(notices.createdAt, DEMO_NOW - 20 * HOUR))
      .run();
    this.house.db
      .update(people)
      .set({ bellSeenAt: DEMO_NOW - 3 * DAY })
      .run();
  }

  private arrivalBetween(from: number, to: number): number {
    for (;;) {
      const at = from + this.random() * (to - from);
      const date = new Date(at);
      const weekday = date.getUTCDay();
      if (weekday !== 0 && weekday !== 6 && date.getUTCHours() >= 7 && date.getUTCHours() < 18) return Math.floor(at);
    }
  }

  /** Somebody asks with one of the forms: now and then site access, else whatever comes. */
  private ask(index: number): void {
    const all = MADE_UP.reduce((sum, each) => sum + each.share, 0);
    let roll = this.random() * (all + SITE_SHARE);
    const made = MADE_UP.find((each) => (roll -= each.share) < 0);
    if (!made) {
      this.askSite(index);
      return;
    }
    const asking: Asking = {
      random: this.random,
      day: Math.floor(this.moment / DAY),
      thing: (called) => this.thing(called),
    };
    this.unlessTaken(() =>
      submit(this.house, this.viewer(this.pick(made.by)), {
        slug: made.form,
        release: 1,
        answers: made.answers(asking),
        key: `demo-request-${index}`,
      }),
    );
  }

  /**
   * A boat can be asked for by two for the same hour; the second hears that it is taken, and asks
   * no more.
   */
  private unlessTaken(ask: () => unknown): void {
    try {
      ask();
    } catch (error) {
      const problems = (error as { problems?: readonly { message: Words }[] }).problems ?? [];
      const isTaken = ({ message }: { message: Words }): boolean =>
        typeof message !== 'string' && message.say.startsWith('answers:taken');
      if (!problems.some(isTaken)) throw error;
    }
  }

  private askSite(index: number): void {
    const day = Math.floor(this.moment / DAY);
    const key = `demo-request-${index}`;
    const release = 1;
    if (this.random() < 0.45) {
      const colleague = this.pick([
        'Priya Nakamura-Lind',
        'Hanne Istvan',
        'Ruadhan Pell',
        'Mireille Thorsby',
        'Declan Oyelaran',
        'Saoirse Lindqvist',
      ]);
      submit(this.house, this.viewer(colleague), {
        slug: 'come-on-site',
        release,
        answers: visit(this.random, day, this.pick(['station', 'corrin', 'tarnbay', 'other'])),
        key,
      });
      return;
    }
    const contact = this.pick(CONTACTS.filter((each) => each.active !== false));
    const school = this.random() < 0.06 ? SCHOOLS[this.schools++] : undefined;
    submit(this.house, null, {
      slug: school ? 'school-visit' : 'visit',
      release,
      answers: school
        ? schoolVisit({ random: this.random, day, thing: () => '' }, school)
        : visit(this.random, day, contact.institute),
      contact: { name: contact.name, email: addressOf(contact.name, contact.at) },
      key,
    });
    const waiting = this.house.db.select().from(waitingSubmissions).get();
    if (waiting && this.random() < 0.97) confirmSubmission(this.house, waiting.id);
    else if (waiting)
      this.house.db.transaction((tx) => {
        tx.delete(waitingSubmissions).where(eq(waitingSubmissions.id, waiting.id)).run();
        tx.delete(links).where(eq(links.targetId, waiting.id)).run();
      });
  }

  /**
   * The desk's day: decides, takes, asks, finishes a few of what is open. In the last days it is
   * behind.
   */
  private workOn(): void {
    const { db } = this.house;
    if (this.moment > DEMO_NOW - 7 * DAY && this.random() < 0.86) return;
    for (const waiting of db
      .select({ number: requests.number, group: seats.holder, requesterId: requests.requesterId })
      .from(requests)
      .innerJoin(seats, eq(seats.requestId, requests.id))
      .where(and(eq(seats.state, 'open'), lt(requests.createdAt, this.moment - 5 * HOUR)))
      .limit(2)
      .all()) {
      if (this.random() < 0.25) continue;
      const verdict = this.random() < 0.85 ? 'approve' : 'refuse';
      const text =
        verdict === 'approve'
          ? this.pick(['', '', 'Fine by me.', 'Please brief them at the gate.'])
          : this.pick([
              'The pier is closed that week. Please choose days after the 7th.',
              'No duty skipper is free on these days.',
            ]);
      decide(this.house, this.viewer(this.pick(inGroup(waiting.group))), {
        number: waiting.number,
        verdict,
        comment: text,
        seen: null,
        key: `demo-decide-${waiting.number}`,
      });
    }
    const open = db
      .select()
      .from(requests)
      .where(
        and(
          eq(requests.phase, 'arrived'),
          eq(requests.stage, 'arrived'),
          lt(requests.createdAt, this.moment - 3 * HOUR),
        ),
      )
      .limit(3)
      .all();
    for (const request of open) {
      if (this.random() < 0.3) continue;
      const name = this.pick(inGroup(request.team ?? ''));
      const { version } = assign(this.house, this.viewer(name), {
        number: request.number,
        version: request.version,
        person: this.id(name),
      });
      moveStage(this.house, this.viewer(name), { number: request.number, version, stage: 'in_hand' });
    }
    const inHand = db
      .select()
      .from(requests)
      .where(
        and(
          eq(requests.phase, 'working'),
          eq(requests.stage, 'in_hand'),
          lt(requests.updatedAt, this.moment - 6 * HOUR),
        ),
      )
      .limit(4)
      .all();
    for (const request of inHand) {
      const roll = this.random();
      const handler = viewerOf(db, request.handlerId ?? '');
      if (!handler || roll < 0.2) continue;
      if (roll < 0.28) {
        const site = request.number.startsWith('AC');
        const text = site
          ? 'Please send the insurance papers; we hold the place for you until then.'
          : 'Please tell us which day would do as well; we wait for you until then.';
        comment(this.house, handler, { number: request.number, text, visibility: 'requester' });
        moveStage(this.house, handler, {
          number: request.number,
          version: request.version,
          stage: site ? 'papers' : 'waiting',
        });
      } else moveStage(this.house, handler, { number: request.number, version: request.version, stage: 'done' });
    }
    const paused = db
      .select()
      .from(requests)
      .where(and(eq(requests.phase, 'paused'), lt(requests.updatedAt, this.moment - 30 * HOUR)))
      .limit(1)
      .all();
    for (const request of paused) {
      const handler = viewerOf(db, request.handlerId ?? '');
      if (handler && this.random() < 0.15)
        moveStage(this.house, handler, { number: request.number, version: request.version, stage: 'in_hand' });
    }
  }

  private pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.random() * list.length)] as T;
  }

  private id(name: string): string {
    return this.ids.get(addressOf(name)) ?? '';
  }

  private viewer(name: string) {
    const viewer = viewerOf(this.house.db, this.id(name));
    if (!viewer) throw new Error(`No demo person called ${name}.`);
    return viewer;
  }
}

/** How often site access is asked, beside the shares of the other forms. */
const SITE_SHARE = 45;

/** The staff of a group, by name. */
const inGroup = (group: string): readonly string[] =>
  STAFF.filter((person) => person.groups.includes(group)).map((person) => person.name);

/** A plan in which all of some fields have their place. */
const placing = (plan: AccessPlan, fields: readonly { readonly key: string }[]): AccessPlan => ({
  ...plan,
  placed: fields.map(({ key }) => key),
});

/**
 * What is reported in confidence is read by site safety alone, and medical notes of divers by the
 * dive officers.
 */
function protectConcerns(db: House['db'], done: Parameters<typeof changeRegister>[4]): void {
  const closed = (fields: readonly string[], group: string, name: string) => ({
    rules: [
      {
        id: 'closed',
        name,
        fields,
        audience: { in: { everyone: true as const }, outOf: [group], requester: 'out' as const },
        level: 'hidden' as const,
      },
      {
        id: 'read',
        name: `${name}: they read it`,
        fields,
        audience: { in: { anyOf: [group] }, outOf: [] },
        level: 'read' as const,
      },
    ],
  });
  const change = (key: string, settings: Parameters<typeof changeRegister>[2]): void =>
    db.transaction((tx) => changeRegister(tx, { key }, settings, '', done));
  const placed = (key: string, plan: AccessPlan): AccessPlan => placing(plan, registerByKey(db, key)?.fields ?? []);
  change('concern-report', {
    staysIn: true,
    access: placed(
      'concern-report',
      closed(['what_happened', 'about', 'when', 'pictures', 'reach'], 'site-safety', 'Concerns stay with site safety'),
    ),
  });
  change('dive-plan', {
    access: placed('dive-plan', closed(['medical'], 'dive-safety', 'Medical notes stay with the dive officers')),
  });
}
