/** A file as JSON gives it, its heading checked already. */
export type JsonFile = Readonly<Record<string, unknown>> & { readonly version: number };

/**
 * One step from a version to the next. Content that it does not recognise is left for the schema to refuse.
 */
export type Migration = (file: JsonFile) => Readonly<Record<string, unknown>>;

/**
 * Brings a file to the newest version.
 * @param steps one for each version but the newest: the first leads from version 1 to 2.
 */
export function migrated(file: JsonFile, steps: readonly Migration[]): JsonFile {
  let now = file;
  for (let version = file.version; version <= steps.length; version++)
    now = { ...steps[version - 1]!(now), version: version + 1 };
  return now;
}

export const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
