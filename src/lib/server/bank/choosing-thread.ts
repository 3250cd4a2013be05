import { fillPlan, parallelForms, type Filled, type Forms } from '$core/optimal';
import { minutesNeeded, type Question } from '$core/paper';
import { offer } from '../thread';
import type { Choice } from './choosing';

const tasks = {
	/** Chooses questions of the bank for a plan. */
	async fill({ bank, plan, minutes, now }: Choice): Promise<Filled> {
		const choosable = bank.map(({ content, lastUsed, isKnown }) => {
			const question: Question = JSON.parse(content);
			const { id, topic, points, difficulty = null } = question;
			return { id, topic, points, difficulty, minutes: minutesNeeded(question), lastUsed, isKnown };
		});
		return fillPlan(choosable, plan, { minutes, now });
	},
	/** Divides questions into forms that are as alike as can be. */
	async forms({ questions, forms, each }: { questions: Question[]; forms: number; each: number }): Promise<Forms> {
		const bank = questions.map((question) => {
			const { id, topic, points, difficulty = null } = question;
			return { id, topic, points, difficulty, minutes: minutesNeeded(question) };
		});
		return parallelForms(bank, { forms, each });
	}
};
export type ChoosingTasks = typeof tasks;

offer(tasks);
