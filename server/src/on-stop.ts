/** Longer than this nothing may take to stop, ms. */
const PATIENCE = 12_000;

/** Ends this process in order when it is told to, by whatever signal; a second one is not needed. */
export function onStop(stop: () => Promise<void>): void {
  let isStopping = false;
  const once = (): void => {
    if (isStopping) return;
    isStopping = true;
    setTimeout(() => process.exit(1), PATIENCE).unref();
    stop().then(
      () => process.exit(0),
      () => process.exit(1),
    );
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, once);
  // Whoever read what we print may be gone: that is no reason to fall.
  for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);
}
