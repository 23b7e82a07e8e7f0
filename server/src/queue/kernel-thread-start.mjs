// A worker thread does not inherit the TypeScript loader: it registers its own, then starts.
import { register } from 'tsx/esm/api';
register();
await import('./kernel-thread.ts');
