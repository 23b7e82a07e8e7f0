/** Such as `yellow-pin-2026-11-27-0930.backup`, by the clock of this machine. */
export const nameOf = (now) => {
  const two = (v) => String(v).padStart(2, '0');
  const day = [now.getFullYear(), two(now.getMonth() + 1), two(now.getDate())].join('-');
  return `yellow-pin-${day}-${two(now.getHours())}${two(now.getMinutes())}.backup`;
};
