/** Hands a file to the browser's downloads. */
export function save(name: string, content: Blob): void {
  const url = URL.createObjectURL(content);
  const link = Object.assign(document.createElement('a'), { href: url, download: name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Prints one SVG instead of the page. */
export function printSheet(svg: string): void {
  const sheet = document.createElement('div');
  sheet.className = 'print-sheet';
  const picture = new DOMParser().parseFromString(svg, 'image/svg+xml').documentElement;
  sheet.append(document.importNode(picture, true));
  document.body.append(sheet);
  window.addEventListener('afterprint', () => sheet.remove(), { once: true });
  window.print();
}
