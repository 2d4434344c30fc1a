import { ValidationPipe, type ValidationError } from '@nestjs/common';
import { RakuenError } from './errors.ts';

/** Every request is checked against its class; fields it does not know are refused. */
export const checkRequests = (): ValidationPipe =>
  new ValidationPipe({
    whitelist: true,
    forbidNonWhitelisted: true,
    forbidUnknownValues: true,
    transform: true,
    exceptionFactory: (errors) => {
      const faults = errors.flatMap((e) => flatten(e));
      return new RakuenError(400, faults.map((f) => f.message).join('; '), { field: faults.map((f) => f.field).join(', '), remedy: 'Correct what is named and send it again.' });
    },
  });

function flatten(error: ValidationError, path = ''): { field: string; message: string }[] {
  const field = path ? `${path}.${error.property}` : error.property;
  const own = Object.values(error.constraints ?? {}).map((message) => ({ field, message: path ? `${path}.${message}` : message }));
  return [...own, ...(error.children ?? []).flatMap((child) => flatten(child, field))];
}
