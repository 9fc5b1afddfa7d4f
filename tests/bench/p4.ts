import { schedulePlan } from '@clembo/core';
import { computeDates } from '../../packages/core/src/schedule/schedule';
import { benchPlan } from './engine';
const s = schedulePlan(benchPlan(10_000, 4, true));
for (let i = 0; i < 400; i++) computeDates(s.network, s.adjacency, s.order);
