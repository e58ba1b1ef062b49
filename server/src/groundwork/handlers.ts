import type { groundworkRoutes } from '@tolvek/contract';
import type { House } from '../platform/house.ts';
import { LOGO, sendPicture } from '../platform/pictures.ts';
import type { Handlers } from '../platform/serve.ts';
import { addAbsence, colleaguesView, endAbsence } from './absences.ts';
import {
  accountView,
  changePassword,
  endOwnPasskey,
  endOwnSession,
  endTheirSession,
  forgotPassword,
  ownEmails,
  setOwnEmails,
  signOutPerson,
} from './account.ts';
import { rightsOnDay } from './audit.ts';
import { askForCode, codeGuard, signInByCode, signInByLink } from './contactSignIn.ts';
import { deleteGround, groundDeletion } from './deletion.ts';
import { deskSettingsView, groundworkView, putDesk, sendTestEmail, testEmailView } from './desk.ts';
import { firstStartView, layGround } from './firstStart.ts';
import { addGroup, groupsView, groupView, letIn, putGroup, takeOut, tryRule } from './groups.ts';
import { handOver, handOverPlan } from './handOver.ts';
import { importPeople, lookAtPeople, peopleImportsView, undoImport } from './imports.ts';
import { acceptInvitation, invitationView, invite } from './invitations.ts';
import { mergePeople, mergePlan } from './merge.ts';
import { addSomebody, changeSomebody, peopleView, personView } from './people.ts';
import { sendPeople } from './peopleSheet.ts';
import { setLogo, setPortrait } from './pictures.ts';
import { profileView, putProfile } from './profile.ts';
import {
  changeRights,
  registerRightsPlan,
  registerRightsView,
  rightHolders,
  rightsView,
  setRegisterRights,
} from './rights.ts';
import { addProvider, changeProvider, endTheirCode, putPasswords, signInSettings, signInWays } from './signIn.ts';
import { skillsView } from './skills.ts';
import { sayWhy, stepBack, stepBackPlan } from './stepBack.ts';

