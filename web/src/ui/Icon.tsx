// Line drawings of 16 by 16, one stroke.

const PATHS = {
  undo: 'M6.5 3 3 6.5 6.5 10M3 6.5h6a4 4 0 0 1 0 8H6',
  redo: 'M9.5 3 13 6.5 9.5 10M13 6.5H7a4 4 0 0 0 0 8h3',
  plus: 'M8 3v10M3 8h10',
  copy: 'M6 6h7v7H6zM10 6V3H3v7h3',
  box: 'M2.5 3.5h11v3h-11zM3.5 6.5v7h9v-7M6.5 9h3',
  close: 'M3.5 3.5l9 9M12.5 3.5l-9 9',
  eye: 'M1.5 8S4 3.5 8 3.5 14.5 8 14.5 8 12 12.5 8 12.5 1.5 8 1.5 8ZM8 6a2 2 0 1 1 0 4 2 2 0 0 1 0-4Z',
  hidden: 'M1.5 8S4 3.5 8 3.5 14.5 8 14.5 8 12 12.5 8 12.5 1.5 8 1.5 8ZM3 13.5l10-11',
  out: 'M8 10V2.5M5 5.5l3-3 3 3M3 9.5v4h10v-4',
  into: 'M8 2.5V10M5 7l3 3 3-3M3 9.5v4h10v-4',
  lamp: 'M8 2v2M5 13.5h6M6 11.5h4M4 8a4 4 0 0 1 8 0c0 1.5-1.2 2.2-1.6 3.5H5.6C5.2 10.2 4 9.5 4 8Z',
  keys: 'M1.5 4.5h13v7h-13zM4 7h.5M7 7h.5M10 7h.5M4.5 9.5h7',
  down: 'M4 6l4 4 4-4',
  up: 'M4 10l4-4 4 4',
  find: 'M7 2.5a4.5 4.5 0 1 1 0 9 4.5 4.5 0 0 1 0-9ZM10.5 10.5l3.5 3.5',
  rule: 'M1.5 5.5h13v5h-13zM4 5.5v2M6.5 5.5v3M9 5.5v2M11.5 5.5v3',
  book: 'M8 4C6 2.5 3.5 2.5 2 3v9.5c1.5-.5 4-.5 6 1 2-1.5 4.5-1.5 6-1V3c-1.5-.5-4-.5-6 1ZM8 4v9.5',
  play: 'M5 3.5v9l7-4.5z',
  pause: 'M5 3.5v9M11 3.5v9',
  more: 'M3.5 8h.5M8 8h.5M12.5 8h.5',
};

export function Icon({ name }: { name: keyof typeof PATHS }) {
  return (
    <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true" className="shrink-0">
      <path
        d={PATHS[name]}
        fill="none"
        stroke="currentColor"
        strokeWidth="1.5"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}
