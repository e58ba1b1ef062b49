import type { House } from '../platform/house.ts';
import type { Serve } from '../platform/serve.ts';
import { assign, changeFields, comment, freeRequest, moveStage, reroute } from './commands.ts';
import { decide, decideByLink } from './decide.ts';

/** What people do to requests. */
export function deskRoutes(serve: Serve, house: House): void {
  serve('changeFields', ({ viewer, params, body, version }) =>
    changeFields(house, viewer, { number: params.number, version, changes: body.changes }),
  );
  serve('moveStage', ({ viewer, params, body, version }) =>
    moveStage(house, viewer, { number: params.number, version, stage: body.stage }),
  );
  serve('freeRequest', ({ viewer, params, body, version }) =>
    freeRequest(house, viewer, { number: params.number, version, ...body }),
  );
  serve('reroute', ({ viewer, params, body, version }) =>
    reroute(house, viewer, { number: params.number, version, ...body }),
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
  serve('decideByLink', ({ params, body, key }) => decideByLink(house, { token: params.token, ...body, key }));
}
