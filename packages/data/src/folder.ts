/** Where all data is: the folder that USTLE_DATA names, or .data beside the program. */
export const dataFolder = (): string => process.env.USTLE_DATA ?? '.data';

/** The one file in it that holds everything. */
export const DATA_FILE = 'ustle.sqlite';
