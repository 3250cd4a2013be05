import type { Material, Medium, MediumType, Paper, Part, Picture, Question, Stimulus } from '../paper';
import { readBody, type ReadMedium } from './body-text';
import { decoded } from './identifier';
import { readLom } from './metadata';
import { readItem, type ReadItem } from './read-item';
import { readStimulus } from './shared-text';
import { below, child, hasClass, readXml, textIn, type XmlNode } from './xml';
import { aboutOf, allBelow, isInside, leftToSessions, strataOf, testIn, timed } from './read-test';

/** What is told of one place in a package. */
export type Told = { where: string; message: string };

export type ReadPackage =
	/** `files`: where in the package the files lie that its questions name. */
	{ ok: true; paper: Paper; told: Told[]; files: Record<string, string> } | { ok: false; message: string };

const MOST_QUESTIONS = 500;

const MOST_PICTURE_CHARACTERS = 200_000;

/**
 * Reads a QTI package of version 3.0, 2.2 or 2.1, as its files by their paths. Its first test becomes a paper, a section a
 * part; a package without a test becomes a paper of one part. What cannot be read is told by its file and left out.
 * @param files those that are text, by their paths
 * @param newId a new id for a question or a choice that comes from elsewhere
 * @param has whether the package holds a file of that path, whatever is in it
 * @param most questions; a package with more of them is refused
 */
