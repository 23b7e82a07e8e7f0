/** Whether this browser draws in the round. */
export function drawsInTheRound(): boolean {
  try {
    return document.createElement('canvas').getContext('webgl2') !== null;
  } catch {
    return false;
  }
}
