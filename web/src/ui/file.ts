/** Lets the user choose a file; null where nothing was chosen. */
export function chooseFile(accept: string): Promise<File | null> {
  return new Promise((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = accept;
    input.addEventListener('change', () => resolve(input.files?.[0] ?? null));
    input.addEventListener('cancel', () => resolve(null));
    input.click();
  });
}

/** Reads a JSON file; an error in plain words where it is none. */
export async function readJson(file: File): Promise<unknown> {
  try {
    return JSON.parse(await file.text());
  } catch (error) {
    throw new Error(`${file.name} is not JSON: ${error instanceof Error ? error.message : 'unreadable'}`);
  }
}

/** Lets the user choose a measured trace. */
export const chooseTrace = () => chooseFile('.txt,.csv,.tsv,.frd,text/plain,text/csv');
