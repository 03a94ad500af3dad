import type { Role } from '@tempera/contract/team';
import { EntitySchema } from 'typeorm';
import { foreignKey, id, instant, integer, real, siteColumn, text, uuid } from '../platform/entity.ts';

export interface SiteRow {
  id: string;
  name: string;
  timeZone: string;
  roomWidthCm: number;
  roomDepthCm: number;
}

export const SiteEntity = new EntitySchema<SiteRow>({
  name: 'site',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'site_pk' },
    name: text(),
    timeZone: text('time_zone'),
    roomWidthCm: real('room_width_cm'),
    roomDepthCm: real('room_depth_cm'),
  },
});

export interface PersonRow {
  id: string;
  siteId: string;
  name: string;
  role: Role;
  pinHash: string;
  failedAttempts: number;
  waitUntil: Date | null;
}

export const PersonEntity = new EntitySchema<PersonRow>({
  name: 'person',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'person_pk' },
    siteId: siteColumn('person'),
    name: text(),
    role: text(),
    pinHash: text('pin_hash'),
    failedAttempts: integer('failed_attempts', { default: 0 }),
    waitUntil: instant('wait_until', { nullable: true }),
  },
  uniques: [{ name: 'person_name_uq', columns: ['siteId', 'name'] }],
});

export interface SessionRow {
  tokenHash: string;
  siteId: string;
  personId: string;
  expiresAt: Date;
}

export const SessionEntity = new EntitySchema<SessionRow>({
  name: 'session',
  columns: {
    tokenHash: { type: 'text', name: 'token_hash', primary: true, primaryKeyConstraintName: 'session_pk' },
    siteId: siteColumn('session'),
    personId: uuid('person_id', foreignKey('person', 'session_person_fk')),
    expiresAt: instant('expires_at'),
  },
  indices: [{ name: 'session_expires_ix', columns: ['expiresAt'] }],
});

export const teamEntities = [SiteEntity, PersonEntity, SessionEntity];
