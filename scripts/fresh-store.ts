import { IDBFactory } from 'fake-indexeddb';

// Each test file begins with an empty store of the browser, as on another device: modules stay from one file to the next,
// and what an earlier file had kept would be there.
if (globalThis.indexedDB) globalThis.indexedDB = new IDBFactory();
