import { mount } from 'svelte';
import './app.css';
import App from './App.svelte';
import { keepPlaces } from './place';

keepPlaces();

export default mount(App, { target: document.getElementById('app')! });

// The program stays on the device, so that a walk goes on without signal. It is kept when the first screen stands: to keep it
// takes a phone seconds, which that screen would wait for.
const keep = () => void navigator.serviceWorker.register('/sw.js').catch(() => setTimeout(keep, 20_000));
if (import.meta.env.PROD && 'serviceWorker' in navigator) window.addEventListener('load', () => setTimeout(keep, 2500));
