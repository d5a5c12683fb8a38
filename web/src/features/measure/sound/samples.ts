// What is done with samples before they are sent: cut, averaged, written as a WAV file, measured.

export interface Block {
  /** The frame of its first sample. */
  frame: number;
  channels: readonly Float32Array[];
}

/** The samples of some frames out of blocks; silence where there are none. */
export function cut(blocks: readonly Block[], from: number, count: number): Float32Array[] {
  const channels = blocks[0]?.channels.length ?? 1;
  return Array.from({ length: channels }, (_, channel) => {
    const whole = new Float32Array(count);
    for (const { frame, channels } of blocks) {
      const samples = channels[channel];
      if (!samples) continue;
      const at = frame - from;
      const skipped = Math.max(0, -at);
      const part = samples.subarray(skipped, Math.max(skipped, Math.min(samples.length, count - at)));
      if (part.length > 0) whole.set(part, Math.max(0, at));
    }
    return whole;
  });
}

/** How many of some frames blocks hold. */
export function covered(blocks: readonly Block[], from: number, count: number): number {
  return blocks.reduce((sum, { frame, channels }) => {
    const ends = Math.min(from + count, frame + (channels[0]?.length ?? 0));
    return sum + Math.max(0, ends - Math.max(from, frame));
  }, 0);
}

/** The mean of several recordings of one length: noise falls by 3 dB each time their number doubles. */
export function averaged(several: readonly (readonly Float32Array[])[]): Float32Array[] {
  const [first = []] = several;
  return first.map((channel, at) =>
    channel.map((_, k) => several.reduce((sum, one) => sum + (one[at]?.[k] ?? 0), 0) / several.length),
  );
}

/** Largest sample. */
export const peakOf = (channels: readonly Float32Array[]): number =>
  channels.reduce(
    (most, channel) => channel.reduce((peak, sample) => Math.max(peak, Math.abs(sample)), most),
    0,
  );

/** dB of full scale. */
export const decibels = (peak: number): number => 20 * Math.log10(Math.max(peak, 1e-6));

/** How strong a tone is in samples: its amplitude (Goertzel, American Mathematical Monthly 65, 1958). */
export function toneIn(samples: Float32Array, frequency: number, rate: number): number {
  const turn = (2 * Math.PI * frequency) / rate;
  const twice = 2 * Math.cos(turn);
  let [before, last] = [0, 0];
  for (const sample of samples) {
    const next = sample + twice * last - before;
    before = last;
    last = next;
  }
  const power = last * last + before * before - twice * last * before;
  return (2 * Math.sqrt(Math.max(0, power))) / samples.length;
}

/** Whether a microphone passes on loud and soft as they are. */
export type Verdict = 'true' | 'levelled' | 'unheard';

/** By a soft and a loud tone, whose amplitudes were so many decibels apart: what regulates itself brings them nearer. */
export function judged(soft: number, loud: number, silence: number, apart: number): Verdict {
  if (loud < 4 * silence || soft < 2 * silence) return 'unheard';
  return Math.abs(decibels(loud) - decibels(soft) - apart) < 1.5 ? 'true' : 'levelled';
}

/** Samples as a WAV file of 32-bit floating numbers. */
export function wavOf(channels: readonly Float32Array[], rate: number): Blob {
  const count = channels[0]?.length ?? 0;
  const frame = 4 * channels.length;
  const file = new DataView(new ArrayBuffer(44 + count * frame));
  const word = (at: number, text: string) => {
    for (let k = 0; k < text.length; k += 1) file.setUint8(at + k, text.charCodeAt(k));
  };
  word(0, 'RIFF');
  file.setUint32(4, 36 + count * frame, true);
  word(8, 'WAVEfmt ');
  file.setUint32(16, 16, true);
  file.setUint16(20, 3, true);
  file.setUint16(22, channels.length, true);
  file.setUint32(24, rate, true);
  file.setUint32(28, rate * frame, true);
  file.setUint16(32, frame, true);
  file.setUint16(34, 32, true);
  word(36, 'data');
  file.setUint32(40, count * frame, true);
  for (let k = 0; k < count; k += 1) {
    channels.forEach((channel, at) => {
      file.setFloat32(44 + k * frame + 4 * at, channel[k] ?? 0, true);
    });
  }
  return new Blob([file], { type: 'audio/wav' });
}
