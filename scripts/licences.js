// Writes docs/licences.md: every package that is named in package.json, with its exact version and its licence.
import { readFileSync, writeFileSync } from 'node:fs';

/** The list as it should stand. @returns {string} */
export function licenceList() {
	/** @type {{ dependencies: Record<string, string>, devDependencies: Record<string, string> }} */
	const { dependencies, devDependencies } = JSON.parse(readFileSync('package.json', 'utf8'));
	const rows = Object.entries({ ...dependencies, ...devDependencies })
		.sort(([a], [b]) => (a < b ? -1 : 1))
		.map(([name, version]) => {
			const { license } = JSON.parse(readFileSync(`node_modules/${name}/package.json`, 'utf8'));
			return `| ${name} | ${version} | ${typeof license === 'string' ? license : (license?.type ?? 'see its folder')} |`;
		});
	return `# Licences of the packages\n\nMade by \`node scripts/licences.js\`. What a package brings along is under the licence in its own folder.\n\n| package | version | licence |\n|---|---|---|\n${rows.join('\n')}\n`;
}

if (process.argv[1]?.endsWith('licences.js')) writeFileSync('docs/licences.md', licenceList());
