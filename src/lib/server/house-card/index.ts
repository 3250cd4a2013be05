export { addressOf, houseCard, saveHouseCard } from './house-card';
export type { HouseCard } from './house-card';
