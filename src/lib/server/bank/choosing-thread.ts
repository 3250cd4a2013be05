import { fillPlan, parallelForms, type Filled, type Forms } from '$core/optimal';
import type { Question } from '$core/paper';
import { plannable } from '$core/plan';
import { offer } from '../thread';
import type { Choice } from './choosing';

const tasks = {
	/** Chooses questions of the bank for a plan. */
	async fill({ bank, plan, minutes, now }: Choice): Promise<Filled> {
		const choosable = bank.map(({ content, ...use }) => ({ ...plannable(JSON.parse(content)), ...use }));
		return fillPlan(choosable, plan, { minutes, now });
	},
	/** Divides questions into forms that are as alike as can be. */
	async forms({ questions, forms, each }: { questions: Question[]; forms: number; each: number }): Promise<Forms> {
		return parallelForms(questions.map(plannable), { forms, each });
	}
};
export type ChoosingTasks = typeof tasks;

offer(tasks);
