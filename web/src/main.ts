import { mount } from 'svelte';
import './app.css';
import App from './App.svelte';
import { keepPlaces } from './place';

keepPlaces();

export default mount(App, { target: document.getElementById('app')! });

// The program stays on the device, so that a walk goes on without signal.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  window.addEventListener('load', () => void navigator.serviceWorker.register('/sw.js'));
