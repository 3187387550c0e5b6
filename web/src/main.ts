import { mount } from 'svelte';
import './ui/app.css';
import App from './app/App.svelte';

const target = document.getElementById('app');
if (!target) throw new Error('index.html has no #app');
export default mount(App, { target });
