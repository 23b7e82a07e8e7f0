import { screenLines } from './screens.ts';
import { readingLines } from './reading.ts';
console.log(process.argv[2] === 'r' ? await readingLines() : await screenLines());
process.exit(0);
