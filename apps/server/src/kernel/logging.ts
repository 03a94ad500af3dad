import type { IncomingMessage, ServerResponse } from 'node:http';
import { pino, type DestinationStream, type Logger } from 'pino';
import { pinoHttp } from 'pino-http';

/** What the log may say of a request: never a header, since cookies are, and never a search, since names are in it. */
const requestShown = ({ id, method, url, originalUrl }: Request) => ({
  id,
  method,
  // Routers shorten the address while they handle a request.
  url: (originalUrl ?? url).split('?')[0],
});
interface Request {
  id: unknown;
  method: string;
  url: string;
  originalUrl?: string;
}
/** Of a failure what helps to mend it; a refused query would bring its parameters along, which are what people typed. */
const errorShown = ({ name, message, stack, code }: Error & { code?: unknown }) => ({ name, message, stack, code });
const responseShown = ({ statusCode }: { statusCode: number }) => ({ statusCode });

const serializers = { req: requestShown, res: responseShown, err: errorShown };

/** The server's log: JSON lines, without cookies, tokens, PINs, names or bodies. @param to standard output unless told */
export function createLog(level: string, to?: DestinationStream): Logger {
  const options = { level, serializers };
  return to ? pino(options, to) : pino(options);
}

/** One line a request; the health checks and the files of the page are not worth one. */
export function logRequests(log: Logger): ReturnType<typeof pinoHttp<IncomingMessage, ServerResponse>> {
  return pinoHttp({
    logger: log,
    // The library wraps these around serializers of its own, which would show every header.
    serializers,
    wrapSerializers: false,
    autoLogging: { ignore: (req) => /^\/(healthz|readyz|assets)/.test(req.url ?? '') },
  });
}
