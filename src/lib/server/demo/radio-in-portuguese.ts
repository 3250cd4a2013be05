import type { Draft } from './drafts';

/** By the English stem: the Portuguese one, and the choices by their English text. What is the same in both is left out. */
const WORDINGS: Record<string, { stem: string; choices?: Record<string, string> }> = {
	'The distress call by voice begins with…': {
		stem: 'A chamada de socorro por voz começa por…',
		choices: {
			'MAYDAY, three times': 'MAYDAY, três vezes',
			'PAN PAN, three times': 'PAN PAN, três vezes',
			'SÉCURITÉ, three times': 'SÉCURITÉ, três vezes',
			'SOS, once': 'SOS, uma vez'
		}
	},
	'The urgency signal is…': { stem: 'O sinal de urgência é…' },
	'The safety signal, before a message about navigation or weather, is…': {
		stem: 'O sinal de segurança, antes de um aviso à navegação ou meteorológico, é…'
	},
	'Which VHF channel is for distress, safety and calling by voice?': {
		stem: 'Qual é o canal VHF de socorro, segurança e chamada por voz?'
	},
	'Which VHF channel is for digital selective calling?': { stem: 'Qual é o canal VHF da chamada seletiva digital?' },
	'How many digits has an MMSI?': { stem: 'Quantos algarismos tem um MMSI?' },
	'“Over” at the end of a transmission means…': {
		stem: '“Over” no fim de uma transmissão significa…',
		choices: {
			'I have finished and expect an answer': 'Terminei e espero resposta',
			'I have finished and expect none': 'Terminei e não espero resposta',
			Wait: 'Aguarde',
			Repeat: 'Repita'
		}
	},
	'“Out” at the end of a transmission means…': {
		stem: '“Out” no fim de uma transmissão significa…',
		choices: {
			'I have finished and expect no answer': 'Terminei e não espero resposta',
			'Please answer': 'Responda, por favor',
			'I am leaving the channel open': 'Deixo o canal aberto',
			'Going to another channel': 'Passo para outro canal'
		}
	},
	'“Over and out” is correct procedure.': { stem: '“Over and out” é o procedimento correto.' },
	'In the phonetic alphabet, the letter Q is…': { stem: 'No alfabeto fonético, a letra Q é…' },
	'VHF range is roughly line of sight and grows with the height of the aerials.': {
		stem: 'O alcance do VHF é mais ou menos a linha de vista e cresce com a altura das antenas.'
	},
	'“SEELONCE MAYDAY” on a channel means…': {
		stem: '“SEELONCE MAYDAY” num canal significa…',
		choices: {
			'distress traffic is going on: keep off the channel': 'há tráfego de socorro: não use o canal',
			'the distress is over': 'o socorro terminou',
			'call the coastguard': 'chame a guarda costeira',
			'change to channel 70': 'passe para o canal 70'
		}
	}
};

/** The draft with its Portuguese wording beside it. */
export function inPortuguese(draft: Draft): Draft {
	const wording = WORDINGS[draft.stem];
	if (!wording) throw new Error(`No Portuguese for “${draft.stem}”`);
	const choices = 'choices' in draft ? draft.choices : [];
	const texts = Object.fromEntries(choices.map(({ id, text }) => [id, wording.choices?.[text] ?? text]));
	const said = Object.keys(texts).length > 0 ? { texts } : {};
	return { ...draft, inOther: { pt: { stem: wording.stem, ...said } } };
}
