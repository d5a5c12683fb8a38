// The kinds of documents that a build on the workbench is made of, as they are edited, undone and sent.

import type { RawBrief, RawDesign } from '../api/types';
import type { DocumentKey } from './drafts';

/** A variant: its design, and whether it is archived. */
export interface VariantContent {
  design: RawDesign;
  archived: boolean;
}

/** What is kept of a build besides its variants. */
export interface BuildText {
  name: string;
  notes: string;
  brief: RawBrief | null;
}

/** In which order its variants stand. */
export type Order = readonly string[];

export const variantKey = (id: string): DocumentKey => ({ kind: 'variant', id });
export const textKey = (build: string): DocumentKey => ({ kind: 'text', id: build });
export const orderKey = (build: string): DocumentKey => ({ kind: 'order', id: build });
