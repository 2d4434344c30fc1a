/** Words after a command of the shell: files, and options with or without a value. */
export interface Arguments {
  readonly files: readonly string[];
  readonly options: Readonly<Record<string, string | true>>;
}

/** A command that was called wrongly; the message is the one line a person needs. */
export class UseError extends Error {
  override readonly name = 'UseError';
}

/** What an option names, by key or by name; the first where it is absent. @throws UseError for what is not there */
export function chosen<T extends { readonly key: string; readonly name: string }>(
  option: string,
  value: string | true | undefined,
  of: readonly T[],
): T {
  if (value === undefined) return of[0];
  const wanted = String(value).toLowerCase();
  const found = of.find((o) => o.key.toLowerCase() === wanted || o.name.toLowerCase() === wanted);
  if (!found) throw new UseError(`--${option} is one of ${of.map((o) => o.key).join(', ')}.`);
  return found;
}

/**
 * @param taking options that take a value, without their dashes
 * @param flags options that take none
 * @throws UseError for an option that is not known or lacks its value
 */
export function parseArguments(
  words: readonly string[],
  { taking, flags }: { taking: readonly string[]; flags: readonly string[] },
): Arguments {
  const files: string[] = [];
  const options: Record<string, string | true> = {};
  for (let i = 0; i < words.length; i++) {
    const word = words[i];
    if (!word.startsWith('--')) {
      files.push(word);
      continue;
    }
    const name = word.slice(2);
    if (flags.includes(name)) options[name] = true;
    else if (taking.includes(name)) {
      const value = words[++i];
      if (value === undefined || value.startsWith('--')) throw new UseError(`--${name} lacks its value.`);
      options[name] = value;
    } else throw new UseError(`--${name} is not known here.`);
  }
  return { files, options };
}
