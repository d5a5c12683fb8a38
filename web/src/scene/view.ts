// From where a box is seen and lit, in the scene and in small pictures of it.

/** From the left, in front and above. */
export const SEEN_FROM = [-0.62, 0.42, 0.85] as const;

/** Where the light that makes its shades stands. */
export const LIT_FROM = [-2.5, 4, 3] as const;

/** The wood of its boards, where no grain is seen. */
export const WOOD = '#d8b483';
