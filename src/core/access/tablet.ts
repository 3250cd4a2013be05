/**
 * Whether a device is a tablet or a telephone, by what it calls itself. A page's word: it keeps out by mistake nobody who
 * sits at a computer, and nobody in who means to deceive is kept out by it; that takes a sealed client.
 */
export function isTablet(deviceName: string): boolean {
	return /\b(iPad|iPhone|Android|tablet)\b/i.test(deviceName);
}
