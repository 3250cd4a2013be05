export { TryLimits } from './limits';
export { actorAt, addStaff, listStaff, saveStaff, signIn, signOut, staffByToken } from './staff';
export type { SignIn } from './staff';
export { arrive, deviceByToken, knock } from './candidate';
export type { Answer, Recognised, SignedIn } from './candidate';
