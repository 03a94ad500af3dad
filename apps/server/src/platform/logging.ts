import { pino, type Logger } from 'pino';

/** The server's log: JSON lines, one a request, without cookies or bodies. */
export function createLog(level: string): Logger {
  return pino({
    level,
    serializers: {
      req: ({ id, method, url }: { id: unknown; method: string; url: string }) => ({ id, method, url }),
      res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
    },
  });
}
