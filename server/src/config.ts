import { z } from 'zod';

const environmentSchema = z.object({
  DATABASE_URL: z.string().min(1),
  PORT: z.coerce.number().int().min(0).max(65535).default(4600),
  HOST: z.string().default('127.0.0.1'),
  YELLOW_PIN_STEP_LIMIT_MB: z.coerce.number().positive().max(2000).default(100),
  YELLOW_PIN_DEMO: z.enum(['yes', 'no']).default('yes'),
  LOG_LEVEL: z.string().default('info'),
});

export interface Config {
  databaseUrl: string;
  port: number;
  host: string;
  stepLimitBytes: number;
  demo: boolean;
  logLevel: string;
}

/** Reads the settings from the environment; throws with the name of the one that is wrong. */
export function readConfig(env: NodeJS.ProcessEnv = process.env): Config {
  const parsed = environmentSchema.safeParse(env);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    throw new Error(`The setting ${issue.path.join('.')} is wrong: ${issue.message}. npm start sets what is needed.`);
  }
  const e = parsed.data;
  return {
    databaseUrl: e.DATABASE_URL,
    port: e.PORT,
    host: e.HOST,
    stepLimitBytes: e.YELLOW_PIN_STEP_LIMIT_MB * 1048576,
    demo: e.YELLOW_PIN_DEMO === 'yes',
    logLevel: e.LOG_LEVEL,
  };
}
