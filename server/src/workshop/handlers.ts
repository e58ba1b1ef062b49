import type { workshopRoutes } from '@tolvek/contract';
import { USUAL_BASE } from '@tolvek/core/access';
import { dateAt, wallClockAt, workingWeek } from '@tolvek/core/deadline';
import { compareDesigns } from '@tolvek/core/form';
import { calledApart } from '@tolvek/core/people';
import { fieldKeyOf } from '@tolvek/core/register';
import { skillsToAsk } from '../assignment/skills.ts';
import { allCalendars, calendarNames, calendarOf } from '../calendar/queries.ts';
import { doorsOf } from '../door/queries.ts';
import { askedFor } from '../files/commands.ts';
import { sendPreview } from '../files/preview.ts';
import { takeBody } from '../files/takeBody.ts';
import { formByKey, formNamed, formsOf, releasesOf } from '../form/queries.ts';
import { takeInLater, takenRows } from '../intake/takeInRows.ts';
import { theirsSeen } from '../intake/theirs.ts';
import { peopleFound } from '../people/lists.ts';
import { allGroups, departmentOf, namesOf, personById, profileOf, staffIn } from '../people/queries.ts';
import { apart } from '../platform/apart.ts';
import { iso } from '../platform/clock.ts';
import type { House } from '../platform/house.ts';
import { afterAWhile, jobOf, stopJob } from '../platform/longJobs.ts';
import { notFound } from '../platform/problem.ts';
import type { Handlers } from '../platform/serve.ts';
import { programNames } from '../program/queries.ts';
import { registerById } from '../register/queries.ts';
import { formsPointingTo, knownRegisters } from '../request/references.ts';
import { rosterNames } from '../roster/queries.ts';
import { profileDesignOf } from '../settings/queries.ts';
import { stageView } from '../view/sheet.ts';
import { allVocabularies } from '../vocabulary/queries.ts';
import { accessView } from './accessView.ts';
import { calendarHandlers } from './calendarHandlers.ts';
import { releaseForm, saveDraft } from './commands.ts';
import { createForm } from './create.ts';
import { doorHandlers } from './doorHandlers.ts';
import { doorSettings } from './doors.ts';
import { doublesOf } from './doubles.ts';
import { findingsFor, findingsOfForm, outsidersIn } from './findings.ts';
import { jobView } from './jobView.ts';
import { mailingHandlers } from './mailingHandlers.ts';
import { showNotice } from './noticeShown.ts';
import { askInto, duplicateForm, goBackToState, registerView, setFormState, settleRegister } from './onRegister.ts';
import { allowWay, endWay, placeFields, planView, protectAlike, readBy, waysInForce } from './plan.ts';
import { keepPlan, planGrid, planPage, putPlan } from './planDraft.ts';
import { fieldReach } from './planReach.ts';
import { changesSince, historyOfDraft, listForms } from './queries.ts';
import { recomputation } from './recompute.ts';
import { keepRegister, putRegister } from './registerDraft.ts';
import { replanning } from './replan.ts';
import { overExisting, takeRunBack } from './ruleRun.ts';
import { seatAt } from './seat.ts';
import { seeAs } from './seeAs.ts';
import { FIELD_READERS, LOOK_AT_ROWS, PERSON_READS, PLAN_EFFECT, TRY_CONDITION } from './tasks.ts';
import { clearTrials, draftOffers, draftPicture, sendTrial, trialsOf } from './trials.ts';
import { vocabularyHandlers } from './vocabularyHandlers.ts';
import { editionsGiven } from './whoGets.ts';

/** People who are offered at once. */
const OFFERED = 20;

