/** The package describes its parts and not the whole that Node loads. */
declare module 'speech-rule-engine' {
	const engine: typeof import('speech-rule-engine/js/index.js');
	export default engine;
}
