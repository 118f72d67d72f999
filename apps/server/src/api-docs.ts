import type { INestApplication } from '@nestjs/common';
import { DocumentBuilder, SwaggerModule, type ApiBodyOptions } from '@nestjs/swagger';
import { defaultMetadataStorage } from 'class-transformer/cjs/storage.js';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import { paths } from '@ustle/contract';

/** The documented body of a request: the schema that its validation rules make. */
export const bodyOf = (body: { name: string }): ApiBodyOptions => ({ schema: { $ref: `#/components/schemas/${body.name}` } });

/** The page that documents the API; its schemas come from the same rules that check the requests. */
export function documentApi(app: INestApplication): void {
  const config = new DocumentBuilder()
    .setTitle('Ustle')
    .setDescription('Trees, plans, record and season. Lengths in mm, angles in degrees, dates as YYYY-MM-DD.')
    .setVersion('1')
    .build();
  const document = SwaggerModule.createDocument(app, config);
  const schemas = validationMetadatasToSchemas({ classTransformerMetadataStorage: defaultMetadataStorage, refPointerPrefix: '#/components/schemas/' });
  document.components = { ...document.components, schemas: { ...document.components?.schemas, ...(schemas as object) } };
  SwaggerModule.setup(paths.docs.slice(1), app, document);
}
