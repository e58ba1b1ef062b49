import { type Route, routes } from '@tolvek/contract';
import type { Router } from 'express';
import { decide, decideByLink, openDecision } from '../approval/commands.ts';
import { lettersLeft } from '../notice/failed.ts';
import type { House } from '../platform/house.ts';
import type { Limits } from '../platform/limits.ts';
import { notSignedIn } from '../platform/problem.ts';
import { troublesIn } from '../platform/routes.ts';
import { callerFor, type Serve } from '../platform/serve.ts';
import { assign, changeFields, comment, moveStage } from './commands.ts';
import { ledgerOf, traysOf } from './ledger.ts';
import { decisionViewOf, sheetOf, sheetOffers } from './sheet.ts';

export function registerRoutes(serve: Serve, house: House): void {
  const { db, clock } = house;
  serve('trays', ({ viewer }) => ({
    ...traysOf(db, viewer, clock.now()),
    troubles: troublesIn(house),
    failedLetters: viewer.role === 'member' ? 0 : lettersLeft(db).failed,
  }));
  serve('ledger', ({ viewer, query }) => ledgerOf(db, viewer, query, clock.now()));
  serve('sheet', ({ viewer, params }) => sheetOf(db, viewer, params.number, clock.now()));
  serve('sheetOffers', ({ viewer, params, body }) => sheetOffers(db, viewer, params.number, body, clock.now()));
  serve('changeFields', ({ viewer, params, body, version }) =>
    changeFields(house, viewer, { number: params.number, version, changes: body.changes }),
  );
  serve('moveStage', ({ viewer, params, body, version }) =>
    moveStage(house, viewer, { number: params.number, version, stage: body.stage }),
  );
  serve('assign', ({ viewer, params, body, version }) =>
    assign(house, viewer, { number: params.number, version, person: body.person }),
  );
  serve('comment', ({ viewer, params, body }) => {
    comment(house, viewer, { number: params.number, ...body });
    return { done: true };
  });
  serve('decide', ({ viewer, params, body, key }) => ({
    state: decide(house, viewer, { number: params.number, ...body, key }).state,
  }));
  serve('decisionLink', ({ params }) => {
    const { request, viewer } = openDecision(db, params.token, clock.now());
    return decisionViewOf(db, viewer, request);
  });
  serve('decideByLink', ({ params, body, key }) => decideByLink(house, { token: params.token, ...body, key }));
}

/** The stream of live updates does not end with an answer, so it is bound by itself. */
export function liveRoute(router: Router, house: House, limits: Limits): void {
  router.get(routes.live.path, async (request, response) => {
    const session = await callerFor(routes.live as Route, limits, house, request, response);
    if (!session) throw notSignedIn();
    await house.live.listen(request, response, session);
  });
}
