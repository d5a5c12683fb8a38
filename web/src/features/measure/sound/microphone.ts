// The sound card of this machine: plays, listens, and keeps what it hears.

import { Observable } from '../../../model/observable';
import recorderAt from './recorder.worklet.js?url&no-inline';
import { type Block, covered, cut, decibels, judged, peakOf, toneIn, type Verdict } from './samples';

export interface Heard {
  /** Largest of the last tenth of a second, dB of full scale. */
  level: number;
  /** Whether anything was clipped since it was opened or last played. */
  clipped: boolean;
}

/** Before the sweep is played, and after it, s: hum is looked for before, the box fades after. */
export const LEAD = 0.6;
export const TAIL = 2;
/** As loud as a sample can be, near enough. */
const FULL = 0.999;
/** The tone that tells whether levels are kept, Hz, how long it lasts, s, and its two levels, dB of full scale. */
const TONE = { frequency: 80, seconds: 0.8, soft: -32, loud: -20 };

/** What a browser does to a microphone unless it is told not to. */
export const REGULATES = ['echoCancellation', 'noiseSuppression', 'autoGainControl'] as const;

export class Microphone extends Observable<Heard> {
  private blocks: Block[] = [];
  private keeping = false;

  private constructor(
    private readonly context: AudioContext,
    private readonly stream: MediaStream,
  ) {
    super({ level: Number.NEGATIVE_INFINITY, clipped: false });
  }

  /** Asks for a microphone, by its key where one was chosen; the browser asks the person. */
  static async open(input: string | null, channels: number): Promise<Microphone> {
    if (!navigator.mediaDevices?.getUserMedia) {
      throw new Error(
        'This browser gives no microphone here. Open the program at http://127.0.0.1, or use a recording.',
      );
    }
    const wanted: MediaTrackConstraints = {
      echoCancellation: false,
      noiseSuppression: false,
      autoGainControl: false,
      channelCount: { ideal: channels },
      ...(input && { deviceId: { exact: input } }),
    };
    const stream = await navigator.mediaDevices.getUserMedia({ audio: wanted }).catch((cause: unknown) => {
      throw new Error(
        `The microphone cannot be opened: ${cause instanceof Error ? cause.message : 'refused'}`,
      );
    });
    const context = new AudioContext({ sampleRate: 48_000 });
    await context.audioWorklet.addModule(recorderAt);
    const opened = new Microphone(context, stream);
    const recorder = new AudioWorkletNode(context, 'oak-recorder', { numberOfOutputs: 0 });
    recorder.port.onmessage = ({ data }: MessageEvent<Block>) => opened.hear(data);
    context.createMediaStreamSource(stream).connect(recorder);
    await context.resume();
    return opened;
  }

  private hear(block: Block): void {
    if (this.keeping) this.blocks.push(block);
    const peak = peakOf(block.channels);
    this.update({ level: decibels(peak), clipped: this.snapshot().clipped || peak >= FULL });
  }

  get rate(): number {
    return this.context.sampleRate;
  }

  /** What still changes the sound on its way, by the browser's own word. */
  get regulates(): string[] {
    const settings = this.stream.getAudioTracks()[0]?.getSettings() ?? {};
    return REGULATES.filter((name) => settings[name] === true);
  }

  /** Where it plays: a sound card by its key. */
  async playsOn(output: string): Promise<void> {
    const context = this.context as AudioContext & { setSinkId?: (id: string) => Promise<void> };
    await context.setSinkId?.(output);
  }

  /** Plays samples at a level (dB of full scale) and keeps what is heard from `LEAD` before to `TAIL` after. */
  private async hears(samples: AudioBuffer, level: number, signal: AbortSignal): Promise<Float32Array[]> {
    const { context } = this;
    const source = context.createBufferSource();
    source.buffer = samples;
    const gain = context.createGain();
    gain.gain.value = 10 ** (level / 20);
    source.connect(gain).connect(context.destination);
    this.blocks = [];
    this.keeping = true;
    const begins = context.currentTime + LEAD + 0.1;
    const ends = begins + samples.duration + TAIL;
    source.start(begins);
    try {
      while (context.currentTime < ends + 0.15) {
        signal.throwIfAborted();
        await new Promise((resolve) => setTimeout(resolve, 40));
      }
    } finally {
      source.stop();
      gain.disconnect();
      this.keeping = false;
    }
    const from = Math.round((begins - LEAD) * this.rate);
    const count = Math.round((LEAD + samples.duration + TAIL) * this.rate);
    const lost = count - covered(this.blocks, from, count);
    if (lost > 0) {
      const time = ((1000 * lost) / this.rate).toFixed(0);
      throw new Error(
        `The sound card lost ${time} ms of what was heard, so nothing is kept. Close what else uses it, and play the sweep again.`,
      );
    }
    return cut(this.blocks, from, count);
  }

  /** Plays a file so many times; each time what is heard. */
  async sweep(
    file: ArrayBuffer,
    level: number,
    times: number,
    signal: AbortSignal,
    onProgress: (done: number) => void,
  ): Promise<Float32Array[][]> {
    const samples = await this.context.decodeAudioData(file);
    this.update({ clipped: false });
    const all: Float32Array[][] = [];
    for (let time = 0; time < times; time += 1) {
      onProgress(time / times);
      all.push(await this.hears(samples, level, signal));
    }
    onProgress(1);
    return all;
  }

  /** Plays a soft and a loud tone, and tells whether both come back as far apart as they were. */
  async test(signal: AbortSignal): Promise<Verdict> {
    const { frequency, seconds, soft, loud } = TONE;
    const count = Math.round(seconds * this.rate);
    const tone = this.context.createBuffer(1, count, this.rate);
    const data = tone.getChannelData(0);
    for (let k = 0; k < count; k += 1) {
      const edge = Math.min(1, k / 2400, (count - k) / 2400);
      data[k] = edge * Math.sin((2 * Math.PI * frequency * k) / this.rate);
    }
    const found: number[] = [];
    let silence = 0;
    for (const level of [soft, loud]) {
      const [heard = new Float32Array(1)] = await this.hears(tone, level, signal);
      const at = Math.round(LEAD * this.rate);
      found.push(toneIn(heard.subarray(at + count / 4, at + count), frequency, this.rate));
      silence = Math.max(silence, toneIn(heard.subarray(0, at / 2), frequency, this.rate));
    }
    return judged(found[0] ?? 0, found[1] ?? 0, silence, loud - soft);
  }

  close(): void {
    for (const track of this.stream.getTracks()) track.stop();
    void this.context.close();
  }
}

/** Microphones and sound cards by key and name. */
export async function soundDevices(): Promise<{ inputs: [string, string][]; outputs: [string, string][] }> {
  const all = await navigator.mediaDevices.enumerateDevices();
  const of = (kind: MediaDeviceKind): [string, string][] =>
    all
      .filter((device) => device.kind === kind && device.deviceId !== '')
      .map(({ deviceId, label }, at) => [deviceId, label || `${at + 1}`]);
  return { inputs: of('audioinput'), outputs: of('audiooutput') };
}