export function readPackage(
	files: ReadonlyMap<string, string>,
	newId: () => string,
	has: (path: string) => boolean = (path) => files.has(path),
	most = MOST_QUESTIONS
): ReadPackage {
	const manifestPath = [...files.keys()].find((path) => /(^|\/)imsmanifest\.xml$/i.test(path));
	if (manifestPath === undefined)
		return { ok: false, message: 'There is no imsmanifest.xml in it, so it is not a QTI package.' };
	const read = readXml(files.get(manifestPath)!);
	if (!read.ok) return { ok: false, message: `imsmanifest.xml can’t be read: ${read.message}.` };
	const base = folderOf(manifestPath);
	const resources = below(read.root, 'resource').filter(({ attributes }) => attributes.href);
	/** A file is named as it is, or as a URI names it: `my%20item.xml` is the file `my item.xml`. */
	const within = (folder: string, href: string): string => {
		const asIs = joined(folder, href);
		return has(asIs) ? asIs : joined(folder, unescapedUri(href));
	};
	const pathOf = (resource: XmlNode) => within(base, resource.attributes.href);
	const isItem = ({ attributes }: XmlNode) => /imsqti_(apip)?item_xml/i.test(attributes.type ?? '');
	const isTest = ({ attributes }: XmlNode) => /imsqti_(apip)?(test|assessment)_xml/i.test(attributes.type ?? '');
	const items = new Map(resources.filter(isItem).map((resource) => [pathOf(resource), resource]));
	const tests = resources.filter(isTest);
	const told: Told[] = [];
	if (tests.length > 1)
		told.push({ where: 'imsmanifest.xml', message: `It has ${tests.length} tests; the first was read.` });

	const pictures = new Map<string, Picture>();
	const mediaFiles: Record<string, string> = {};
	const stimuli = new Map<string, Stimulus>();
	const readPaths = new Set<string>();
	/** The question of an item's file; null: it could not be read, and that is told. */
	function questionAt(path: string): Question | null {
		const where = path;
		if (readPaths.has(path)) {
			told.push({ where, message: 'It is named twice; it came in once.' });
			return null;
		}
		readPaths.add(path);
		const xml = files.get(path);
		if (xml === undefined) {
			told.push({ where, message: 'The package names it, and it is not there.' });
			return null;
		}
		const read = readItem(xml, newId);
		if (!read.ok) {
			told.push({ where, message: `It was left out: ${read.message}.` });
			return null;
		}
		const { question, media, stimulus } = read.item;
		told.push(...read.item.told.map((message) => ({ where, message })));
		for (const medium of media)
			if (question.picture === undefined && /\.svg$/i.test(medium.src)) takePicture(question, path, medium, where);
			else question.media = withMedium(question.media, path, medium, where);
		if (stimulus) question.stimulus = stimulusAt(stimulus, path, where);
		const described = readLom(child(items.get(path) ?? null, 'metadata'));
		return { ...question, ...described };
	}
	/** These files and one more of the package, if it is there. */
	function withMedium(media: Medium[] | undefined, path: string, medium: ReadMedium, where: string) {
		const { src, ...said } = medium;
		const at = within(folderOf(path), src);
		const type = typeBy(at);
		if (type === null || !has(at)) {
			const why = type === null ? 'it is no picture, sound or film that can be shown here' : 'it is not in the package';
			told.push({ where, message: `${src || 'A file without a source'} was left out: ${why}.` });
			return media;
		}
		const file = /^media\/([0-9a-f]{64})\.\w+$/.exec(at)?.[1] ?? at;
		mediaFiles[file] = at;
		return [...(media ?? []), { file, type, ...said }];
	}
	/** The shared text that an item names; its file is read once. */
	function stimulusAt(named: NonNullable<ReadItem['stimulus']>, itemPath: string, where: string): Stimulus | undefined {
		const path = 'href' in named ? within(folderOf(itemPath), named.href) : itemPath;
		const known = stimuli.get('href' in named ? path : named.id);
		if (known) return known;
		const read = 'href' in named ? readXml(files.get(path) ?? '') : null;
		if (read && !read.ok) {
			told.push({ where, message: `Its shared text ${path} was left out: ${read.message}.` });
			return undefined;
		}
		const { id, text, media } = read?.ok ? readStimulus(read.root) : (named as Exclude<typeof named, { href: string }>);
		const stimulus: Stimulus = { id: id || newId(), text };
		for (const medium of media) {
			const all = withMedium(stimulus.media, path, medium, where);
			if (all) stimulus.media = all;
		}
		stimuli.set('href' in named ? path : named.id, stimulus);
		return stimulus;
	}
	function takePicture(question: Question, path: string, picture: { src: string; alt: string }, where: string) {
		const file = within(folderOf(path), picture.src);
		const svg = files.get(file);
		const name = decoded(
			file
				.split('/')
				.at(-1)!
				.replace(/\.svg$/i, '')
		);
		const fault =
			svg === undefined || !/\.svg$/i.test(file)
				? 'only SVG pictures of the package itself can be taken along'
				: faultOf(svg);
		if (fault !== null) {
			told.push({ where, message: `The picture ${picture.src || 'without a source'} was left out: ${fault}.` });
			question.stem = `${question.stem}\n(${picture.alt || 'a picture stood here'})`.trimStart();
			return;
		}
		pictures.set(name, { svg: svg!, alt: picture.alt });
		question.picture = name;
	}

	const test = tests[0] ? testIn(files, pathOf(tests[0])) : null;
	if (test && !test.ok) told.push({ where: pathOf(tests[0]), message: `The test was left out: ${test.message}.` });
	const paper: Paper = { title: '', parts: [] };
	if (test?.ok) {
		const { root } = test;
		paper.title = root.attributes.title ?? '';
		if (root.attributes.lang && root.attributes.lang !== 'en') paper.language = root.attributes.lang;
		const sections = below(root, 'assessmentsection').filter((section) => !isInside(root, section));
		for (const section of sections) paper.parts.push(partOf(section, folderOf(pathOf(tests[0]))));
		aboutOf(root, paper);
		const material = materialIn(root, pathOf(tests[0]));
		if (material.length > 0) paper.material = material;
		told.push(...leftToSessions(root, pathOf(tests[0])));
	} else
		paper.parts.push({
			title: '',
			draw: null,
			questions: [...items.keys()].map(questionAt).filter((question) => question !== null)
		});

	/** The documents that lie beside the test, as Otium writes them. */
	function materialIn(root: XmlNode, path: string): Material[] {
		return below(root, 'rubricblock')
			.filter((block) => hasClass(block, 'material'))
			.flatMap((block) => {
				const title = child(block, 'h2');
				const { media } = readBody(block.children.filter((one) => one !== title));
				const pages = media.reduce<Medium[]>((all, page) => withMedium(all, path, page, path) ?? [], []);
				return title && pages.length > 0 ? [{ name: textIn(title).slice(0, 120), pages }] : [];
			});
	}

	function partOf(section: XmlNode, folder: string): Part {
		const where = section.attributes.identifier ?? 'a section';
		const inner = below(section, 'assessmentsection');
		if (inner.length > 0) told.push({ where, message: 'Sections inside it came in as one part with it.' });
		const refs = below(section, 'assessmentitemref');
		const questions = refs
			.map((ref) => timed(questionAt(within(folder, ref.attributes.href ?? '')), ref))
			.filter((question) => question !== null);
		const select = Number(child(section, 'selection')?.attributes.select ?? NaN);
		return {
			title: (section.attributes.visible === 'false' ? '' : (section.attributes.title ?? '')).slice(0, 200),
			draw: Number.isInteger(select) && select >= 0 ? select : null,
			...strataOf(section, select),
			questions
		};
	}
	for (const path of items.keys())
		if (!readPaths.has(path)) told.push({ where: path, message: 'No test names it; it was left out.' });
	if (paper.parts.reduce((sum, { questions }) => sum + questions.length, 0) > most)
		return { ok: false, message: `It has more than ${most} questions. Divide it into two packages.` };
	if (pictures.size > 0) paper.pictures = Object.fromEntries(pictures);
	return { ok: true, paper, told, files: mediaFiles };
}

