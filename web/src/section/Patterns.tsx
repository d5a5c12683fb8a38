/** What boards and fill look like in a drawing. */
export function Patterns() {
  return (
    <defs>
      <pattern id="grain" width="36" height="7" patternUnits="userSpaceOnUse">
        <rect width="36" height="7" fill="var(--rule)" />
        <path
          d="M0 2.5q9 -2 18 0t18 0M0 5.8q9 1.6 18 0t18 0"
          fill="none"
          stroke="var(--grain)"
          strokeWidth="0.7"
        />
      </pattern>
      <pattern id="wool" width="14" height="9" patternUnits="userSpaceOnUse">
        <path
          d="M0 4.5l3.5-2.5 3.5 2.5 3.5-2.5 3.5 2.5"
          fill="none"
          stroke="var(--rule-line)"
          strokeWidth="0.8"
        />
      </pattern>
    </defs>
  );
}
