// Runs beside the page, in the sound's own time: hands on what comes in, with the frame that it begins at.

const BATCH = 2048;

class Recorder extends AudioWorkletProcessor {
  constructor() {
    super();
    this.kept = [];
    this.count = 0;
    this.first = 0;
  }

  process([input]) {
    if (!input || input.length === 0) {
      this.send();
      return true;
    }
    // Frames that were left out must not move those behind them.
    if (this.count > 0 && currentFrame !== this.first + this.count) this.send();
    if (this.count === 0) this.first = currentFrame;
    this.kept.push(input.map((channel) => channel.slice()));
    this.count += input[0].length;
    if (this.count >= BATCH) this.send();
    return true;
  }

  send() {
    const [block] = this.kept;
    if (!block) return;
    const channels = block.map((_, at) => {
      const whole = new Float32Array(this.count);
      let place = 0;
      for (const part of this.kept) {
        whole.set(part[at] ?? part[0], place);
        place += part[0].length;
      }
      return whole;
    });
    this.port.postMessage({ frame: this.first, channels });
    this.kept = [];
    this.count = 0;
  }
}

registerProcessor('oak-recorder', Recorder);
