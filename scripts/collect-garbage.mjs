// Loaded before a server whose memory is measured: what it holds, and not what its engine has not yet thrown away.
process.on('SIGUSR2', () => /** @type {any} */ (globalThis).gc());
