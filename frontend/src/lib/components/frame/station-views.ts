/** What the frame is given of each station. */
import type { Component } from 'svelte';
import type { LucideIcon } from '@lucide/svelte';
import type { Station } from '../../domain/stations';

export type StationViews = Record<Station, { view: Component; icon: LucideIcon }>;
