/// <reference types="@sveltejs/kit" />
/// <reference no-default-lib="true"/>
/// <reference lib="esnext" />
/// <reference lib="webworker" />
import { build, files, version } from '$service-worker';
import type { AlongAnswer, AlongAsk } from '$core/vocabulary/along';
import { AlongDevice, NotTaken } from './alone/along';
import { PICTURES } from './alone/instead/files';
import { browserKeeping } from './alone/kept';
import type { LocalServer } from './alone/local-server';

declare const self: ServiceWorkerGlobalScope & { bruntleServer?: LocalServer };

/* Stands between the pages and the network on a device that takes the yard along; where none was taken, everything goes through. */

const ASSETS = `bruntle-${version}`;
const SERVER = `/alone/server.js?${version}`;
const assets = [...build, ...files];

function loadServer(): LocalServer {
	// Read when the worker is installed, it is there without a network afterwards.
	if (!self.bruntleServer) importScripts(SERVER);
	if (!self.bruntleServer) throw new Error('the server is not here');
	return self.bruntleServer;
}

async function keepPictures(names: readonly string[]): Promise<void> {
	const cache = await caches.open(PICTURES);
	const wanted = new Set(names.map((name) => `/pictures/${name}.small.jpg`));
	for (const request of await cache.keys())
		if (!wanted.has(new URL(request.url).pathname)) await cache.delete(request);
	for (const address of wanted) {
		if (await cache.match(address)) continue;
		const response = await fetch(address).catch(() => null);
		if (response?.ok) await cache.put(address, response);
	}
}

const device = new AlongDevice({
	keeping: browserKeeping(),
	fetch: (request) => fetch(request),
	server: () => Promise.resolve().then(loadServer),
	tell: (state) =>
		void self.clients
			.matchAll({ includeUncontrolled: true })
			.then((pages) => pages.forEach((page) => page.postMessage({ state } satisfies AlongAnswer))),
	keepPictures,
	now: () => new Date(),
	newId: () => crypto.randomUUID(),
	origin: self.location.origin,
	build: version
});

self.addEventListener('install', (event) => {
	importScripts(SERVER);
	event.waitUntil(
		caches
			.open(ASSETS)
			.then((cache) => cache.addAll(assets))
			.then(() => self.skipWaiting())
	);
});

self.addEventListener('activate', (event) => {
	event.waitUntil(
		(async () => {
			// Pages of the Bruntle before may still be open, but not of one before that.
			const own = (await caches.keys()).filter((name) => name.startsWith('bruntle-') && name !== PICTURES);
			for (const name of own.filter((one) => one !== ASSETS).slice(0, -1)) await caches.delete(name);
			await self.clients.claim();
			// Another Bruntle may keep its yard in another way: what waits is sent, and the copy taken anew.
			if ((await device.state()).along) await device.comeBack();
		})()
	);
});

/** What never changes under its name. */
async function asset(request: Request): Promise<Response> {
	return (await caches.match(request)) ?? fetch(request);
}

/** A picture: as it was taken along, else from the network, else small. */
async function picture(request: Request): Promise<Response> {
	const cache = await caches.open(PICTURES);
	const found = await cache.match(request.url);
	if (found) return found;
	try {
		return await fetch(request);
	} catch {
		const small = await cache.match(request.url.replace(/(\.small)?\.jpg$/, '.small.jpg'));
		return small ?? Response.error();
	}
}

self.addEventListener('fetch', (event) => {
	const { request } = event;
	const { origin, pathname } = new URL(request.url);
	if (origin !== self.location.origin) return;
	if (request.method === 'GET' && assets.includes(pathname)) return event.respondWith(asset(request));
	if (request.method === 'GET' && pathname.startsWith('/pictures/'))
		return event.respondWith(picture(request));
	event.respondWith(
		device.answer(request).catch((cause: unknown) => {
			if (request.mode === 'navigate') return nothingHere();
			throw cause;
		})
	);
});

/** What is shown where neither the yard answers nor a copy of it is here. */
const nothingHere = (): Response =>
	new Response(
		`<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>No connection · Bruntle</title>
<style>:root{color-scheme:light dark}body{font:1.1rem/1.5 sans-serif;max-width:34rem;margin:15vh auto;padding:0 1rem}</style>
<h1>No connection to the yard</h1><p>Its computer does not answer, and no copy of the yard is on this device. What was done here and not sent is kept.</p>
<p><a href="">Try again</a></p></html>`,
		{ status: 503, headers: { 'content-type': 'text/html' } }
	);

async function asked(message: AlongAsk): Promise<AlongAnswer> {
	try {
		if (message.ask === 'take') await device.take();
		if (message.ask === 'send') await device.comeBack();
		if (message.ask === 'leave') await device.leave();
		if (message.ask === 'drop') await device.drop(message.id);
		if (message.ask === 'again') await device.sendAgain(message.id);
		return { state: await device.state() };
	} catch (cause) {
		console.error(cause);
		return {
			fault:
				cause instanceof NotTaken
					? { message: cause.message, advice: cause.advice }
					: {
							message: 'The computer of the yard did not answer.',
							advice: 'Is it running, and the network there? Nothing was lost.'
						}
		};
	}
}

self.addEventListener('message', (event) => {
	const [port] = event.ports;
	event.waitUntil(asked(event.data as AlongAsk).then((answer) => port?.postMessage(answer)));
});
