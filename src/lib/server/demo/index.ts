export { demoClock, setDemoClock } from './clock';
export { DEMO_PAPERS } from './papers';
export { DEMO_PASSWORD, DEMO_STAFF } from './people';
export { demoDevice, seedDemo } from './seed';
