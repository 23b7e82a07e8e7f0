/** See build.mjs: the scripts run before anything is installed, so they are plain JavaScript. */
export function needBuild(): Promise<void>;
