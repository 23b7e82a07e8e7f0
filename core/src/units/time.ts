/** Minutes and seconds, such as `07:05`; beyond an hour the minutes go on counting. */
export const clockTime = (seconds: number): string => {
  const s = Math.round(seconds);
  return `${String(Math.floor(s / 60)).padStart(2, '0')}:${String(s % 60).padStart(2, '0')}`;
};
