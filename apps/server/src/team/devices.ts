import { randomBytes } from 'node:crypto';
import { MS_PER_DAY, MS_PER_MINUTE } from '@tempera/core/numbers';
import type { devicesSchema, handedCodeSchema, Session } from '@tempera/contract/team';
import { parse as parseCookies } from 'cookie';
import type { Request, Response } from 'express';
import type { DataSource } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';
import type { z } from 'zod';
import { endStreamsOf } from '../kernel/live.ts';
import { problem } from '../kernel/problems.ts';
import { cookieOptions } from './auth.ts';
import { drawCode } from './pin.ts';
import { tokenHash } from './tokens.ts';

/** The cookie by which a tablet of the house is known. */
const DEVICE_COOKIE = 'tempera_device';
/** As long as browsers keep a cookie at most. */
const DEVICE_DAYS = 400;
const CODE_MINUTES = 15;
const TOKEN_BYTES = 32;

/** A tablet that a head has enrolled. */
export interface Device {
  id: string;
  siteId: string;
}

/** The enrolled tablet that asks; null: none that is known. */
export async function deviceOf(db: DataSource, req: Request): Promise<Device | null> {
  const token = parseCookies(req.headers.cookie ?? '')[DEVICE_COOKIE];
  if (token === undefined) return null;
  const rows = await db.query<Device[]>(
    'SELECT id, site_id AS "siteId" FROM device WHERE token_hash = $1 AND NOT struck_off',
    [tokenHash(token)],
  );
  return rows[0] ?? null;
}

/** Cafés that have enrolled a tablet: from then on names and PINs are for tablets of the house. */
export async function keepingDevices(db: DataSource, siteIds: readonly string[]): Promise<Set<string>> {
  const rows = await db.query<{ id: string }[]>(
    `SELECT DISTINCT site_id AS id FROM device WHERE site_id = ANY($1) AND NOT struck_off AND token_hash IS NOT NULL`,
    [siteIds],
  );
  return new Set(rows.map(({ id }) => id));
}

/**
 * The tablet that a person's PIN is typed at; null where their café has enrolled none.
 * @throws ProblemError deviceUnknown: the café has, and this is none of them
 */
export async function tabletFor(db: DataSource, req: Request, personId: string): Promise<string | null> {
  const [person] = await db.query<{ siteId: string }[]>('SELECT site_id AS "siteId" FROM person WHERE id = $1', [
    personId,
  ]);
  if (!person) throw problem('notFound');
  const device = await deviceOf(db, req);
  if (device?.siteId === person.siteId) return device.id;
  if ((await keepingDevices(db, [person.siteId])).size > 0) throw problem('deviceUnknown');
  return null;
}

function giveCookie(res: Response, token: string, overTls: boolean): void {
  res.cookie(DEVICE_COOKIE, token, { ...cookieOptions(overTls), maxAge: DEVICE_DAYS * MS_PER_DAY });
}

/** Enrols the tablet that a head is at. A tablet that was enrolled before gets another name. @returns its id */
export async function enrolHere(
  db: DataSource,
  { siteId, personId }: { siteId: string; personId: string },
  name: string,
  res: Response,
  overTls: boolean,
): Promise<string> {
  const id = uuidv7();
  const token = randomBytes(TOKEN_BYTES).toString('base64url');
  await db.query('INSERT INTO device (id, site_id, name, token_hash, enrolled_by) VALUES ($1, $2, $3, $4, $5)', [
    id,
    siteId,
    name,
    tokenHash(token),
    personId,
  ]);
  giveCookie(res, token, overTls);
  return id;
}

/** A code by which another tablet enrols itself, shown once. */
export async function codeForDevice(
  db: DataSource,
  { site, person }: Session,
  name: string,
): Promise<z.infer<typeof handedCodeSchema>> {
  const code = drawCode();
  const until = new Date(Date.now() + CODE_MINUTES * MS_PER_MINUTE);
  await db.query(
    `INSERT INTO device (id, site_id, name, code_hash, code_until, enrolled_by) VALUES ($1, $2, $3, $4, $5, $6)`,
    [uuidv7(), site.id, name, tokenHash(code), until, person.id],
  );
  return { code, until: until.toISOString() };
}

/** A tablet enrols itself by a code, which is used up. @throws ProblemError wrongCode */
export async function enrolByCode(db: DataSource, code: string, res: Response, overTls: boolean): Promise<void> {
  const token = randomBytes(TOKEN_BYTES).toString('base64url');
  const [rows] = await db.query<[object[], number]>(
    `UPDATE device SET token_hash = $2, code_hash = NULL, code_until = NULL, enrolled_at = now()
      WHERE code_hash = $1 AND code_until > now() AND NOT struck_off RETURNING id`,
    [tokenHash(code), tokenHash(token)],
  );
  if (rows.length === 0) throw problem('wrongCode');
  giveCookie(res, token, overTls);
}

/** The tablets of a café. */
export async function devicesOf(
  db: DataSource,
  siteId: string,
  here: Device | null,
): Promise<z.infer<typeof devicesSchema>> {
  const rows = await db.query<{ id: string; name: string; enrolledAt: Date; by: string; waits: boolean }[]>(
    `SELECT d.id, d.name, d.enrolled_at AS "enrolledAt", p.name AS by, d.token_hash IS NULL AS waits
       FROM device d JOIN person p ON p.id = d.enrolled_by
      WHERE d.site_id = $1 AND NOT d.struck_off AND (d.token_hash IS NOT NULL OR d.code_until > now())
      ORDER BY d.enrolled_at`,
    [siteId],
  );
  return {
    devices: rows.map(({ enrolledAt, ...row }) => ({
      ...row,
      enrolledAt: enrolledAt.toISOString(),
      here: row.id === here?.id,
    })),
  };
}

/** Strikes a tablet off: whoever is signed in on it is not any more, on every process. @throws ProblemError notFound */
export async function strikeOff(db: DataSource, siteId: string, deviceId: string): Promise<void> {
  const [struck] = await db.query<[object[], number]>(
    'UPDATE device SET struck_off = true WHERE id = $1 AND site_id = $2 RETURNING id',
    [deviceId, siteId],
  );
  if (struck.length === 0) throw problem('notFound');
  const [ended] = await db.query<[{ hash: string }[], number]>(
    'DELETE FROM session WHERE device_id = $1 RETURNING token_hash AS hash',
    [deviceId],
  );
  for (const { hash } of ended) await endStreamsOf(db, hash);
}
