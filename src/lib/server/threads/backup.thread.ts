import { makeBackup } from '../yard-backup/make';

/** Copies a yard away from the requests: SQLite holds its own thread while it copies. */
export default makeBackup;
