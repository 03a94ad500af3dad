import type { CafeSheet } from '@tempera/contract/house';
import type { PersonSheet, Role } from '@tempera/contract/team';
import { usualUnits, type Units } from '@tempera/core/house';
import { EntitySchema } from 'typeorm';
import {
  bool,
  foreignKey,
  id,
  instant,
  integer,
  json,
  keptColumns,
  nameInUse,
  real,
  siteColumn,
  text,
  uuid,
  type KeptRow,
} from '../kernel/entity.ts';

export type SiteRow = Omit<KeptRow, 'siteId'> &
  CafeSheet & {
    roomWidthCm: number;
    roomDepthCm: number;
    /** Counts the changes of the plan. */
    planRevision: number;
    /** The café's first day; null in cafés from before it was noted. */
    foundedAt: Date | null;
    /** When anything of the house but its facts was last changed; null: not since that is noted. */
    houseChangedAt?: Date | null;
  };

export const SiteEntity = new EntitySchema<SiteRow>({
  name: 'site',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'site_pk' },
    name: text(),
    timeZone: text('time_zone'),
    dayStartsMin: integer('day_starts_min', { default: 240 }),
    opensMin: integer('opens_min', { default: 450 }),
    closesMin: integer('closes_min', { default: 1080 }),
    week: json('week', { default: [] }),
    exceptions: json('exceptions', { default: [] }),
    shifts: json('shifts', { default: [] }),
    altitudeM: { ...real('altitude_m'), default: 0 },
    currency: { ...text(), default: 'EUR' },
    unitSchool: { ...text('unit_school'), default: 'metric' },
    roomWidthCm: real('room_width_cm'),
    roomDepthCm: real('room_depth_cm'),
    planRevision: integer('plan_revision', { default: 1 }),
    foundedAt: instant('founded_at', { nullable: true }),
    houseChangedAt: instant('house_changed_at', { nullable: true }),
    ...keptColumns('site'),
  },
});

export interface PersonRow extends KeptRow {
  name: string;
  role: Role;
  /** Null until they have set one, by a code. */
  pinHash: string | null;
  codeHash: string | null;
  codeUntil: Date | null;
  failedAttempts: number;
  waitUntil: Date | null;
  units: Units;
  signOffs: PersonSheet['signOffs'];
  /** A long one, for whoever comes from elsewhere; null: they come in by a tablet only. */
  passwordHash: string | null;
}

export const PersonEntity = new EntitySchema<PersonRow>({
  name: 'person',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'person_pk' },
    siteId: siteColumn('person'),
    name: text(),
    role: text(),
    pinHash: text('pin_hash', { nullable: true }),
    codeHash: text('code_hash', { nullable: true }),
    codeUntil: instant('code_until', { nullable: true }),
    failedAttempts: integer('failed_attempts', { default: 0 }),
    waitUntil: instant('wait_until', { nullable: true }),
    units: json('units', { default: usualUnits }),
    signOffs: json('sign_offs', { default: [] }),
    passwordHash: text('password_hash', { nullable: true }),
    ...keptColumns('person'),
  },
  indices: [nameInUse('person')],
});

export interface SessionRow {
  tokenHash: string;
  siteId: string;
  personId: string;
  expiresAt: Date;
  createdAt: Date;
  seenAt: Date;
  /** When its person last gave their PIN or password. */
  provenAt: Date;
  /** The tablet that it began on; null: none that was enrolled. */
  deviceId: string | null;
}

/** A tablet of the house; one that waits has a code and no token yet. */
interface DeviceRow {
  id: string;
  siteId: string;
  name: string;
  tokenHash: string | null;
  codeHash: string | null;
  codeUntil: Date | null;
  enrolledBy: string;
  enrolledAt: Date;
  struckOff: boolean;
}

const DeviceEntity = new EntitySchema<DeviceRow>({
  name: 'device',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'device_pk' },
    siteId: siteColumn('device'),
    name: text(),
    tokenHash: text('token_hash', { nullable: true }),
    codeHash: text('code_hash', { nullable: true }),
    codeUntil: instant('code_until', { nullable: true }),
    enrolledBy: uuid('enrolled_by', foreignKey('person', 'device_enrolled_by_fk')),
    enrolledAt: instant('enrolled_at', { default: () => 'now()' }),
    struckOff: bool('struck_off', { default: false }),
  },
  uniques: [{ name: 'device_token_uq', columns: ['tokenHash'] }],
  indices: [{ name: 'device_site_ix', columns: ['siteId'] }],
});

export const SessionEntity = new EntitySchema<SessionRow>({
  name: 'session',
  columns: {
    tokenHash: { type: 'text', name: 'token_hash', primary: true, primaryKeyConstraintName: 'session_pk' },
    siteId: siteColumn('session'),
    personId: uuid('person_id', foreignKey('person', 'session_person_fk')),
    expiresAt: instant('expires_at'),
    createdAt: instant('created_at', { default: () => 'now()' }),
    seenAt: instant('seen_at', { default: () => 'now()' }),
    provenAt: instant('proven_at', { default: () => 'now()' }),
    deviceId: uuid('device_id', { nullable: true, ...foreignKey('device', 'session_device_fk') }),
  },
  indices: [{ name: 'session_expires_ix', columns: ['expiresAt'] }],
});

/** A second person's yes to what one other person writes until then. */
export interface YesRow {
  id: string;
  siteId: string;
  personId: string;
  toPersonId: string;
  givenAt: Date;
  until: Date;
}

export const YesEntity = new EntitySchema<YesRow>({
  name: 'yes',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'yes_pk' },
    siteId: siteColumn('yes'),
    personId: uuid('person_id', foreignKey('person', 'yes_person_fk')),
    toPersonId: uuid('to_person_id', foreignKey('person', 'yes_to_person_fk')),
    givenAt: instant('given_at', { default: () => 'now()' }),
    until: instant('until'),
  },
});

export const teamEntities = [SiteEntity, PersonEntity, DeviceEntity, SessionEntity, YesEntity];
