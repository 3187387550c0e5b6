import { mount } from 'svelte';
import './ui/app.css';
import App from './app/App.svelte';
import { keepScreens } from './app/offline';

const target = document.getElementById('app');
if (!target) throw new Error('index.html has no #app');
keepScreens();
export default mount(App, { target });
