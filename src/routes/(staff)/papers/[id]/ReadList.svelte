<!-- @component Questions as they were read from elsewhere, each with what is doubtful about it, and what belongs to none. -->
<script lang="ts">
	import { plainText, isMarkedByHand, keyInWords, QUESTION_KIND_NAMES, type ReadText } from '$core/paper';

	let { read }: { read: ReadText } = $props();
</script>

<ol class="space-y-2">
	{#each read.questions as { question, line, doubts } (line)}
		<li class="border-line rounded-lg border px-3 py-2 text-[14px] {doubts.length > 0 ? 'bg-ochre-ground' : ''}">
			<span class="text-ink-3 text-[12.5px]"
				>Line {line} · {QUESTION_KIND_NAMES[question.kind]} · {question.points}
				{question.points === 1 ? 'point' : 'points'}</span
			>
			<p class="font-serif text-[15.5px] whitespace-pre-line">{plainText(question.stem)}</p>
			{#if 'choices' in question}<p class="text-ink-2">
					{question.choices.map((choice) => choice.text).join(' · ')}
				</p>{/if}
			{#if !isMarkedByHand(question) && doubts.length === 0}<p class="text-tide font-semibold">
					✓ {keyInWords(question)}
				</p>{/if}
			{#each doubts as doubt (doubt)}<p class="text-ochre font-semibold">{doubt}</p>{/each}
		</li>
	{/each}
</ol>
{#if read.unread.length > 0}
	<p class="mt-3 text-[14px] font-semibold">Belongs to no question, and is left out:</p>
	<ul class="text-ink-2 text-[13.5px]">
		{#each read.unread as { line, text: words } (line)}<li>Line {line}: {words}</li>{/each}
	</ul>
{/if}
