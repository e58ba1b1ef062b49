import fc from 'fast-check';
import { expect, it } from 'vitest';
import { FOR_EVERYONE, PACKAGES, REQUEST_RIGHTS, type Viewer } from '../people/index.ts';
import { gather, mayDo, type RequestParties, relationTo } from './index.ts';

const WHO = ['ana', 'ben', 'cleo'] as const;
const person = fc.constantFrom(null, ...WHO);
const parties = fc.record({
  ...{ register: fc.constant('r'), requesterId: person, onBehalfId: person, enteredById: person, handlerId: person },
  team: fc.constantFrom(null, 'deck'),
  deciders: fc.subarray(['@ana', '@ben', 'deck', 'yard']),
  followers: fc.subarray([...WHO]),
  deskGroups: fc.constant(['yard']),
});
const viewers = fc.record({
  personId: fc.constantFrom(...WHO),
  kind: fc.constantFrom('staff' as const, 'contact' as const),
  rights: fc.constantFrom([], FOR_EVERYONE, PACKAGES.administrator),
  groups: fc.subarray(['deck', 'yard']),
});

it('are those from outside who handle a request or are asked to decide it, and did not ask it', () => {
  const met = { handles: 0, decides: 0, both: 0, asked: 0, staff: 0, nothing: 0 };
  fc.assert(
    fc.property(parties, viewers, (request: RequestParties, viewer: Viewer) => {
      const relation = relationTo(request, viewer);
      // By hand, from what stands in the request.
      const me = viewer.personId;
      const handles = request.handlerId === me;
      const decides = request.deciders.some((word) => word === `@${me}` || viewer.groups.includes(word));
      const asked = request.requesterId === me || request.onBehalfId === me;
      const isOutside = viewer.kind === 'contact';
      const want = isOutside && !asked && (handles || decides);
      expect([relation.calledIn ?? false, relation.isRequester]).toEqual([want, asked]);
      if (isOutside) expect(relation.isDesk).toBe(false);
      if (want) expect(relation.onlyReads ?? false).toBe(!handles);
      // Whatever rights were once given to who is from outside: they change it and move it on, where they handle it.
      if (isOutside)
        expect(REQUEST_RIGHTS.filter((right) => mayDo(request, viewer, right))).toEqual(
          want && handles ? ['change', 'move'] : [],
        );
      // Over many requests at once the same is said.
      const all = gather({ register: 'r', deskGroups: request.deskGroups }, [{ ...request, sort: 's', n: 1 }]);
      const [found] = all.standings(viewer);
      expect(found?.relation.calledIn ?? false).toBe(want);
      met[
        !isOutside
          ? 'staff'
          : asked
            ? 'asked'
            : handles && decides
              ? 'both'
              : handles
                ? 'handles'
                : decides
                  ? 'decides'
                  : 'nothing'
      ] += 1;
    }),
    { numRuns: 600 },
  );
  console.log('called in', met);
  for (const count of Object.values(met)) expect(count).toBeGreaterThan(5);
});
