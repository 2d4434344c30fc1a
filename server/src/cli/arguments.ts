/** Words after a command of the shell: files, and options with or without a value. */
export interface Arguments {
  readonly files: readonly string[];
  readonly options: Readonly<Record<string, string | true>>;
}

/** A command that was called wrongly; the message is the one line a person needs. */
export class UseError extends Error {
  override readonly name = 'UseError';
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
