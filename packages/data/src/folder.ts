import { fileURLToPath } from 'node:url';

/** Where all data is: the folder that USTLE_DATA names, else the one that "npm start" uses. */
export const dataFolder = (): string => process.env.USTLE_DATA ?? fileURLToPath(new URL('../../../.data/own', import.meta.url));

/** The one file in it that holds everything. */
export const DATA_FILE = 'ustle.sqlite';
