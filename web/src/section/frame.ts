// From metres to the sheet.

import type { Scene } from './scene';

export interface Frame {
  x: (metres: number) => number;
  y: (metres: number) => number;
  /** Pixels for a metre. */
  scale: number;
  /** Of the sheet, px. */
  width: number;
}

const MARGIN = { left: 44, right: 26, top: 12, bottom: 34 };

/** Room in the right upper corner that buttons stand in, px. */
const BUTTONS = { width: 124, height: 104 };

/** As large as the sheet allows; beside the buttons where it would lie under them. */
export function frameFor({ extent }: Scene, width: number, height: number): Frame {
  const whole = fitted(extent, width, height);
  const right = whole.x(extent.x + extent.width);
  const top = whole.y(extent.y + extent.height);
  const under = right > width - BUTTONS.width && top < BUTTONS.height;
  return under ? { ...fitted(extent, width - BUTTONS.width, height), width } : whole;
}

function fitted(extent: Scene['extent'], width: number, height: number): Frame {
  const [across, down] = [width - MARGIN.left - MARGIN.right, height - MARGIN.top - MARGIN.bottom];
  const scale = Math.min(across / extent.width, Math.max(40, down) / extent.height);
  const left = MARGIN.left + (across - extent.width * scale) / 2;
  const top = MARGIN.top + (Math.max(40, down) - extent.height * scale) / 2;
  return {
    scale,
    width,
    x: (metres) => left + (metres - extent.x) * scale,
    y: (metres) => top + (extent.y + extent.height - metres) * scale,
  };
}
