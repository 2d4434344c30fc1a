import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { access, mkdir, open, readFile, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { CONFIG, type Config } from '../app/config.ts';

/** A file on its way in. */
export interface IncomingFile {
  readonly path: string;
  readonly originalname: string;
}

/** A file on its way out. */
export interface OutgoingFile {
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array;
}

/** Files kept by the hash of their content. A client's file name is only ever a label in the database. */
@Injectable()
export class FileStore implements OnModuleInit {
  private readonly incoming: string;
  private readonly kept: string;

  private readonly readOnly: boolean;

  constructor(@Inject(CONFIG) config: Config) {
    this.readOnly = config.readOnly;
    this.incoming = join(config.dataFolder, 'incoming');
    this.kept = join(config.dataFolder, 'files');
  }

  async onModuleInit(): Promise<void> {
    if (this.readOnly) return;
    // What was on its way in when the server last stopped was never acknowledged.
    await rm(this.incoming, { recursive: true, force: true });
    await mkdir(this.incoming, { recursive: true });
    await mkdir(this.kept, { recursive: true });
  }

  get incomingFolder(): string {
    return this.incoming;
  }

  /** A path for a file on its way in. */
  incomingPath(): string {
    return join(this.incoming, randomUUID());
  }

  /** A folder for what is only needed while something is read; whoever asks for it clears it. */
  async scratch<T>(work: (folder: string) => Promise<T>): Promise<T> {
    const folder = this.incomingPath();
    try {
      return await work(folder);
    } finally {
      await rm(folder, { recursive: true, force: true, maxRetries: 3 });
    }
  }

  /** Keeps an incoming file; on the disk for good when this returns. @returns its hash (SHA-256, hex) */
  async keepFile(path: string): Promise<string> {
    const hash = createHash('sha256');
    for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer);
    const name = hash.digest('hex');
    await this.settle(path, name);
    return name;
  }

  async keepBytes(bytes: Uint8Array): Promise<string> {
    const name = createHash('sha256').update(bytes).digest('hex');
    const path = this.incomingPath();
    const file = await open(path, 'w', 0o600);
    await file.writeFile(bytes);
    await file.close();
    await this.settle(path, name);
    return name;
  }

  pathOf(hash: string): string {
    if (!/^[0-9a-f]{64}$/.test(hash)) throw new Error(`not a content hash: ${hash}`);
    return join(this.kept, hash.slice(0, 2), hash);
  }

  read(hash: string): Promise<Buffer> {
    return readFile(this.pathOf(hash));
  }

  async discard(path: string): Promise<void> {
    await rm(path, { force: true });
  }

  private async settle(from: string, hash: string): Promise<void> {
    const to = this.pathOf(hash);
    const folder = join(this.kept, hash.slice(0, 2));
    await mkdir(folder, { recursive: true });
    if (
      await access(to).then(
        () => true,
        () => false,
      )
    ) {
      await rm(from, { force: true });
      return;
    }
    const file = await open(from, 'r+');
    await file.sync();
    await file.close();
    await rename(from, to);
    const directory = await open(folder, 'r');
    await directory.sync();
    await directory.close();
  }
}
