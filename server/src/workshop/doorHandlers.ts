import type { doorRoutes } from '@tolvek/contract';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { doorReach } from './doorReach.ts';
import { addDoor, doorView, removalView, removeDoor, renewAddress, setDoor, settleDoor } from './doors.ts';

export function doorHandlers(house: House): Handlers<typeof doorRoutes> {
  const { db, clock } = house;
  return {
    doorDesign: ({ params }) => doorView(db, params.slug, clock.now()),
    changeDoor: ({ viewer, params, body, version }) =>
      settleDoor(house, viewer, { slug: params.slug, version, ...body }),
    addDoor: ({ viewer, params, body, key }) => addDoor(house, viewer, { form: params.key, once: key, ...body }),
    doorRemoval: ({ params }) => removalView(db, params.slug),
    removeDoor: ({ viewer, params, version }) => removeDoor(house, viewer, { slug: params.slug, version }),
    moveDoor: ({ viewer, params, body, version }) =>
      renewAddress(house, viewer, { slug: params.slug, version, slugNow: body.slug, leadsOn: body.leadsOn }),
    tryDoor: ({ params, body }) => doorReach(db, params.slug, body.door),
    setDoor: ({ viewer, params, body }) => setDoor(house, viewer, { slug: params.slug, ...body }),
  };
}
