// A picture as a file: written as SVG, or painted as PNG.

import type { Picture, Stroke } from './picture';

const FONT = '"Atkinson Hyperlegible Next Variable", "Atkinson Hyperlegible Next", sans-serif';

const escaped = (text: string) =>
  text.replace(
    /[&<>"]/g,
    (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign] ?? sign,
  );

/** The picture as an SVG file. */
export function asSvg({ width, height, background, strokes }: Picture): string {
  const inner = strokes.map((stroke) => {
    if (stroke.kind === 'text') {
      const { x, y, size, colour, anchor = 'start', bold, text } = stroke;
      return `<text x="${x.toFixed(1)}" y="${y.toFixed(1)}" font-size="${size}" fill="${colour}" text-anchor="${anchor}"${bold ? ' font-weight="600"' : ''}>${escaped(text)}</text>`;
    }
    const { d, stroke: line, fill, width: thick = 1, dash } = stroke;
    const drawn = line ? ` stroke="${line}" stroke-width="${thick}"` : '';
    return `<path d="${d}" fill="${fill ?? 'none'}"${drawn}${dash?.length ? ` stroke-dasharray="${dash.join(' ')}"` : ''}/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="${escaped(FONT)}"><rect width="${width}" height="${height}" fill="${background}"/>${inner.join('')}</svg>`;
}

/** The picture as PNG, twice as fine as on screen. */
export async function asPng({ width, height, background, strokes }: Picture): Promise<Blob> {
  const fine = 2;
  const canvas = Object.assign(document.createElement('canvas'), {
    width: width * fine,
    height: height * fine,
  });
  const ctx = canvas.getContext('2d');
  if (!ctx) throw new Error('This browser cannot draw pictures.');
  ctx.scale(fine, fine);
  ctx.fillStyle = background;
  ctx.fillRect(0, 0, width, height);
  for (const stroke of strokes) paintStroke(ctx, stroke);
  return new Promise((resolve, reject) => {
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('The picture is too large.'))),
      'image/png',
    );
  });
}

function paintStroke(ctx: CanvasRenderingContext2D, stroke: Stroke): void {
  if (stroke.kind === 'text') {
    ctx.font = `${stroke.bold ? '600 ' : ''}${stroke.size}px ${FONT}`;
    ctx.textAlign = ({ start: 'left', middle: 'center', end: 'right' } as const)[stroke.anchor ?? 'start'];
    ctx.fillStyle = stroke.colour;
    ctx.fillText(stroke.text, stroke.x, stroke.y);
    return;
  }
  const path = new Path2D(stroke.d);
  if (stroke.fill) {
    ctx.fillStyle = stroke.fill;
    ctx.fill(path);
  }
  if (stroke.stroke) {
    ctx.strokeStyle = stroke.stroke;
    ctx.lineWidth = stroke.width ?? 1;
    ctx.setLineDash(stroke.dash ?? []);
    ctx.stroke(path);
  }
}
