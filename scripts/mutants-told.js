// Writes down each change that went unnoticed when it is known, so that a run that is stopped has told what it found.
import { PluginKind, declareClassPlugin } from '@stryker-mutator/api/plugin';
import { appendFileSync } from 'node:fs';
import { atLoad } from './mutants-at-load.js';

class Told {
	/** @param {import('@stryker-mutator/api/core').MutantResult} mutant */
	onMutantTested({ status, fileName, location, mutatorName, replacement }) {
		if (status !== 'Survived' && status !== 'NoCoverage') return;
		if (atLoad(fileName, location)) return;
		const change = (replacement ?? '').replace(/\s+/g, ' ').slice(0, 100);
		appendFileSync(
			'.bruntle/mutate/unnoticed.txt',
			`${fileName.slice(fileName.indexOf('src/lib/'))}:${location.start.line} ${mutatorName}: ${change}\n`
		);
	}
}

export const strykerPlugins = [declareClassPlugin(PluginKind.Reporter, 'told', Told)];
