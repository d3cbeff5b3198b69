// Tells which changes stand outside every function: they take effect when a module is read, which a running test runner does once.
import { readFileSync } from 'node:fs';
import ts from 'typescript';

/** @type {Map<string, ts.SourceFile>} */
const read = new Map();

/** @param {string} file @returns {ts.SourceFile} */
function sourceOf(file) {
	const known = read.get(file);
	if (known) return known;
	const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true);
	read.set(file, source);
	return source;
}

/**
 * Whether a change takes effect only when its module is read.
 * @param {string} file path of the source, as it stands
 * @param {{ start: { line: number, column: number }, end: { line: number, column: number } }} location lines from 1, columns from 1
 */
export function atLoad(file, { start, end }) {
	const source = sourceOf(file);
	const at = source.getPositionOfLineAndCharacter(start.line - 1, start.column - 1);
	const to = source.getPositionOfLineAndCharacter(end.line - 1, end.column - 1);
	/** @param {ts.Node} node @returns {boolean} */
	const inFunction = (node) => {
		if (at < node.getStart(source) || to > node.getEnd()) return false;
		// A function as a whole is made where it stands; what is in it, when it is called.
		const runs =
			ts.isFunctionLike(node) && 'body' in node && (at > node.getStart(source) || to < node.getEnd());
		return runs || (ts.forEachChild(node, (child) => inFunction(child) || undefined) ?? false);
	};
	return !inFunction(source);
}
