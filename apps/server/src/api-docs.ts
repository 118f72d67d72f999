import type { INestApplication } from '@nestjs/common';
import { DocumentBuilder, SwaggerModule, type ApiBodyOptions } from '@nestjs/swagger';
import { paths } from '@ustle/contract';
import { descriptionOf } from '@ustle/contract/bodies';

/** The documented body of a request: the description that checks it, as JSON Schema. */
export const bodyOf = (body: object): ApiBodyOptions => ({ schema: JSON.parse(JSON.stringify(descriptionOf(body))) as NonNullable<object> });

/** The page that documents the API; its schemas are those that check the requests. */
export function documentApi(app: INestApplication): void {
  const config = new DocumentBuilder()
    .setTitle('Ustle')
    .setDescription('Trees, acts, plans, record and season. Lengths in mm, angles in degrees, dates as YYYY-MM-DD.')
    .setVersion('1')
    .build();
  // Made when it is first asked for.
  SwaggerModule.setup(paths.docs.slice(1), app, () => SwaggerModule.createDocument(app, config));
}
