import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('../..', import.meta.url));
export const webDist = path.join(root, 'apps/web/dist/');
export const serverDist = path.join(root, 'apps/server/dist/');
