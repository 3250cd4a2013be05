import { planForAll, type PlaceDay, type PlanForAll } from '$core/optimal';
import { offer } from '../thread';

const tasks = {
	/** Windows, rooms and proctors for everyone of a day whose time does not fit. */
	place: (day: PlaceDay): Promise<PlanForAll> => planForAll(day)
};
export type PlanningTasks = typeof tasks;

offer(tasks);
