/** See postgres.mjs: the scripts run before anything is installed, so they are plain JavaScript. */
export function needPostgres(
  name: string,
  options: { keep: boolean },
): Promise<{ url: string; data?: string; bin?: string; stop(): void }>;
