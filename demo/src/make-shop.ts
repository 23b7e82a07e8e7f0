import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { SHOP } from './shop/index.ts';

/** Writes the sample shop's lists as the file that the server and the command line read: `npm run demo:shop`. */
writeFileSync(fileURLToPath(new URL('../shop.json', import.meta.url)), `${JSON.stringify(SHOP, null, 1)}\n`);
