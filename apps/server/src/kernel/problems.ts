import type { Problem, ProblemCode } from '@tempera/contract/problem';
import { sentences } from '@tempera/contract/sentences';
import type { ErrorRequestHandler, RequestHandler, Response } from 'express';
import type { z } from 'zod';

const statusOf: Record<ProblemCode, number> = {
  invalid: 422,
  notJson: 400,
  tooLarge: 413,
  notFound: 404,
  signInFirst: 401,
  wrongPin: 401,
  pinWait: 429,
  tooManyRequests: 429,
  wrongSite: 403,
  unknownStation: 422,
  unknownRecipe: 422,
  unknownFact: 422,
  idTaken: 409,
  notYours: 403,
  waitsForPin: 403,
  headOnly: 403,
  otherSite: 403,
  deviceUnknown: 403,
  wrongPassword: 401,
  wrongPasskey: 401,
  pinAgain: 403,
  headSigns: 403,
  headBegins: 403,
  needsRole: 403,
  notSignedOff: 403,
  headOrOffice: 403,
  nameTaken: 409,
  placeTaken: 409,
  unknownPart: 422,
  alreadySetUp: 409,
  wrongCode: 401,
  noPinYet: 401,
  commonPin: 422,
  lastHead: 409,
  retiredPerson: 403,
  changedMeanwhile: 409,
  notReady: 503,
  internal: 500,
};

const titleOf: Record<ProblemCode, string> = {
  invalid: 'Not accepted',
  notJson: 'Not readable',
  tooLarge: 'Too large',
  notFound: 'Not found',
  signInFirst: 'Sign in first',
  wrongPin: 'PIN does not match',
  pinWait: 'Wait a moment',
  tooManyRequests: 'Too many requests',
  wrongSite: 'Another café',
  unknownStation: 'Unknown station',
  unknownRecipe: 'Unknown recipe',
  unknownFact: 'Unknown entry',
  idTaken: 'Id already used',
  notYours: 'Somebody else’s entry',
  waitsForPin: 'Waits for a PIN',
  headOnly: 'For the head barista',
  otherSite: 'From another site',
  deviceUnknown: 'Not a device of the house',
  wrongPassword: 'Not the right password',
  wrongPasskey: 'Not a passkey of this café',
  pinAgain: 'Your PIN once more',
  headSigns: 'For the head barista',
  headBegins: 'For the head barista',
  needsRole: 'Not for this role',
  notSignedOff: 'Not signed off for it',
  headOrOffice: 'For the head barista or the office',
  nameTaken: 'Name already used',
  placeTaken: 'Place already taken',
  unknownPart: 'Unknown part',
  alreadySetUp: 'Set up already',
  wrongCode: 'Code does not match',
  noPinYet: 'No PIN yet',
  commonPin: 'Too common a PIN',
  lastHead: 'The last head barista',
  retiredPerson: 'Out of the house',
  changedMeanwhile: 'Changed meanwhile',
  notReady: 'Not ready',
  internal: 'Server error',
};

type PlainCode = {
  [K in ProblemCode]: K extends keyof typeof sentences ? ((typeof sentences)[K] extends string ? K : never) : never;
}[ProblemCode];

/** The one error that services throw for a request that cannot be served. */
export class ProblemError extends Error {
  constructor(
    readonly code: ProblemCode,
    detail: string,
    readonly more: Pick<Problem, 'fields' | 'retryAfterS'> = {},
    options?: ErrorOptions,
  ) {
    super(detail, options);
  }
}

/** A problem whose sentence needs no figures. */
export function problem(code: PlainCode, options?: ErrorOptions): ProblemError {
  return new ProblemError(code, sentences[code], {}, options);
}

/** Parses at the edge: returns the value, or throws `invalid` with a sentence for each field. */
export function parsed<T extends z.ZodType>(schema: T, input: unknown): z.output<T> {
  const result = schema.safeParse(input);
  if (result.success) return result.data;
  const fields = result.error.issues.map((issue) => ({ path: issue.path.join('.'), message: issue.message }));
  throw new ProblemError('invalid', sentences.invalid, { fields });
}

function toProblem(error: unknown): ProblemError {
  if (error instanceof ProblemError) return error;
  const { type, status } = (error ?? {}) as { type?: string; status?: number };
  if (type === 'entity.too.large') return problem('tooLarge', { cause: error });
  if (status !== undefined && status >= 400 && status < 500) return problem('notJson', { cause: error });
  if (isConnectionLoss(error)) return problem('notReady', { cause: error });
  return problem('internal', { cause: error });
}

const CONNECTION_LOSS =
  /ECONNREFUSED|ECONNRESET|EPIPE|57P0[123]|08[0-9A-Z]{3}|terminat|Connection (ended|terminated)|timeout exceeded when trying to connect/;

/** The database went away: worth a retry, unlike a mistake of ours. */
function isConnectionLoss(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const code = (error as { code?: unknown }).code;
  return CONNECTION_LOSS.test(`${String(code)} ${error.message}`);
}

/** Sends a refusal as problem details. */
export function sendProblem(res: Response, error: ProblemError): void {
  const body: Problem = {
    type: `urn:tempera:problem:${error.code}`,
    title: titleOf[error.code],
    status: statusOf[error.code],
    detail: error.message,
    code: error.code,
    ...error.more,
  };
  if (error.more.retryAfterS !== undefined) res.setHeader('Retry-After', Math.ceil(error.more.retryAfterS));
  res.status(body.status).type('application/problem+json').send(JSON.stringify(body));
}

/** Whatever nobody answers. @throws ProblemError notFound */
export const noSuchRoute: RequestHandler = () => {
  throw problem('notFound');
};

/** Turns whatever was thrown into problem details; the unforeseen is logged. */
export const problemHandler: ErrorRequestHandler = (error, req, res, next) => {
  if (res.headersSent) {
    next(error);
    return;
  }
  const known = toProblem(error);
  if (statusOf[known.code] >= 500) req.log.error({ err: known.cause ?? known }, known.message);
  sendProblem(res, known);
};
