/** Whether a process of this machine lives, as whatever user. */
export function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    // EPERM: it lives, as another user.
    return (error as NodeJS.ErrnoException).code !== 'ESRCH';
  }
}
