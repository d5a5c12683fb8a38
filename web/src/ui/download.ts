/** Hands a file to the browser's downloads. */
export function save(name: string, content: Blob): void {
  const url = URL.createObjectURL(content);
  const link = Object.assign(document.createElement('a'), { href: url, download: name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Prints one SVG with lines of text below it, instead of the page. */
export function printSheet(svg: string, lines: readonly string[]): void {
  const sheet = document.createElement('div');
  sheet.className = 'print-sheet';
  const picture = new DOMParser().parseFromString(svg, 'image/svg+xml').documentElement;
  sheet.append(document.importNode(picture, true));
  for (const line of lines) sheet.append(Object.assign(document.createElement('p'), { textContent: line }));
  document.body.append(sheet);
  window.addEventListener('afterprint', () => sheet.remove(), { once: true });
  window.print();
}
