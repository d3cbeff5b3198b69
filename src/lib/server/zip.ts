import { on } from 'node:events';
import { Readable } from 'node:stream';
import { promisify } from 'node:util';
import { open, type Entry, type Options, type ZipFile } from 'yauzl';

/** A ZIP archive that lies on the disk, with what is in it. */
export interface ReadZip {
	/** Names of its files, in their order. */
	names: readonly string[];
	/** @throws what its reader says of one that is not there or is damaged */
	stream(name: string): Promise<Readable>;
	/** @throws as `stream`; also where it is larger than so many bytes */
	read(name: string, mostBytes: number): Promise<Buffer>;
	close(): void;
}

/** Opens a ZIP archive. @throws what its reader says of one that is none */
export async function openZip(file: string): Promise<ReadZip> {
	const zip = await promisify<string, Options, ZipFile>(open)(file, { lazyEntries: true, autoClose: false });
	const entries = new Map<string, Entry>();
	try {
		for await (const entry of entriesOf(zip)) entries.set(entry.fileName, entry);
	} catch (cause) {
		zip.close();
		throw cause;
	}
	const named = (name: string): Entry => {
		const entry = entries.get(name);
		if (!entry) throw new Error(`${name} is not in it`);
		return entry;
	};
	const stream = (name: string): Promise<Readable> =>
		promisify<Entry, Readable>(zip.openReadStream.bind(zip))(named(name));
	return {
		names: [...entries.keys()],
		stream,
		read: async (name, mostBytes) => {
			// What it says of its size is held against what comes.
			if (named(name).uncompressedSize > mostBytes) throw new Error(`${name} is too large`);
			const pieces: Buffer[] = [];
			for await (const piece of await stream(name)) pieces.push(piece as Buffer);
			return Buffer.concat(pieces);
		},
		close: () => zip.close()
	};
}

async function* entriesOf(zip: ZipFile): AsyncGenerator<Entry> {
	const ended = new AbortController();
	zip.once('end', () => ended.abort());
	const entries = on(zip, 'entry', { signal: ended.signal });
	try {
		zip.readEntry();
		for await (const [entry] of entries as AsyncIterable<[Entry]>) {
			yield entry;
			zip.readEntry();
		}
	} catch (cause) {
		if (!ended.signal.aborted) throw cause;
	}
}