export function workshopHandlers(house: House): Handlers<typeof workshopRoutes> {
  const { db, clock } = house;
  return {
    ...vocabularyHandlers(house),
    ...calendarHandlers(house),
    ...doorHandlers(house),
    ...mailingHandlers(house),
    forms: async ({ viewer }) => ({ forms: await listForms(db, viewer) }),
    form: async ({ params, viewer }) => {
      const { findings } = await findingsOfForm(db, params.key);
      const form = formNamed(db, params.key);
      const register = registerById(db, form.registerId);
      const calendar = calendarOf(db, form.draft.deadline.calendar);
      const releases = releasesOf(db, form.id);
      const names = namesOf(
        db,
        releases.map((release) => release.releasedBy),
      );
      return {
        key: form.key,
        version: form.version,
        draft: form.draft,
        findings: [...findings],
        changes: [...changesSince(db, form, form.draft)],
        releases: releases.map((release) => ({
          number: release.number,
          note: release.note,
          by: names.get(release.releasedBy) ?? '',
          at: iso(release.releasedAt),
        })),
        trials: trialsOf(db, form.id).map(({ number, createdAt }) => ({ number, at: iso(createdAt) })),
        doors: doorsOf(db, form.id).map((door) => doorSettings(db, door, clock.now())),
        groups: allGroups(db).map(({ retired: _, ...group }) => group),
        people: staffIn(db, 'all').map((person) => ({
          key: person.id,
          label: calledApart(person),
          groups: [...person.groups],
          department: departmentOf(db, person.id),
          profile: profileOf(db, personById(db, person.id)).values,
        })),
        outsiders: outsidersIn(db, form.draft.approval),
        skills: skillsToAsk(db),
        rosters: rosterNames(db),
        programs: programNames(db),
        profile: profileDesignOf(db).fields,
        released: releases.length > 0 ? register.fields.map((field) => field.key) : [],
        stages: register.stages.map((stage) => ({ ...stageView(stage), ...(stage.retired ? { retired: true } : {}) })),
        requesterReads: (register.access.base ?? USUAL_BASE).requester,
        publicStages: register.stages.flatMap(({ label, publicLabel, translations, retired }) =>
          retired ? [] : [{ label, publicLabel, ...(translations ? { translations } : {}) }],
        ),
        register: { key: register.key, name: register.name, holds: register.holds },
        others: formsOf(db, register.id).flatMap((each) =>
          each.id === form.id || each.deletedAt !== null ? [] : [{ key: each.key, title: each.draft.title }],
        ),
        stopped: form.stoppedAt !== null,
        staysIn: register.staysIn,
        calendar: { name: calendar.name, zone: calendar.zone, ...workingWeek(calendar) },
        calendars: calendarNames(db),
        hours: allCalendars(db),
        today: dateAt(clock.now(), calendar.zone),
        now: wallClockAt(clock.now(), calendar.zone),
        vocabularies: allVocabularies(db),
        pointedBy: [...formsPointingTo(db, register.key)],
        registers: [...knownRegisters(db)],
        plan: { rules: register.access.rules },
        ...planView(db, form, register),
        waysInForce: [...waysInForce(db, form, register)],
        ...readParts(readBy(db, form, register, viewer)),
        ...accessView(db, register, form),
        asking: register.access.rules.filter(({ asking }) => asking),
      };
    },
    ground: () => ({
      groups: allGroups(db).map(({ retired: _, ...group }) => group),
      calendars: calendarNames(db),
      vocabularies: allVocabularies(db),
      registers: knownRegisters(db).map(({ key, name }) => ({ key, name })),
      profile: profileDesignOf(db).fields,
    }),
    findPeople: ({ query }) => ({
      people: peopleFound(db, query, OFFERED).map(({ id, name, email, kind, portrait }) => ({
        ...{ id, name, email, portrait, outside: kind === 'contact' },
      })),
    }),
    proofSeat: ({ params }) => seatAt(db, formNamed(db, params.key).registerId, params.person),
    proofTheirs: ({ viewer, params, query: { whose } }) => {
      const { registerId, draft } = formNamed(db, params.key);
      const seen = { registerId, personId: params.person, whose, fields: draft.fields };
      return { theirs: theirsSeen(db, viewer, seen, clock.now()) };
    },
    createForm: ({ viewer, body, key }) => createForm(house, viewer, { ...body, idempotencyKey: key }),
    editionsGiven: ({ params, query }) => editionsGiven(db, params.key, query),
    saveDraft: async ({ viewer, params, body, version }) => {
      const { formId, ...saved } = saveDraft(house, viewer, { key: params.key, version, draft: body.draft });
      return { ...saved, findings: [...(await findingsFor(db, formId, body.draft)).findings] };
    },
    releaseForm: async ({ viewer, params, body, version }) => {
      const { key } = params;
      return releaseForm(house, viewer, { key, version, ...body }, await findingsOfForm(db, key));
    },
    job: ({ viewer, params }) => jobView(jobOf(db, viewer.personId, params.id)),
    stopJob: ({ viewer, params }) => {
      stopJob(house, viewer.personId, params.id);
      return { done: true };
    },
    replanning: ({ viewer, params }) => replanning(house, viewer, params.key),
    recomputation: ({ viewer, params }) => recomputation(house, viewer, params.key),
    register: ({ params }) => registerView(db, params.key, clock.now()),
    doubles: ({ viewer, params }) => doublesOf(db, viewer, params.key),
    changeRegister: ({ viewer, params, body, version }) =>
      settleRegister(house, viewer, { ...body, key: params.key, version }),
    keepRegister: ({ viewer, params, body, version }) =>
      keepRegister(house, viewer, { key: params.key, version, settings: body }),
    putRegister: ({ viewer, params, body, version }) =>
      putRegister(house, viewer, { ...body, key: params.key, version }),
    accessPlan: ({ viewer, params }) => planPage(db, viewer, params.key),
    keepAccessPlan: ({ viewer, params, body, version }) =>
      keepPlan(house, viewer, { key: params.key, version, plan: body }),
    accessPlanGrid: ({ params, query }) => planGrid(db, params.key, query),
    fieldReaders: ({ viewer, params, query }) => apart(house, FIELD_READERS, [viewer, params.key, query]),
    personReads: ({ viewer, params, query }) => apart(house, PERSON_READS, [viewer, params.key, query]),
    fieldReach: ({ params, query }) => fieldReach(db, params.key, query),
    seeAs: ({ viewer, params, body }) => seeAs(house, viewer, { ...body, ...params }),
    accessPlanEffect: ({ viewer, params }) => apart(house, PLAN_EFFECT, [viewer, params.key]),
    putAccessPlan: ({ viewer, params, body, version }) => putPlan(house, viewer, { ...body, key: params.key, version }),
    goBackToState: ({ viewer, params, version }) => goBackToState(house, viewer, { ...params, version }),
    askInto: ({ viewer, params, body, key }) => askInto(house, viewer, { ...body, key: params.key, once: key }),
    duplicateForm: ({ viewer, params, body, key }) =>
      duplicateForm(house, viewer, { key: params.key, title: body.title, once: key }),
    setFormState: ({ params, body }) => {
      setFormState(house, params.key, body.state);
      return { done: true };
    },
    allowWay: ({ viewer, params, body, key }) => allowWay(house, viewer, params.key, body, key),
    endWay: ({ viewer, params }) => {
      endWay(house, viewer, params.key, params.id);
      return { done: true };
    },
    placeFields: ({ viewer, params, body }) => {
      placeFields(house, viewer, params.key, body);
      return { done: true };
    },
    protectAlike: ({ viewer, params, body }) => {
      protectAlike(house, viewer, params.key, body);
      return { done: true };
    },
    draftUpload: async (call) => {
      const form = formNamed(db, call.params.key);
      const { field, name } = call.query;
      await takeBody(house, call, { formId: form.id, field: askedFor(form.draft, field), name });
    },
    draftPicture: async ({ viewer, params, response }) =>
      sendPreview(house.config, draftPicture(db, viewer, params), response),
    draftOffers: ({ viewer, params, body }) => draftOffers(db, viewer, params.key, body, clock.now()),
    sendTrial: async ({ viewer, params, body, key }) =>
      sendTrial(house, viewer, { form: params.key, ...body, key }, await findingsOfForm(db, params.key)),
    clearTrials: ({ params }) => clearTrials(house, params.key),
    draftHistory: async ({ params }) => ({ states: await historyOfDraft(db, params.key) }),
    overExisting: async ({ viewer, params, body }) =>
      overExisting(
        house,
        viewer,
        { form: params.key, rule: params.rule, ...body },
        await findingsOfForm(db, params.key),
      ),
    takeRunBack: ({ viewer, params }) => takeRunBack(house, viewer, { form: params.key, run: params.run }),
    compareRelease: ({ params }) => {
      const form = formByKey(db, params.key);
      const release = form && releasesOf(db, form.id).find((each) => each.number === Number(params.number));
      if (!release) throw notFound('release');
      return { design: release.design, changes: [...compareDesigns(release.design, form.draft)] };
    },
    takeInRows: async ({ viewer, params, body, key }) => {
      if (!body.apply) return apart(house, LOOK_AT_ROWS, [viewer, params.key, body.rows]);
      const job = takeInLater(house, viewer, params.key, body.rows, key);
      return takenRows(await afterAWhile(db, viewer.personId, job));
    },
    showNotice: ({ viewer, params, body }) => showNotice(house, viewer, { ...body, ...params }),
    tryCondition: ({ viewer, params, body }) => apart(house, TRY_CONDITION, [viewer, params.key, body]),
  };
}

/** What somebody reads, fields and columns of lines apart. */
const readParts = (keys: readonly string[]): { reads: string[]; readsColumns: string[] } => ({
  reads: keys.filter((key) => fieldKeyOf(key) === key),
  readsColumns: keys.filter((key) => fieldKeyOf(key) !== key),
});
