import { createContext } from 'svelte';
import type { ServerClock } from './server-clock.svelte';

/** The one clock of the staff's pages, for everything in them that tells time. */
export const [getClock, setClock] = createContext<ServerClock>();
