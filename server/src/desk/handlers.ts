import type { deskRoutes } from '@tolvek/contract';
import { openedHere } from '../platform/device.ts';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { followed } from '../request/followed.ts';
import { act, actOnOwn } from './acting.ts';
import { changeCells, takeBackCells } from './cells.ts';
import { changing, changingOwn } from './changing.ts';
import {
  assign,
  changeFields,
  changeOwn,
  comment,
  freeRequest,
  messageFromRequester,
  moveStage,
  reroute,
} from './commands.ts';
import { decide, decideByLink, takeBackDecision } from './decide.ts';
import { deletedIn, deleteForGood, deleteRequest, deletionPlan, putBackRequest } from './deletion.ts';
import { follow } from './following.ts';
import { deciderTargets, handDecision } from './handing.ts';
import { endLinks, endOwnLinks, renewLink, sendLink } from './links.ts';
import { askAbout, passOn } from './mailings.ts';
import { mergeRequest, requestMergePlan, unmergeRequest } from './merging.ts';
import { moveMany } from './moveMany.ts';
import { giveBack, giveOutside } from './outside.ts';
import { acceptProposal, decideProposalByLink, endProposal, refuseProposal } from './proposals.ts';
import { rerouteMany } from './rerouteMany.ts';
import { sendNotice } from './sendNotice.ts';
import { share, shareTargets, unshare } from './share.ts';
import { withdrawOwn } from './withdraw.ts';
import { writeMany } from './writeMany.ts';

