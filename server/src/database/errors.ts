/** Error codes of PostgreSQL (SQLSTATE) and of sockets that mean: not now, perhaps later. */
const AWAY = /^(08...|57P0[123]|53300|ECONN\w+|EPIPE|ENOTFOUND|EAI_AGAIN|ETIMEDOUT|EHOSTUNREACH)$/;
const AWAY_WORDS =
  /Connection terminated|timeout expired|Client has encountered a connection error|Driver not Connected/i;

interface Coded {
  code?: unknown;
  driverError?: unknown;
  message?: unknown;
  errors?: unknown[];
}
const codeOf = (error: unknown): string => {
  const e = (error ?? {}) as Coded;
  const code =
    e.code ?? (e.driverError as Coded | undefined)?.code ?? (e.errors?.[0] as Coded | undefined)?.code;
  return typeof code === 'string' ? code : '';
};

/** The database cannot be reached just now: what was asked may be asked again. */
export function isAway(error: unknown): boolean {
  const { message } = (error ?? {}) as Coded;
  return AWAY.test(codeOf(error)) || (typeof message === 'string' && AWAY_WORDS.test(message));
}

/** The disk that the database or an upload is written to is full. */
export const isNoRoom = (error: unknown): boolean => /^(53100|ENOSPC|EDQUOT)$/.test(codeOf(error));

/** What was sent cannot be stored: text or numbers that PostgreSQL does not take (SQLSTATE class 22). */
export const isBadData = (error: unknown): boolean => /^22...$/.test(codeOf(error));

/** One line for who starts the server. */
export function describeError(error: unknown): string {
  const e = (error ?? {}) as Coded;
  const first = e.errors?.[0] as Coded | undefined;
  const text = [e.message, first?.message, codeOf(error)].find((t) => typeof t === 'string' && t !== '');
  return String(text ?? error).replace(/\s*\n\s*/g, ' ');
}
