/*
 * Stands for what only the computer of the yard has: its disk, its network, its threads, its keys. Whoever asks for it here is told that it is not
 * there, as where a disk is gone.
 */

const notHere = (): never => {
	throw new Error('this is done on the computer of the yard alone');
};
const rejects = (): Promise<never> =>
	Promise.reject(new Error('this is done on the computer of the yard alone'));

export default notHere;
export const existsSync = (): boolean => false;
export const statSync = (): undefined => undefined;
export const mkdirSync = notHere;
export const rmSync = notHere;
export const readFileSync = notHere;
export const writeFileSync = notHere;
export const createWriteStream = notHere;
export const createReadStream = notHere;
export const closeSync = notHere;
export const openSync = notHere;
export const readSync = notHere;
export const readdirSync = (): string[] => [];
export const constants = {};
export const tmpdir = (): string => '';
export const hostname = (): string => '';
export const networkInterfaces = (): object => ({});
export const availableParallelism = (): number => 1;
export const isIP = (): number => 0;
export const createConnection = notHere;
export const createServer = notHere;
export const createRequire = () => ({ resolve: notHere });
export const pathToFileURL = notHere;
export const promisify = () => rejects;
export const pipeline = rejects;
export class Readable {}
export class Worker {}
export const parentPort = null;
export const workerData = null;
export class Piscina {}
export class ZipFile {}
export const open = notHere;
export const createCA = rejects;
export const createCert = rejects;
export const hash = rejects;
export const verify = rejects;
export const test = (): boolean => false;
export const migrate = (): Promise<void> => Promise.resolve();
