import { createHash } from 'node:crypto';

/** What a session or a tablet is known by; its token itself is in the cookie only. */
export const tokenHash = (token: string): string => createHash('sha256').update(token).digest('base64url');
