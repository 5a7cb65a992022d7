/** Address to view. Everything unknown leads to a page that says so. */
import Changes from './changes/Changes.svelte';
import Kit from './kit/Kit.svelte';
import Missing from './Missing.svelte';
import Rigs from './rigs/Rigs.svelte';
import Runs from './runs/Runs.svelte';

export const routes = { '/': Runs, '/kit': Kit, '/changes': Changes, '/rigs': Rigs, '*': Missing };
