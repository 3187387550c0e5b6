/** The places of the program, in the order in which they stand everywhere: bar, tabs of a phone, menu and keys. */
import BookOpen from '@lucide/svelte/icons/book-open';
import ClipboardList from '@lucide/svelte/icons/clipboard-list';
import CalendarClock from '@lucide/svelte/icons/calendar-clock';
import Disc3 from '@lucide/svelte/icons/disc-3';
import Layers from '@lucide/svelte/icons/layers';
import type { Component } from 'svelte';

export interface Place {
  path: '/jobs' | '/bench' | '/schedule' | '/rack' | '/log' | '/gauge' | '/light' | '/tables' | '/manual' | '/settings';
  label: string;
  /** With Alt, the key that leads there. */
  digit: string;
  icon?: Component;
}

/** In the bar; on a phone the first four are tabs, and the rest is under More. */
export const MAIN: Place[] = [
  { path: '/jobs', label: 'Jobs', digit: '1', icon: ClipboardList },
  { path: '/bench', label: 'Bench', digit: '2', icon: Disc3 },
  { path: '/schedule', label: 'Schedule', digit: '3', icon: CalendarClock },
  { path: '/rack', label: 'Rack', digit: '4', icon: Layers },
  { path: '/log', label: 'Log', digit: '5', icon: BookOpen },
];
export const MORE: Place[] = [
  { path: '/gauge', label: 'Gauge', digit: '6' },
  { path: '/light', label: 'Light', digit: '7' },
  { path: '/tables', label: 'Tables', digit: '8' },
  { path: '/manual', label: 'Manual', digit: '0' },
  { path: '/settings', label: 'Settings', digit: '9' },
];
export const TABS = 4;

/** Whether an address lies in a place: its list, or one thing of it. */
export const within = (pathname: string, place: Place) =>
  pathname === place.path || pathname.startsWith(`${place.path}/`);
