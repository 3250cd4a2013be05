import { element, type XmlNode } from './xml';

/**
 * The versions of QTI that are written: names, namespaces and templates, from memory of the 1EdTech specifications
 * (Question & Test Interoperability 2.1 of 2012 and 3.0 of 2022).
 */
export type Dialect = {
	version: '3.0' | '2.1';
	/** An element of QTI by its name in 2.1, `choiceInteraction`. */
	el: (
		name: string,
		attributes?: Record<string, string | number | undefined>,
		children?: (XmlNode | string)[]
	) => XmlNode;
	namespace: string;
	template: (name: 'match_correct' | 'map_response') => string;
	itemType: string;
	testType: string;
	packageNamespace: string;
	schemaVersion: string;
};

const kebab = (name: string) => name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);

export const QTI_3: Dialect = {
	version: '3.0',
	el: (name, attributes = {}, children = []) =>
		element(
			`qti-${kebab(name)}`,
			Object.fromEntries(Object.entries(attributes).map(([key, value]) => [kebab(key), value])),
			children
		),
	namespace: 'http://www.imsglobal.org/xsd/imsqtiasi_v3p0',
	template: (name) => `https://purl.imsglobal.org/spec/qti/v3p0/rptemplates/${name}.xml`,
	itemType: 'imsqti_item_xmlv3p0',
	testType: 'imsqti_test_xmlv3p0',
	packageNamespace: 'http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1',
	schemaVersion: '3.0.0'
};

export const QTI_2: Dialect = {
	version: '2.1',
	el: element,
	namespace: 'http://www.imsglobal.org/xsd/imsqti_v2p1',
	template: (name) => `http://www.imsglobal.org/question/qti_v2p1/rptemplates/${name}`,
	itemType: 'imsqti_item_xmlv2p1',
	testType: 'imsqti_test_xmlv2p1',
	packageNamespace: 'http://www.imsglobal.org/xsd/imscp_v1p1',
	schemaVersion: '2.1'
};
