// Pictures of the workshop.

import { failed, Unreachable } from './client';

/** Where a picture is. */
export const photoAt = (hash: string): string => `/api/v1/photos/${hash}`;

/** Keeps a picture of a build; the name that it is kept by. */
export async function keepPhoto(build: string, file: File): Promise<string> {
  const response = await fetch(`/api/v1/builds/${build}/photos`, {
    method: 'POST',
    headers: { 'Content-Type': file.type || 'image/jpeg' },
    body: file,
  }).catch(() => {
    throw new Unreachable();
  });
  if (!response.ok) throw await failed(response);
  return ((await response.json()) as { hash: string }).hash;
}
