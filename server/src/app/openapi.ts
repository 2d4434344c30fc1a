import type { INestApplication } from '@nestjs/common';
import { DocumentBuilder, SwaggerModule, type OpenAPIObject } from '@nestjs/swagger';
import { getMetadataStorage } from 'class-validator';
import { defaultMetadataStorage } from 'class-transformer/cjs/storage.js';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';

/** The API's description. The schemas come from the same decorators that check each request, so they can't drift apart. */
export function describeApi(app: INestApplication): OpenAPIObject {
  const document = SwaggerModule.createDocument(
    app,
    new DocumentBuilder()
      .setTitle('Rakuen')
      .setDescription(
        'Papers, print conditions, readings, pictures, matches, prints and the ledger of a printmaker. Figures carry their unit in their name.',
      )
      .setVersion('1')
      .build(),
  );
  const schemas = validationMetadatasToSchemas({
    classValidatorMetadataStorage: getMetadataStorage(),
    classTransformerMetadataStorage: defaultMetadataStorage,
    refPointerPrefix: '#/components/schemas/',
  });
  document.components = {
    ...document.components,
    schemas: { ...document.components?.schemas, ...(schemas as Record<string, never>) },
  };
  for (const path of Object.values(document.paths)) {
    for (const operation of Object.values(path) as { responses?: Record<string, object> }[]) {
      if (operation.responses)
        operation.responses.default = {
          description: 'What is wrong, where, and what to do',
          content: { 'application/json': { schema: { $ref: '#/components/schemas/ApiError' } } },
        };
    }
  }
  return document;
}
