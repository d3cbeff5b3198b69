/**
 * Parts of a browser's own window that nobody sees here: each context would load the list under the address bar as two pages of its own.
 * The rest is what the test runner switches off itself; the last list given is the one that counts.
 */
const UNUSED = [
	'WebUIOmniboxPopup',
	'WebUIOmniboxAimPopup',
	'WebUIOmniboxFullPopup',
	'AimEnabled',
	'AvoidUnnecessaryBeforeUnloadCheckSync',
	'DestroyProfileOnBrowserClose',
	'HttpsUpgrades',
	'HttpsFirstBalancedModeAutoEnable',
	'LensOverlay',
	'MediaRouter',
	'NetworkTimeServiceQuerying',
	'OptimizationHints',
	'PaintHolding',
	'PreconnectToSearch',
	'ThirdPartyStoragePartitioning',
	'Translate',
	'AvoidCorsURLLoaderRestartOnRedirect',
	'TcpPortRandomizationWin'
];

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
		'--disable-sync',
		`--disable-features=${UNUSED.join(',')}`
	]
};
