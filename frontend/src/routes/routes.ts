/** The view of each station. */
import type { Component } from 'svelte';
import type { Station } from '../lib/domain/address';
import Changes from './changes/Changes.svelte';
import Kit from './kit/Kit.svelte';
import Rigs from './rigs/Rigs.svelte';
import Runs from './runs/Runs.svelte';

export const VIEWS: Record<Station, Component> = { runs: Runs, kit: Kit, changes: Changes, rigs: Rigs };
