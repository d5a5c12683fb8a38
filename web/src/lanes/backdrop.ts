// What stays as it is while one variant is changed is painted once and laid under its curve as a picture.

export class Backdrop {
  private readonly picture = document.createElement('canvas');
  private made: readonly unknown[] = [];

  /** Lays the picture onto a canvas; it is painted anew where anything it is made of has changed. */
  lay(
    onto: CanvasRenderingContext2D,
    of: readonly unknown[],
    paint: (ctx: CanvasRenderingContext2D) => void,
  ): void {
    const { width, height } = onto.canvas;
    const ctx = this.picture.getContext('2d');
    if (!ctx || !width || !height) return;
    const now = [width, height, ...of];
    if (now.length !== this.made.length || now.some((item, at) => item !== this.made[at])) {
      this.made = now;
      // Setting a size wipes it.
      Object.assign(this.picture, { width, height });
      paint(ctx);
    }
    onto.drawImage(this.picture, 0, 0);
  }
}
