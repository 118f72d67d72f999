export { backupTo, restoreFrom } from './backup.js';
export { DATA_FILE, dataFolder } from './folder.js';
export { FolderLock } from './folder-lock.js';
