// Notes: equal temperament with A4 at 440 Hz (ISO 16).

const NAMES = ['C', 'C♯', 'D', 'E♭', 'E', 'F', 'F♯', 'G', 'A♭', 'A', 'B♭', 'B'];

/** Name of the nearest note, equal temperament with A4 at 440 Hz (ISO 16). */
export function noteAt(frequency: number): string {
  const semitones = Math.round(12 * Math.log2(frequency / 440)) + 57;
  return `${NAMES[((semitones % 12) + 12) % 12]}${Math.floor(semitones / 12)}`;
}