export function groundworkHandlers(house: House): Handlers<typeof groundworkRoutes> {
  const { db, clock } = house;
  const guard = codeGuard();
  return {
    firstStart: ({ params }) => firstStartView(house, params.token),
    layGround: async ({ params, body }) => {
      await layGround(house, params.token, body);
      return { done: true };
    },
    invitation: ({ params }) => invitationView(house, params.token),
    acceptInvitation: ({ params, body }) => acceptInvitation(house, params.token, body.password),
    forgotPassword: ({ body }) => {
      forgotPassword(house, body.email);
      return { done: true };
    },
    askForCode: ({ body, language }) => {
      askForCode(house, { email: body.email, language });
      return { done: true };
    },
    signInByCode: async ({ body, request, response }) => {
      await signInByCode(house, guard, body, { request, response });
      return { done: true };
    },
    signInByLink: ({ params, request, response }) => {
      signInByLink(house, params.token, { request, response });
      return { done: true };
    },
    account: ({ session }) => accountView(db, session, clock.now()),
    addAbsence: ({ viewer, params, body, key }) => addAbsence(house, viewer, params.id, body, key),
    endAbsence: ({ viewer, params }) => endAbsence(house, viewer, params.id, params.absence),
    ownEmails: ({ viewer }) => ownEmails(house.db, viewer.personId),
    setOwnEmails: ({ viewer, body }) => {
      setOwnEmails(house, viewer.personId, body);
      return { done: true };
    },
    addOwnAbsence: ({ viewer, body, key }) => addAbsence(house, viewer, viewer.personId, body, key),
    endOwnAbsence: ({ viewer, params }) => endAbsence(house, viewer, viewer.personId, params.absence),
    colleagues: ({ query }) => colleaguesView(db, query.find, clock.now()),
    changePassword: async ({ session, body }) => {
      await changePassword(house, session, body);
      return { done: true };
    },
    endSession: ({ session, params }) => {
      endOwnSession(house, session, params.id);
      return { done: true };
    },
    endPasskey: ({ session, params }) => {
      endOwnPasskey(house, session, params.id);
      return { done: true };
    },
    endTheirSession: ({ session, params }) => {
      endTheirSession(house, session, params.id, params.session);
      return { done: true };
    },
    signOutPerson: ({ session, params }) => signOutPerson(house, session, params.id),
    portrait: ({ params, request, response }) => sendPicture(db, params.id, request, response),
    setPortrait: ({ viewer, params, body }) => setPortrait(house, viewer, params.id, body.picture),
    setOwnPortrait: ({ viewer, body }) => setPortrait(house, viewer, viewer.personId, body.picture),
    deskLogo: ({ request, response }) => sendPicture(db, LOGO, request, response),
    setLogo: ({ viewer, body }) => setLogo(house, viewer, body.picture),
    signInWays: () => signInWays(house),
    signInSettings: ({ viewer }) => signInSettings(house, viewer),
    addProvider: ({ viewer, body, key }) => addProvider(house, viewer, body, key),
    changeProvider: ({ viewer, params, body, version }) => changeProvider(house, viewer, params.id, version, body),
    setPasswords: ({ viewer, body }) => putPasswords(house, viewer, body.on),
    endTheirCode: ({ viewer, params }) => endTheirCode(house, viewer, params.id),
    groundwork: () => groundworkView(db),
    deskSettings: () => deskSettingsView(db),
    skills: ({ viewer }) => skillsView(db, viewer, clock.now()),
    changeDesk: ({ viewer, body, version }) => putDesk(house, viewer, { ...body, version }),
    sendTestEmail: ({ viewer }) => sendTestEmail(house, viewer),
    testEmail: ({ viewer, params }) => testEmailView(db, viewer, params.id),
    lookAtPeople: ({ viewer, body }) => lookAtPeople(db, viewer, body, clock.now()),
    importPeople: ({ viewer, body, key }) => importPeople(house, viewer, body, key),
    peopleImports: () => peopleImportsView(db),
    undoImport: ({ viewer, params }) => undoImport(house, viewer, params.id),
    peopleSheet: ({ viewer, query, response }) => sendPeople(db, viewer, query.kind, response),
    stepBackPlan: ({ viewer, params }) => stepBackPlan(house, viewer, params.id),
    groundDeletion: ({ viewer, params }) => groundDeletion(db, viewer, params),
    deleteGround: ({ viewer, params }) => deleteGround(house, viewer, params),
    sayWhy: ({ viewer, params, body }) => sayWhy(house, viewer, params.id, body.why),
    stepBack: ({ viewer, params }) => stepBack(house, viewer, params.id),
    profile: () => profileView(db, clock.now()),
    changeProfile: ({ viewer, body, version }) => putProfile(house, viewer, { ...body, version }),
    people: ({ query }) => peopleView(db, query, clock.now()),
    person: ({ session, params }) => personView(db, session, params.id, clock.now()),
    addPerson: ({ viewer, body, key }) => addSomebody(house, viewer, body, key),
    changePerson: ({ viewer, params, body, version }) => changeSomebody(house, viewer, params.id, version, body),
    invite: ({ viewer, body }) => ({ sent: invite(house, viewer.personId, body.people) }),
    handOverPlan: ({ params, query }) => handOverPlan(house, params.id, query.to ?? null),
    handOver: ({ viewer, params, body }) => handOver(house, viewer, params.id, body.to),
    mergePlan: ({ viewer, params, query }) => mergePlan(db, viewer, params.id, query.other),
    mergePeople: ({ viewer, params, body }) => mergePeople(house, viewer, params.id, body.other),
    groups: () => groupsView(db),
    group: ({ params }) => groupView(db, params.key, clock.now()),
    addGroup: ({ viewer, body, key }) => addGroup(house, viewer, body, key),
    changeGroup: ({ viewer, params, body, version }) => putGroup(house, viewer, params.key, version, body),
    tryRule: ({ params, body }) => tryRule(db, params.key, body),
    enterGroup: ({ viewer, params, body, key }) => letIn(house, viewer, params.key, body, key),
    rights: ({ viewer }) => rightsView(db, viewer),
    rightsOnDay: ({ params }) => rightsOnDay(db, params.day, clock.now()),
    rightHolders: ({ params, query }) => rightHolders(db, params.right, query.register),
    registerRights: ({ viewer, params }) => registerRightsView(db, viewer, params.key),
    registerRightsPlan: ({ viewer, params, query }) => registerRightsPlan(house, viewer, params.key, query.to),
    setRegisterRights: ({ viewer, params, body }) => setRegisterRights(house, viewer, params.key, body.to),
    changeRights: ({ viewer, params, body }) => changeRights(house, viewer, params.subject, body),
    leaveGroup: ({ viewer, params }) => takeOut(house, viewer, params.key, params.entry),
  };
}
