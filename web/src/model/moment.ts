// Moments in the workshop's own time.

/** A moment in the workshop's own time, with its offset. */
export function localMoment(now: Date): string {
  const two = (value: number) => String(Math.floor(Math.abs(value))).padStart(2, '0');
  const offset = -now.getTimezoneOffset();
  const zone = `${offset < 0 ? '-' : '+'}${two(offset / 60)}:${two(offset % 60)}`;
  const day = `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
  return `${day}T${two(now.getHours())}:${two(now.getMinutes())}:${two(now.getSeconds())}${zone}`;
}

/** This day in the workshop's own time. */
export const localDay = (now: Date): string => localMoment(now).slice(0, 10);

const DAY = new Intl.DateTimeFormat(undefined, { weekday: 'short', day: 'numeric', month: 'short' });
const CLOCK = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' });

/** A day for people: "Sat 2 May". */
export const dayOf = (moment: string): string => DAY.format(new Date(moment));
/** A time of day for people. */
export const clockOf = (moment: string): string => CLOCK.format(new Date(moment));
