export { homeSite } from './home-site';
export { listRooms, saveRoom } from './rooms';
export type { Room, RoomChange } from './rooms';
export { listNetworks, networksOf, removeNetwork, saveNetwork } from './networks';
export type { Network } from './networks';
export {
	administrationOn,
	findAdministration,
	listAdministrations,
	makeAdministration,
	makeSite,
	saveAdministration
} from './administration';
export type { Administration, AdministrationChange, AdministrationName } from './administration';
