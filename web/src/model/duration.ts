// How long things take, as one says it.

/** Minutes as one says them. */
export function lasting(minutes: number): string {
  if (minutes < 1) return 'no work';
  if (minutes < 60) return `${Math.round(minutes)} min`;
  const hours = Math.round(minutes / 6) / 10;
  return `${hours} h`;
}

/** Hours that something dries. */
export const drying = (hours: number): string =>
  hours < 1 ? `${Math.round(hours * 60)} min` : `${Math.round(hours * 10) / 10} h`;
