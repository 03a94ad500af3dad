import {
  lockRules,
  moveCaps,
  recheckRules,
  smallMisses,
  trimRules,
  usualPolicy,
  type DecisionPolicy,
} from '@tempera/core/calibration';
import {
  aloneRules,
  burrRules,
  lessDoses,
  doseChecks,
  doseProofs,
  dosings,
  endings,
  firstGuesses,
  purgeCounts,
  puckWays,
  tasteLevers,
  tastings,
  tornWays,
  usualServicePolicy,
  yieldReads,
  type ServicePolicy,
} from '@tempera/core/house';
import { z } from 'zod';
import { instant } from './common.ts';
import { reason } from './field.ts';
import { sentences } from './sentences.ts';

/** How a house may set its policies; beyond these nobody could mean it. */
const policyLimits = {
  sureness: { min: 0.6, max: 0.99 },
  risk: { min: 0.02, max: 0.5 },
  longestCheckMin: { min: 10, max: 240 },
} as const;

const within = (name: keyof typeof policyLimits) => {
  const { min, max } = policyLimits[name];
  const error = sentences.policyOutOfLimits[name];
  return z.number({ error }).min(min, { error }).max(max, { error });
};

const choices = {
  sureness: within('sureness'),
  risk: within('risk'),
  lockRule: z.enum(lockRules),
  trim: z.enum(trimRules),
  longestCheckMin: within('longestCheckMin'),
  recheck: z.enum(recheckRules),
  endsShot: z.enum(endings),
  whenTorn: z.enum(tornWays),
  tasteLever: z.enum(tasteLevers),
  lessDose: z.enum(lessDoses),
  dosing: z.enum(dosings),
  doseProof: z.enum(doseProofs),
  doseCheck: z.enum(doseChecks),
  tastes: z.enum(tastings),
  puck: z.enum(puckWays),
  yieldBy: z.enum(yieldReads),
  burrsRun: z.enum(burrRules),
  moveCap: z.enum(moveCaps),
  smallMiss: z.enum(smallMisses),
  firstGuess: z.enum(firstGuesses),
  purgeCount: z.enum(purgeCounts),
  alone: z.enum(aloneRules),
};

/** The policies as the engine and the bench read them. */
export const housePolicySchema = z.object(choices);
/** Everything that a house decides, one key a policy. */
export type HousePolicy = z.infer<typeof housePolicySchema>;

/** Every choice of a house, as its policy. */
export const policyKeys = Object.keys(choices) as (keyof HousePolicy)[];

/** A change of the house's policies, made by somebody who has seen version `basedOn`. */
export const policyChangeSchema = z
  .strictObject({
    ...choices,
    basedOn: z.int().nonnegative(),
    reason,
  })
  .meta({ id: 'PolicyChange' });
/** The next version of the policies, with its reason. */
export type PolicyChange = z.infer<typeof policyChangeSchema>;

/** The policies in force or as they once were. */
export const policyVersionSchema = z
  .object({
    ...choices,
    /** 0: the house never chose, and the usual policies hold. */
    version: z.int().nonnegative(),
    /** Null where nobody chose. */
    reason: z.string().nullable(),
    changedBy: z.string().nullable(),
    changedAt: instant.nullable(),
  })
  .meta({ id: 'PolicyVersion' });
/** One version of the policies as it is kept. */
export type PolicyVersion = z.infer<typeof policyVersionSchema>;

/** Every version of a café's policies, the one in force first. */
export const policiesSchema = z.object({ versions: z.array(policyVersionSchema).min(1) }).meta({ id: 'Policies' });
/** Every version, the one in force first. */
export type Policies = z.infer<typeof policiesSchema>;

/** What holds in a house that never chose. */
export const usualHouse: HousePolicy = {
  ...usualPolicy,
  recheck: 'drift',
  moveCap: 'computed',
  smallMiss: 'collar',
  ...usualServicePolicy,
};

/** The choices of a version, without who made them and when. */
export function policyOf(policy: HousePolicy): HousePolicy {
  return Object.fromEntries(policyKeys.map((key) => [key, policy[key]])) as HousePolicy;
}

/** Compile-time proof that what zod lets in is what the core reads. */
export const policyIsCores: HousePolicy extends DecisionPolicy & ServicePolicy ? true : never = true;