/** What a file is by its name; null: nothing that can be shown or played. What is in it decides when it is kept. */
function typeBy(path: string): MediumType | null {
	const extension = /\.(\w+)$/.exec(path)?.[1].toLowerCase() ?? '';
	if (['png', 'jpg', 'jpeg', 'webp', 'svg'].includes(extension)) return 'image/webp';
	const played: Record<string, MediumType> = {
		mp3: 'audio/mpeg',
		ogg: 'audio/ogg',
		oga: 'audio/ogg',
		mp4: 'video/mp4',
		webm: 'video/webm'
	};
	return played[extension] ?? null;
}

const folderOf = (path: string) => path.slice(0, path.lastIndexOf('/') + 1);

/** A reference is a URI (RFC 3986): what stands in it as `%20` is a space in the name of the file. */
function unescapedUri(reference: string): string {
	try {
		return decodeURIComponent(reference);
	} catch {
		return reference;
	}
}

/** A path inside the package as seen from a folder of it; what leads outside leads nowhere. */
function joined(folder: string, href: string): string {
	const parts: string[] = [];
	for (const part of `${folder}${href.split(/[?#]/)[0]}`.split('/')) {
		if (part === '..') parts.pop();
		else if (part !== '.' && part !== '') parts.push(part);
	}
	return parts.join('/');
}

/** What keeps a drawing out: it is shown as a picture, where nothing of it runs, but it need not be there to begin with. */
function faultOf(svg: string): string | null {
	if (svg.length > MOST_PICTURE_CHARACTERS) return 'it is larger than 200 kB';
	const read = readXml(svg);
	if (!read.ok) return read.message;
	if (read.root.name !== 'svg') return 'it is not an SVG drawing';
	const all = [read.root, ...allBelow(read.root)];
	if (all.some(({ name }) => ['script', 'foreignobject', 'iframe'].includes(name))) return 'there is a script in it';
	const isActive = ({ attributes }: XmlNode) =>
		Object.entries(attributes).some(
			([name, value]) =>
				/^on/.test(name) ||
				/javascript:/i.test(value) ||
				(name === 'href' && !/^(#|data:image\/(png|jpeg);)/.test(value))
		);
	if (all.some(isActive)) return 'it would run or fetch something';
	return textIn(read.root).includes('@import') ? 'it would fetch something' : null;
}
