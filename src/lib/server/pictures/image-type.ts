/** What a picture is by its first bytes, whatever its name or its sender says. */
export function imageType(bytes: Uint8Array): 'image/jpeg' | 'image/png' | null {
	const starts = (...with_: number[]) => with_.every((byte, i) => bytes[i] === byte);
	if (starts(0xff, 0xd8, 0xff)) return 'image/jpeg';
	if (starts(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'image/png';
	return null;
}
