<script lang="ts">
	import Calm from '../Calm.svelte';
</script>

<svelte:head><title>The sealed client · Otium</title></svelte:head>
<Calm title="The sealed client">
	<p>Some papers can only be sat in a program that keeps everything else closed. It opens the paper automatically.</p>
	<ol class="list-decimal space-y-2 pl-6">
		<li>On a college device it is already installed: look for “Sealed client”. It says so if it is too old.</li>
		<li>
			On your own device, ask the people who look after devices at your site. They install it and enrol the device.
		</li>
		<li>Sign in to the network first, if it has a page of its own for that: inside, you cannot.</li>
		<li>Set the sound and close other programs.</li>
		<li>Try it before the day: <a class="underline" href="/sit/rehearse">rehearse on this device</a>.</li>
	</ol>
	<p><a class="font-semibold underline" href="/sit">Back to the door</a></p>
</Calm>
