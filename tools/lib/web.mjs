import { tellAskers } from './asker.mjs';

// Loaded in front of the web server.
tellAskers(process.env.CLEMBO_PROXIES);
