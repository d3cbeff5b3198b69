/** How Debian's Chromium is started, for the tests and the pictures alike. */
export const launchOptions = {
	executablePath: '/usr/bin/chromium',
	args: [
		'--headless',
		'--no-sandbox',
		'--disable-gpu',
		'--disable-quic',
		'--no-first-run',
		'--disable-background-networking',
		'--disable-component-update',
		'--disable-sync'
	]
};
