import { type Route, routes } from '@tolvek/contract';
import type { Router } from 'express';
import { openDecision } from '../desk/decide.ts';
import { lettersLeft } from '../notice/failed.ts';
import type { House } from '../platform/house.ts';
import type { Limits } from '../platform/limits.ts';
import { notSignedIn } from '../platform/problem.ts';
import { callerFor, type Serve } from '../platform/serve.ts';
import { troublesIn } from '../platform/troubles.ts';
import { ledgerOf, traysOf } from './ledger.ts';
import { decisionViewOf, sheetOf, sheetOffers } from './sheet.ts';

/** What the Floor reads. */
export function viewRoutes(serve: Serve, house: House): void {
  const { db, clock } = house;
  serve('trays', ({ viewer }) => ({
    ...traysOf(db, viewer, clock.now()),
    troubles: troublesIn(house),
    failedLetters: viewer.role === 'member' ? 0 : lettersLeft(db).failed,
  }));
  serve('ledger', ({ viewer, query }) => ledgerOf(db, viewer, query, clock.now()));
  serve('sheet', ({ viewer, params }) => sheetOf(db, viewer, params.number, clock.now()));
  serve('sheetOffers', ({ viewer, params, body }) => sheetOffers(db, viewer, params.number, body, clock.now()));
  serve('decisionLink', ({ params }) => {
    const { request, viewer } = openDecision(db, params.token, clock.now());
    return decisionViewOf(db, viewer, request, clock.now());
  });
}

/** The stream of live updates does not end with an answer, so it is bound by itself. */
export function liveRoute(router: Router, house: House, limits: Limits): void {
  router.get(routes.live.path, async (request, response) => {
    const session = await callerFor(routes.live as Route, limits, house, request, response);
    if (!session) throw notSignedIn();
    await house.live.listen(request, response, session);
  });
}
