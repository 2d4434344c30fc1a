import { ValidationPipe } from '@nestjs/common';
import { faultsOf, RakuenError } from './errors.ts';

/** Every request is checked against its class; fields it does not know are refused. */
export const checkRequests = (): ValidationPipe =>
  new ValidationPipe({
    whitelist: true,
    forbidNonWhitelisted: true,
    forbidUnknownValues: true,
    transform: true,
    exceptionFactory: (errors) => {
      const faults = faultsOf(errors);
      return new RakuenError(400, faults.map((f) => f.message).join('; '), {
        field: faults.map((f) => f.field).join(', '),
        remedy: 'Correct what is named and send it again.',
      });
    },
  });
