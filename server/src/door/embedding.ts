import type { RequestHandler } from 'express';
import type { House } from '../platform/house.ts';
import { Problem } from '../platform/problem.ts';
import { doorBySlug } from './queries.ts';

/** The origins whose pages may show a door in a frame; none for a door of the staff, and for one that is not there. */
function originsFor({ db }: House, slug: string): readonly string[] {
  try {
    const { door } = doorBySlug(db, slug);
    return door.kind === 'outside' ? (door.design.embeds ?? []) : [];
  } catch (error) {
    if (error instanceof Problem) return [];
    throw error;
  }
}

/**
 * Lets the page of a door stand in frames of the pages that it names, and of no others; all else of ours stands in none but
 * our own. Whoever is signed in here is not in such a frame: the session is not sent along to it.
 */
export const mayBeFramed =
  (house: House): RequestHandler<{ readonly slug: string }> =>
  (request, response, next) => {
    const origins = originsFor(house, request.params.slug);
    const policy = response.getHeader('Content-Security-Policy');
    if (origins.length > 0 && typeof policy === 'string') {
      const said = `frame-ancestors ${["'self'", ...origins].join(' ')}`;
      response.setHeader(
        'Content-Security-Policy',
        policy.replace(/frame-ancestors [^;]*/, () => said),
      );
      // It knows of no origins: what the policy says counts in its place (CSP 3, 7.4.4).
      response.removeHeader('X-Frame-Options');
    }
    next();
  };
