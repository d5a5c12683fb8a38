// Grain of wood and the shadow under a box, painted once.

import { CanvasTexture, RepeatWrapping, SRGBColorSpace } from 'three';
import { WOOD } from './view';

/** Numbers between 0 and 1 that are the same every time. */
function series(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_664_525 + 1_013_904_223) % 4_294_967_296;
    return state / 4_294_967_296;
  };
}

function painted(
  width: number,
  height: number,
  paint: (ctx: CanvasRenderingContext2D) => void,
): CanvasTexture {
  const canvas = Object.assign(document.createElement('canvas'), { width, height });
  const ctx = canvas.getContext('2d');
  if (ctx) paint(ctx);
  const texture = new CanvasTexture(canvas);
  texture.colorSpace = SRGBColorSpace;
  return texture;
}

/** Streaks along the first direction; one repeat is half a metre long and a quarter wide. */
export function grain(): CanvasTexture {
  const texture = painted(512, 256, (ctx) => {
    const any = series(7);
    ctx.fillStyle = WOOD;
    ctx.fillRect(0, 0, 512, 256);
    for (let streak = 0; streak < 150; streak += 1) {
      const y = any() * 256;
      const dark = any();
      ctx.strokeStyle =
        dark > 0.45 ? `rgba(140, 94, 48, ${0.05 + 0.16 * any()})` : `rgba(255, 236, 205, ${0.1 * any()})`;
      ctx.lineWidth = 0.6 + 2.2 * any();
      ctx.beginPath();
      const [wave, phase] = [1 + 3 * any(), any() * 6.28];
      for (let x = -8; x <= 520; x += 8) {
        // Whole waves, so that the ends meet.
        ctx.lineTo(x, y + wave * Math.sin((x / 512) * 6.2832 + phase));
      }
      ctx.stroke();
    }
  });
  texture.wrapS = RepeatWrapping;
  texture.wrapT = RepeatWrapping;
  texture.repeat.set(2, 4);
  texture.anisotropy = 4;
  return texture;
}

/** Dark in the middle, nothing at the edge. */
export function shade(): CanvasTexture {
  return painted(128, 128, (ctx) => {
    const round = ctx.createRadialGradient(64, 64, 8, 64, 64, 64);
    round.addColorStop(0, 'rgba(20, 16, 10, 0.55)');
    round.addColorStop(0.55, 'rgba(20, 16, 10, 0.22)');
    round.addColorStop(1, 'rgba(20, 16, 10, 0)');
    ctx.fillStyle = round;
    ctx.fillRect(0, 0, 128, 128);
  });
}

/** Fibres that run every way; one repeat is a quarter of a metre. */
export function fibres(): CanvasTexture {
  const texture = painted(256, 256, (ctx) => {
    const any = series(11);
    ctx.fillStyle = '#efe9da';
    ctx.fillRect(0, 0, 256, 256);
    for (let fibre = 0; fibre < 900; fibre += 1) {
      const [x, y, turn] = [256 * any(), 256 * any(), 6.28 * any()];
      const long = 6 + 16 * any();
      ctx.strokeStyle = any() > 0.5 ? 'rgba(255, 253, 246, 0.5)' : 'rgba(150, 138, 112, 0.28)';
      ctx.lineWidth = 0.7 + any();
      ctx.beginPath();
      ctx.moveTo(x, y);
      const bend = turn + any() - 0.5;
      ctx.quadraticCurveTo(
        x + 0.5 * long * Math.cos(turn),
        y + 0.5 * long * Math.sin(turn),
        x + long * Math.cos(bend),
        y + long * Math.sin(bend),
      );
      ctx.stroke();
    }
  });
  texture.wrapS = RepeatWrapping;
  texture.wrapT = RepeatWrapping;
  texture.repeat.set(4, 4);
  return texture;
}
