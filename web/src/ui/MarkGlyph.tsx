import { type Mark, OUTLINE } from '../model/mark';

export function MarkGlyph({ mark, size = 12 }: { mark: Mark; size?: number }) {
  const colour = `var(${mark.colour})`;
  return (
    <svg width={size} height={size} viewBox="-1.5 -1.5 3 3" aria-hidden="true" className="shrink-0">
      <path
        d={OUTLINE[mark.glyph]}
        fill={mark.hollow ? 'var(--card)' : colour}
        stroke={colour}
        strokeWidth={mark.hollow ? 0.5 : 0.15}
      />
    </svg>
  );
}

/** A short piece of the variant's line. */
export function LineSample({ mark, width = 34 }: { mark: Mark; width?: number }) {
  return (
    <svg width={width} height="6" aria-hidden="true" className="shrink-0">
      <path
        d={`M0 3H${width}`}
        stroke={`var(${mark.colour})`}
        strokeWidth="2"
        strokeDasharray={mark.dash.join(' ')}
      />
    </svg>
  );
}
