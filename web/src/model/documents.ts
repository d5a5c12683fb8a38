// What a build is made of, as it is edited, undone and sent.

import type { RawBrief, RawDesign, RawTitle } from '../schema/types';
import type { DocumentKey } from './drafts';

/** A document as it is wanted: what it says, and whether it is archived. */
export interface Held<Content> {
  content: Content;
  archived: boolean;
}

export type HeldTitle = Held<RawTitle>;
export type HeldBrief = Held<RawBrief>;
export type HeldVariant = Held<RawDesign>;

/** In which order the variants of a build stand. */
export type Order = readonly string[];

export const titleKey = (id: string): DocumentKey => ({ kind: 'title', id });
export const briefKey = (id: string): DocumentKey => ({ kind: 'brief', id });
export const variantKey = (id: string): DocumentKey => ({ kind: 'variant', id });
export const orderKey = (build: string): DocumentKey => ({ kind: 'order', id: build });

/** A document that is shown. */
export const held = <Content>(content: Content): Held<Content> => ({ content, archived: false });

/** A brief that asks nothing: what is judged by it is the box alone. */
export const NO_BRIEF: RawBrief = {};

/** A build without a brief has one that is archived. */
export const heldBrief = (brief: RawBrief | null): HeldBrief => ({
  content: brief ?? NO_BRIEF,
  archived: brief === null,
});
export const briefOf = ({ content, archived }: HeldBrief): RawBrief | null => (archived ? null : content);
