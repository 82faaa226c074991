export { similarJobs, type PastJob, type SimilarJob } from './similar.ts';
