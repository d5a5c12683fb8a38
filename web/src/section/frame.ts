// From metres to the sheet.

import type { Scene } from './scene';

export interface Frame {
  x: (metres: number) => number;
  y: (metres: number) => number;
  /** Pixels for a metre. */
  scale: number;
}

const MARGIN = { left: 44, right: 26, top: 12, bottom: 34 };

export function frameFor({ extent }: Scene, width: number, height: number): Frame {
  const [across, down] = [width - MARGIN.left - MARGIN.right, height - MARGIN.top - MARGIN.bottom];
  const scale = Math.min(across / extent.width, Math.max(40, down) / extent.height);
  const left = MARGIN.left + (across - extent.width * scale) / 2;
  const top = MARGIN.top + (Math.max(40, down) - extent.height * scale) / 2;
  return {
    scale,
    x: (metres) => left + (metres - extent.x) * scale,
    y: (metres) => top + (extent.y + extent.height - metres) * scale,
  };
}
