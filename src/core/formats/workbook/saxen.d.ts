declare module 'saxen' {
	type Decode = (text: string) => string;
	export class Parser {
		on(event: 'openTag', handler: (name: string, attributes: () => unknown, decode: Decode) => void): this;
		on(event: 'closeTag', handler: (name: string, decode: Decode) => void): this;
		on(event: 'text', handler: (text: string, decode: Decode) => void): this;
		on(event: 'cdata', handler: (text: string) => void): this;
		on(event: 'error', handler: (error: Error) => void): this;
		parse(xml: string): void;
	}
}
