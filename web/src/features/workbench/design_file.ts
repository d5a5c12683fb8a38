import type { RawDesign } from '../../schema/types';
import { chooseFile, readJson } from '../../ui/file';

/** Lets the user choose a design file. The server judges what is in it. */
export async function importDesign(): Promise<RawDesign | null> {
  const file = await chooseFile('.json,application/json');
  return file ? ((await readJson(file)) as RawDesign) : null;
}
