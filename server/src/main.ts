import 'reflect-metadata';
import { existsSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { Logger } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { SwaggerModule } from '@nestjs/swagger';
import { DataSource } from 'typeorm';
import { AppModule } from './app/app.module.ts';
import { openDataFolder, readConfig, StartError, type Config } from './app/config.ts';
import { ErrorFilter, storageFault } from './app/errors.ts';
import { lookOnly, loopbackOnly, settingUp, waitAt } from './app/guard.ts';
import { nothingThere, secure, serveInterface } from './app/interface.ts';
import { boundedJson, neverCached } from './app/json.ts';
import { describeApi } from './app/openapi.ts';
import { RevisionTag } from './app/revision.ts';
import { checkRequests } from './app/validation.ts';
import { PicturesService } from './pictures/pictures.service.ts';
import { FactsService } from './conditions/facts.service.ts';
import { clearDraft, hasDraft, layOutDemo } from './demo/lay-out.ts';
import { restoreBackup } from './backup/backup-file.ts';
import { backupBefore, NEXT_START } from './backup/backups.service.ts';
import { checkDatabase, isNew, pendingMigration } from './store/check-database.ts';
import { Workshop } from './work/workshop.ts';
import { sweep } from './store/sweep.ts';
import { FolderLock } from './store/folder-lock.ts';

const HOST = '127.0.0.1';
const JSON_LIMIT = '1mb';

async function build(config: Config, gate: { open: boolean }): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(config), {
    logger: false,
    abortOnError: false,
    bodyParser: false,
  });
  let port = config.port;
  app.getHttpServer().on('listening', () => (port = (app.getHttpServer().address() as { port: number }).port));
  app.use(loopbackOnly(() => port, config.extraOrigins));
  app.use(waitAt(gate));
  if (config.readOnly) app.use(lookOnly());
  secure(app);
  app.use('/api', neverCached);
  app.use('/api', boundedJson(JSON_LIMIT));
  app.setGlobalPrefix('api');
  app.useGlobalPipes(checkRequests());
  app.useGlobalInterceptors(new RevisionTag());
  app.useGlobalFilters(new ErrorFilter());
  // Described when somebody looks, not at every start.
  SwaggerModule.setup('api/docs', app, () => describeApi(app), { jsonDocumentUrl: 'api/docs-json' });
  if (config.webFolder) serveInterface(app, config.webFolder, () => app.get(Workshop, { strict: false }).makeReady());
  app.use(nothingThere);
  return app;
}

/** Answers that the studio is being set up while it is. @throws StartError where the port can’t be had */
async function holdPort(port: number): Promise<{ port: number; let: () => Promise<void> }> {
  const server = createServer(settingUp);
  await new Promise<void>((done, fail) => {
    server.once('error', (error: NodeJS.ErrnoException) => fail(portFault(error, port)));
    server.listen(port, HOST, done);
  });
  const taken = (server.address() as AddressInfo).port;
  return {
    port: taken,
    let: () =>
      new Promise((done) => {
        server.close(() => done());
        server.closeAllConnections();
      }),
  };
}

function portFault(error: unknown, port: number): unknown {
  const { code } = error as NodeJS.ErrnoException;
  if (code === 'EADDRINUSE') return new StartError(`Port ${port} is in use. Choose another with --port N.`);
  if (code === 'EACCES')
    return new StartError(`Port ${port} may not be used by you. Choose one above 1023 with --port N.`);
  return error;
}

/** What is kept is looked over, and where nothing is the demo is laid out, before the studio is opened. */
async function prepare(config: Config): Promise<Config> {
  const next = join(config.dataFolder, NEXT_START);
  if (!config.readOnly && existsSync(next)) {
    await restoreBackup(config.dataFolder, next, true);
    rmSync(next);
  }
  const cutShort = hasDraft(config) && isNew(config.dataFolder);
  if (!cutShort) checkDatabase(config);
  if (config.readOnly) return config;
  if (config.demo && isNew(config.dataFolder)) {
    const held = await holdPort(config.port);
    await layOutDemo(config);
    await held.let();
    return { ...config, port: held.port };
  }
  await clearDraft(config);
  const pending = pendingMigration(config.dataFolder);
  if (pending) await backupBefore(config.dataFolder, pending);
  return config;
}

/** Starts Rakuen; prints one line with the address. @throws StartError */
export async function start(args: readonly string[], env: NodeJS.ProcessEnv): Promise<NestExpressApplication> {
  const asked = readConfig(args, env);
  openDataFolder(asked.dataFolder, asked.readOnly);
  const lock = asked.readOnly ? undefined : FolderLock.take(asked.dataFolder);
  let app: NestExpressApplication | undefined;
  const gate = { open: false };
  try {
    const config = await prepare(asked);
    app = await build(config, gate);
    const close = app.close.bind(app);
    app.close = async () => {
      await close();
      lock?.release();
    };
    // The first Ctrl-C lets what was begun end; the second does not wait.
    const stopping = app;
    for (const signal of ['SIGINT', 'SIGTERM'] as const)
      process.once(signal, () => void stopping.close().then(() => process.exit(0)));
    await app.init();
    await app.listen(config.port, HOST).catch((error: unknown) => {
      throw portFault(error, config.port);
    });
    if (!config.readOnly) {
      await app.get(FactsService, { strict: false }).renew();
      await sweep(app.get(DataSource, { strict: false }), config.dataFolder);
    }
  } catch (error) {
    await app?.close().catch(() => undefined);
    lock?.release();
    if (error instanceof StartError) throw error;
    throw new StartError(openFault(error, asked.dataFolder));
  }
  gate.open = true;
  // Quiet until here: a start that fails says so in one line.
  Logger.overrideLogger(['error', 'warn']);
  const { port } = app.getHttpServer().address() as AddressInfo;
  lock?.tell(`http://${HOST}:${port}`);
  // Beside the work: a picture takes seconds, and a studio may hold hundreds.
  if (!asked.readOnly) void app.get(PicturesService, { strict: false }).refresh().catch(console.error);
  console.log(`Rakuen is at http://${HOST}:${port}`);
  return app;
}

/** Why a studio could not be opened, in a line. */
function openFault(error: unknown, dataFolder: string): string {
  const fault = storageFault(error);
  if (fault) return `The data folder ${dataFolder} can’t be opened. ${fault.message} ${fault.remedy}`;
  return `The studio in ${dataFolder} can’t be opened: ${(error as Error).message}`;
}

/** Lays the demo studio out in an empty folder and ends: what a first start copies. @throws StartError */
export async function layOut(args: readonly string[]): Promise<void> {
  const config = readConfig(args, {});
  openDataFolder(config.dataFolder);
  await layOutDemo(config);
}

/** The command line: one clear line and exit code 1 when it can't start. */
export async function main(args: readonly string[]): Promise<void> {
  try {
    await start(args, process.env);
  } catch (error) {
    console.error(error instanceof StartError ? error.message : error);
    process.exit(1);
  }
}
