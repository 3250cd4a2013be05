export { houseFacts } from './facts';
export { setUpPlace, type PlaceAsked } from './place';
export { inviteAll, type Invited, type ToInvite } from './invite-all';
export { leftToSetUp } from './left';
