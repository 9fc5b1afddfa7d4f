import { benchEngine } from './engine';
benchEngine();
