import { existsSync, accessSync, constants, mkdirSync, statSync } from 'node:fs';
import { resolve } from 'node:path';

/** How the server was started. */
export interface Config {
  readonly port: number;
  readonly dataFolder: string;
  /** Built interface to serve; absent in development, where Vite serves it. */
  readonly webFolder?: string;
  /** Lay out the demo studio where nothing was ever kept. */
  readonly demo: boolean;
  /** A demo studio laid out by this build, to be copied; absent where none is ready. */
  readonly prepared?: string;
  /** A demo studio in the making, moved into place when it is whole: nothing runs in it beside that. */
  readonly draft?: true;
  /** Show what is kept and write nothing. */
  readonly readOnly: boolean;
  /** Origins besides its own from which the interface may call; for development. */
  readonly extraOrigins: readonly string[];
}

export const CONFIG = Symbol('Config');
export const DEFAULT_PORT = 4870;

/** A start that can't go on; the message is the one line that is printed. */
export class StartError extends Error {}

/** Flags win over environment variables, these over defaults. @throws StartError */
export function readConfig(args: readonly string[], env: NodeJS.ProcessEnv): Config {
  const flags = new Map<string, string>();
  for (let i = 0; i < args.length; i++) {
    const [name, inline] = args[i].split(/=(.*)/s);
    if (name === '--empty' || name === '--read-only') flags.set(name, 'yes');
    else if (name === '--port' || name === '--data' || name === '--web') {
      const value = inline ?? args[++i];
      if (!value) throw new StartError(`${name} needs a value.`);
      flags.set(name, value);
    } else throw new StartError(`Unknown flag ${args[i]}. Known: --port N, --data FOLDER, --empty, --read-only.`);
  }
  const portText = flags.get('--port') ?? env.RAKUEN_PORT ?? String(DEFAULT_PORT);
  const port = Number(portText);
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    throw new StartError(`The port must be a number from 0 to 65535, not “${portText}”.`);
  const dataFolder = resolve(flags.get('--data') ?? env.RAKUEN_DATA ?? 'data');
  const webFolder = flags.get('--web') ?? env.RAKUEN_WEB;
  return {
    port,
    dataFolder,
    webFolder,
    demo: !flags.has('--empty') && !flags.has('--read-only'),
    prepared: env.RAKUEN_PREPARED || undefined,
    readOnly: flags.has('--read-only'),
    extraOrigins: env.RAKUEN_DEV_ORIGIN ? [env.RAKUEN_DEV_ORIGIN] : [],
  };
}

/** Makes the data folder and proves that it can be written. @throws StartError */
export function openDataFolder(folder: string, readOnly = false): void {
  try {
    if (!readOnly) mkdirSync(folder, { recursive: true, mode: 0o700 });
    if (!existsSync(folder) || !statSync(folder).isDirectory()) throw new Error('it is not a folder');
    accessSync(folder, constants.R_OK | constants.X_OK | (readOnly ? 0 : constants.W_OK));
  } catch (error) {
    throw new StartError(
      `The data folder ${folder} can’t be used: ${(error as NodeJS.ErrnoException).code ?? (error as Error).message}. Choose another with --data FOLDER.`,
    );
  }
}
