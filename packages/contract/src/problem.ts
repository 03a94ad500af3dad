import { z } from 'zod';

/** Every way in which a request can fail. */
export const problemCodes = [
  'invalid',
  'notJson',
  'tooLarge',
  'notFound',
  'signInFirst',
  'wrongPin',
  'pinWait',
  'tooManyRequests',
  'wrongSite',
  'unknownStation',
  'unknownRecipe',
  'unknownFact',
  'idTaken',
  'notYours',
  'waitsForPin',
  'headOnly',
  'otherSite',
  'deviceUnknown',
  'wrongPassword',
  'wrongPasskey',
  'pinAgain',
  'headSigns',
  'headBegins',
  'needsRole',
  'notSignedOff',
  'headOrOffice',
  'nameTaken',
  'placeTaken',
  'unknownPart',
  'alreadySetUp',
  'wrongCode',
  'noPinYet',
  'commonPin',
  'lastHead',
  'retiredPerson',
  'changedMeanwhile',
  'notReady',
  'internal',
] as const;

/** A way in which a request can fail. */
export type ProblemCode = (typeof problemCodes)[number];

/** Problem details (RFC 9457) with our code and, for refused input, the fields and a sentence for each. */
export const problemSchema = z
  .object({
    type: z.string(),
    title: z.string(),
    status: z.int(),
    detail: z.string(),
    code: z.enum(problemCodes),
    fields: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
    retryAfterS: z.number().optional(),
  })
  .meta({ id: 'Problem' });

/** A refusal as it goes over the wire. */
export type Problem = z.infer<typeof problemSchema>;
