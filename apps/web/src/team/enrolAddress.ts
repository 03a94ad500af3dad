/** The code stands behind the hash, which no browser sends to a server: no log on the way keeps it. */
const NAMED = /^#device=(\d{4,12})$/;

/** Where another device opens Tempera with its code already typed: as this one reaches the server. */
export const enrolAddress = (code: string): string => `${location.origin}/#device=${code}`;

/** The code that this page was opened with; empty: none. */
export const codeOfAddress = (): string => NAMED.exec(location.hash)?.[1] ?? '';
