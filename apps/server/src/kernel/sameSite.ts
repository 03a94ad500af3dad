import type { RequestHandler } from 'express';
import { problem } from './problems.ts';

/** Asks that change nothing. */
const READS = new Set(['GET', 'HEAD', 'OPTIONS']);

const hostOf = (url: string): string | null => (URL.canParse(url) ? new URL(url).host : null);

/**
 * Refuses what a page of another site asks for in somebody's name, beside what the cookie already keeps: browsers say where a
 * request comes from. With a public address, a request for any other name is refused too (a name that was bent to this machine).
 * @param publicUrl where browsers reach the server; null: the name that they asked for
 */
export function sameSiteOnly(publicUrl: string | null): RequestHandler {
  const publicHost = publicUrl === null ? null : hostOf(publicUrl);
  return (req, _res, next) => {
    const host = req.get('host') ?? '';
    if (publicHost !== null && host !== publicHost) throw problem('otherSite');
    if (!READS.has(req.method)) {
      const origin = req.get('origin');
      const foreign = origin !== undefined && hostOf(origin) !== (publicHost ?? host);
      if (foreign || req.get('sec-fetch-site') === 'cross-site') throw problem('otherSite');
    }
    next();
  };
}
