import 'reflect-metadata';
import { Logger } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { SwaggerModule } from '@nestjs/swagger';
import { AppModule } from './app/app.module.ts';
import { openDataFolder, readConfig, StartError, type Config } from './app/config.ts';
import { ErrorFilter } from './app/errors.ts';
import { loopbackOnly, waitAt } from './app/guard.ts';
import { secure, serveInterface } from './app/interface.ts';
import { describeApi } from './app/openapi.ts';
import { checkRequests } from './app/validation.ts';
import { ReadingsService } from './readings/readings.service.ts';
import { DemoStudio } from './demo/demo-studio.ts';
import { FolderLock } from './store/folder-lock.ts';

const HOST = '127.0.0.1';
const JSON_LIMIT = '1mb';

async function build(config: Config, gate: { open: boolean }): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(config), {
    logger: false,
    abortOnError: false,
  });
  let port = config.port;
  app.getHttpServer().on('listening', () => (port = (app.getHttpServer().address() as { port: number }).port));
  app.use(loopbackOnly(() => port, config.extraOrigins));
  app.use(waitAt(gate));
  secure(app);
  app.useBodyParser('json', { limit: JSON_LIMIT });
  app.setGlobalPrefix('api');
  app.useGlobalPipes(checkRequests());
  app.useGlobalFilters(new ErrorFilter());
  SwaggerModule.setup('api/docs', app, describeApi(app), { jsonDocumentUrl: 'api/docs-json' });
  if (config.webFolder) serveInterface(app, config.webFolder);
  return app;
}

/** Starts Rakuen; prints one line with the address. @throws StartError */
export async function start(args: readonly string[], env: NodeJS.ProcessEnv): Promise<NestExpressApplication> {
  const config = readConfig(args, env);
  openDataFolder(config.dataFolder);
  const lock = FolderLock.take(config.dataFolder);
  let app: NestExpressApplication;
  const gate = { open: false };
  try {
    app = await build(config, gate);
  } catch (error) {
    lock.release();
    throw new StartError(
      `The database in ${config.dataFolder} can’t be opened: ${(error as Error).message}. Choose another folder with --data FOLDER, or put back a sound copy.`,
    );
  }
  const close = app.close.bind(app);
  app.close = async () => {
    await close();
    lock.release();
  };
  // The first Ctrl-C lets what was begun end; the second does not wait.
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => void app.close().then(() => process.exit(0)));
  try {
    // Take the port first: a start that can't listen must not fill a database.
    await app.init();
    await app.listen(config.port, HOST);
  } catch (error) {
    await app.close();
    if ((error as NodeJS.ErrnoException).code === 'EADDRINUSE')
      throw new StartError(`Port ${config.port} is in use. Choose another with --port N.`);
    if ((error as NodeJS.ErrnoException).code === 'EACCES')
      throw new StartError(`Port ${config.port} may not be used by you. Choose one above 1023 with --port N.`);
    throw error;
  }
  await app.get(ReadingsService, { strict: false }).refreshFacts();
  if (config.demo) await app.get(DemoStudio).fillIfEmpty();
  gate.open = true;
  // Quiet until here: a start that fails says so in one line.
  Logger.overrideLogger(['error', 'warn']);
  const { port } = app.getHttpServer().address() as { port: number };
  lock.tell(`http://${HOST}:${port}`);
  console.log(`Rakuen is at http://${HOST}:${port}`);
  return app;
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
