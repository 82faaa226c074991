/** What server and command line share and a browser can't have. */
export { readPackFiles, readPackFolder } from './readPackFolder.ts';