/** What people do to requests. */
export function deskHandlers(house: House): Handlers<typeof deskRoutes> {
  return {
    changeFields: ({ viewer, params, body, version }) =>
      changeFields(house, viewer, { number: params.number, version, changes: body.changes }),
    moveStage: ({ viewer, params, body, version }) =>
      moveStage(house, viewer, { number: params.number, version, stage: body.stage }),
    freeRequest: ({ viewer, params, body, version }) =>
      freeRequest(house, viewer, { number: params.number, version, ...body }),
    changeCells: ({ viewer, body }) => changeCells(house, viewer, body),
    takeBackCells: ({ viewer, body }) => takeBackCells(house, viewer, body.rows),
    writeMany: ({ viewer, body, key }) => writeMany(house, viewer, body, key),
    moveMany: ({ viewer, body }) => moveMany(house, viewer, body),
    rerouteMany: ({ viewer, body }) => rerouteMany(house, viewer, body),
    reroute: ({ viewer, params, body, version }) => reroute(house, viewer, { number: params.number, version, ...body }),
    assign: ({ viewer, params, body, version }) =>
      assign(house, viewer, { number: params.number, version, person: body.person }),
    shareTargets: ({ viewer, params, query }) => shareTargets(house.db, viewer, params.number, query.find),
    shareRequest: ({ viewer, params, body }) => share(house, viewer, params.number, body),
    unshareRequest: ({ viewer, params }) => unshare(house, viewer, params.number, params.holder),
    deciderTargets: ({ viewer, params, query }) => deciderTargets(house.db, viewer, params.number, query.find),
    handDecision: ({ viewer, params, body }) => handDecision(house, viewer, params.number, body),
    takeBackDecision: ({ viewer, params }) => takeBackDecision(house, viewer, params.number),
    askAbout: ({ viewer, params, body, key }) =>
      askAbout(house, viewer, { number: params.number, mailing: body.mailing, key }),
    act: ({ viewer, params, body }) => act(house, viewer, { ...params, body }),
    actOnMine: ({ viewer, params, body }) => actOnOwn(house, viewer, { ...params, body }),
    actFollowed: ({ body, ...call }) => {
      const { viewer, request } = followed(house, call);
      return actOnOwn(house, viewer, { number: request.number, action: call.params.action, body });
    },
    changing: ({ viewer, params, body }) => {
      changing(house, viewer, params.number, body.fields);
      return { done: true };
    },
    giveOutside: ({ viewer, params, body, version }) => giveOutside(house, viewer, { ...params, ...body, version }),
    giveBack: ({ viewer, params, body, version }) => giveBack(house, viewer, { ...params, ...body, version }),
    changingMine: ({ viewer, params, body }) => {
      changingOwn(house, viewer, params.number, body.fields);
      return { done: true };
    },
    changingFollowed: ({ body, ...call }) => {
      const { viewer, request } = followed(house, call);
      changingOwn(house, viewer, request.number, body.fields);
      return { done: true };
    },
    followRequest: ({ viewer, params, body }) => follow(house, viewer, params.number, body),
    requestMergePlan: ({ viewer, params, query }) => requestMergePlan(house.db, viewer, params.number, query.into),
    mergeRequest: ({ viewer, params, body, version }) =>
      mergeRequest(house, viewer, { ...body, number: params.number, version }),
    unmergeRequest: ({ viewer, params }) => unmergeRequest(house, viewer, params.number),
    deletionPlan: ({ viewer, params }) => deletionPlan(house.db, viewer, params.number),
    deleteRequest: ({ viewer, params, body, version }) =>
      deleteRequest(house, viewer, { number: params.number, version, reason: body.reason }),
    putBackRequest: ({ viewer, params }) => putBackRequest(house, viewer, params.id),
    deleteForGood: ({ viewer, params }) => deleteForGood(house, viewer, params.id),
    deletedIn: ({ params }) => deletedIn(house.db, params.key),
    endLinks: ({ viewer, params, body }) => endLinks(house, viewer, params.number, body.only),
    sendLink: ({ viewer, params }) => sendLink(house, viewer, params.number),
    renewMyLink: ({ viewer, params }) => renewLink(house, viewer, params.number),
    renewLink: (call) => {
      const { viewer, request } = followed(house, call);
      return renewLink(house, viewer, request.number);
    },
    endMyLinks: ({ viewer, params, body }) => endOwnLinks(house, viewer, params.number, body),
    endOtherLinks: (call) => {
      const { viewer, request, linkId } = followed(house, call);
      return endOwnLinks(house, viewer, request.number, { ...call.body, but: linkId });
    },
    acceptProposal: ({ viewer, params, body }) => acceptProposal(house, viewer, { ...params, ...body }),
    refuseProposal: ({ viewer, params, body }) => refuseProposal(house, viewer, { ...params, ...body }),
    decideProposal: ({ params, body, ...call }) => {
      openedHere(house, params.token, call);
      return decideProposalByLink(house, params.token, body);
    },
    endProposal: ({ viewer, params }) => endProposal(house, viewer, params.id),
    comment: ({ viewer, params, body }) => {
      comment(house, viewer, { number: params.number, ...body });
      return { done: true };
    },
    sendNotice: ({ viewer, params, body }) => sendNotice(house, viewer, { ...params, ...body }),
    decide: ({ viewer, params, body, key }) => {
      const { number: _, ...decided } = decide(house, viewer, { number: params.number, ...body, key });
      return decided;
    },
    followMessage: ({ body, ...call }) => {
      const { viewer, request } = followed(house, call);
      messageFromRequester(house, viewer.personId, request.number, body);
      return { done: true };
    },
    changeFollowed: ({ body, version, ...call }) => {
      const { viewer, request } = followed(house, call);
      return changeOwn(house, viewer, { number: request.number, version, changes: body.changes });
    },
    changeMine: ({ viewer, params, body, version }) =>
      changeOwn(house, viewer, { number: params.number, version, changes: body.changes }),
    withdrawMine: ({ viewer, params, body, version }) =>
      withdrawOwn(house, viewer, { number: params.number, version, reason: body.reason }),
    withdrawFollowed: ({ body, version, ...call }) => {
      const { viewer, request } = followed(house, call);
      return withdrawOwn(house, viewer, { number: request.number, version, reason: body.reason });
    },
    passOn: ({ viewer, params, body }) => passOn(house, viewer, params.id, body.to),
    myMessage: ({ params, body, viewer }) => {
      messageFromRequester(house, viewer.personId, params.number.toUpperCase(), body);
      return { done: true };
    },
    decideByLink: ({ params, body, key, ...call }) => {
      openedHere(house, params.token, call);
      return decideByLink(house, { token: params.token, ...body, key });
    },
  };
}
