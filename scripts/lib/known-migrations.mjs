// The migrations that this version knows, by the names of their classes.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './run.mjs';

const FOLDER = join(ROOT, 'server', 'src', 'database', 'migrations');

export const knownMigrations = () =>
  readdirSync(FOLDER).flatMap((file) => {
    const name = /export class (\w+)/.exec(readFileSync(join(FOLDER, file), 'utf8'))?.[1];
    return name ? [name] : [];
  });
