export { BANK as DEMO_BANK } from './bank';
export { demoClock, setDemoClock } from './clock';
export { DEMO_PAPERS } from './papers';
export { DEMO_PASSWORD, DEMO_STAFF } from './people';
export { demoDevices } from './devices';
export { seedDemo, seedWithAutumn } from './seed';
