import type { ClientInit } from '@sveltejs/kit';
import { setHourStyle } from '$core/time';

export const init: ClientInit = () => setHourStyle(document.documentElement.dataset.hours);
