/** The package does not describe its store of @Type declarations, which the schema writer needs for nested bodies. */
declare module 'class-transformer/cjs/storage.js' {
  import type { IOptions } from 'class-validator-jsonschema/build/options.js';

  export const defaultMetadataStorage: IOptions['classTransformerMetadataStorage'];
}
