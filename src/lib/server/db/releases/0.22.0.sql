PRAGMA foreign_keys=OFF;
BEGIN TRANSACTION;
CREATE TABLE `addendum` (`id` varchar(255), `administration_id` varchar(255) not null, `sitting_id` varchar(255), `body` text not null, `proposed_by` varchar(255) not null, `proposed_at` bigint not null, `confirmed_by` varchar(255), `confirmed_at` bigint, `declined_by` varchar(255), `declined_at` bigint, `file` varchar(255), `sha256` varchar(255), foreign key(`administration_id`) references `administration`(`id`), foreign key(`sitting_id`) references `sitting`(`id`), primary key (`id`));
CREATE TABLE `administration` (`id` varchar(255), `name` varchar(255) not null, `opens_on` varchar(255), `closes_on` varchar(255), `made_at` bigint not null default '0', primary key (`id`));
INSERT INTO "administration" VALUES('winter','Winter',NULL,NULL,0);
CREATE TABLE `alike_decision` (`id` varchar(255), `session_id` varchar(255) not null, `pairs` text not null, `note` varchar(255) not null, `by` varchar(255) not null, `at` bigint not null, foreign key(`session_id`) references `session`(`id`), primary key (`id`));
CREATE TABLE `answer` (`sitting_id` varchar(255) not null, `epoch` integer not null, `seq` integer not null, `question_id` varchar(255) not null, `value` text not null, `in_view_ms` integer not null, `received_at` bigint not null, `late` boolean not null, `kept_because` varchar(255), `group_seq` integer, foreign key(`sitting_id`) references `sitting`(`id`), primary key (`sitting_id`, `epoch`, `seq`));
INSERT INTO "answer" VALUES('sit0',1,1,'q1','{"value":true,"marked":false,"struck":[]}',900,1796720400000,0,NULL,1);
INSERT INTO "answer" VALUES('sit0',1,2,'q2','{"value":true,"marked":false,"struck":[]}',900,1796720400000,0,NULL,1);
INSERT INTO "answer" VALUES('sit1',1,7,'q1','{"value":true,"marked":false,"struck":[]}',900,1796720400000,0,'freed_device',2);
CREATE TABLE `answer_group` (`seq` integer, `at` bigint not null, `answers` integer not null, `digest` varchar(255) not null, `before` varchar(255) not null, `hash` varchar(255) not null, `emptied` text, primary key (`seq`));
INSERT INTO "answer_group" VALUES(1,1796720400000,2,'s-MG1j48w0otB9fjBd8H7oYbiMWfwbx__8-W_sYMY5I','','7GObOEaSfN8ZvRX9LEIPBNvjQTmGDGn11FJEC6ibGGE',NULL);
INSERT INTO "answer_group" VALUES(2,1796720400000,1,'S-lmhYPZcswtnzPYQ662HWzexC53uOjLFB74KLwatfQ','7GObOEaSfN8ZvRX9LEIPBNvjQTmGDGn11FJEC6ibGGE','iWUgvc_Lut0RX0uxw_aKxiIVtiKLVDwuk1JRpvPR8UY',NULL);
CREATE TABLE `answer_standing` (`sitting_id` varchar(255) not null, `question_id` varchar(255) not null, `epoch` integer not null, `seq` integer not null, `value` text not null, `blank` boolean not null, `marked` boolean not null, `in_view_ms` integer not null, `late` boolean not null, foreign key(`sitting_id`) references `sitting`(`id`), primary key (`sitting_id`, `question_id`));
INSERT INTO "answer_standing" VALUES('sit0','q1',1,1,'{"value":true,"marked":false,"struck":[]}',0,0,900,0);
INSERT INTO "answer_standing" VALUES('sit0','q2',1,2,'{"value":true,"marked":false,"struck":[]}',0,0,900,0);
CREATE TABLE `candidate` (`id` varchar(255), `number` varchar(255) not null, `number_folded` varchar(255) not null, `given` varchar(255) not null, `family` varchar(255) not null, `group_id` varchar(255) not null, `email` varchar(255), `birth` varchar(255), `language` varchar(255), `source_id` varchar(255), `left_at` bigint, `photo_at` bigint, `user_name` varchar(255), `grade` varchar(255), `elsewhere` boolean not null default '0', `trial` boolean not null default '0', foreign key(`group_id`) references `candidate_group`(`id`), primary key (`id`));
INSERT INTO "candidate" VALUES('can0','DO-1001','do1001','Given0','Family0','watch',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,0);
INSERT INTO "candidate" VALUES('can1','DO-1002','do1002','Given1','Family1','watch',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,0);
INSERT INTO "candidate" VALUES('can2','DO-1003','do1003','Given2','Family2','watch',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,0);
CREATE TABLE `candidate_group` (`id` varchar(255), `site_id` varchar(255) not null, `name` varchar(255) not null, foreign key(`site_id`) references `site`(`id`), primary key (`id`));
INSERT INTO "candidate_group" VALUES('watch','quayside','Watch A');
CREATE TABLE `client_challenge` (`nonce` varchar(255), `expires_at` bigint not null, `used_at` bigint, primary key (`nonce`));
CREATE TABLE `client_device` (`id` varchar(255), `site_id` varchar(255) not null, `name` varchar(255) not null, `public_key` text not null, `enrolled_by` varchar(255) not null, `enrolled_at` bigint not null, `seen_at` bigint, `version` varchar(255), `withdrawn_at` bigint, foreign key(`site_id`) references `site`(`id`), primary key (`id`));
CREATE TABLE `client_enrolment` (`code_mark` varchar(255), `site_id` varchar(255) not null, `made_by` varchar(255) not null, `made_at` bigint not null, `expires_at` bigint not null, `devices` integer not null default '0', foreign key(`site_id`) references `site`(`id`), primary key (`code_mark`));
CREATE TABLE `closing` (`administration_id` varchar(255), `at` bigint not null, `by` varchar(255) not null, `second` varchar(255), `archive` varchar(255) not null, `sha256` varchar(255) not null, `bytes` integer not null, `counts` text not null, `head` varchar(255) not null, foreign key(`administration_id`) references `administration`(`id`), primary key (`administration_id`));
CREATE TABLE `closing_wish` (`administration_id` varchar(255), `by` varchar(255) not null, `at` bigint not null, foreign key(`administration_id`) references `administration`(`id`), primary key (`administration_id`));
CREATE TABLE `command_answer` (`command_id` varchar(255), `asked` text not null, `answer` text not null, `at` bigint not null default '0', primary key (`command_id`));
INSERT INTO "command_answer" VALUES('candidate can0 WAMhtaHsm5vp_lGdJ_uQr','sit0 arrive','{"sittingId":"sit0","ok":true,"changed":true}',1796720400000);
INSERT INTO "command_answer" VALUES('proctor dunmore UPU8eBHpt3lTq3kV5kQND','sit0 let_in','{"sittingId":"sit0","ok":true,"changed":true}',1796720400000);
INSERT INTO "command_answer" VALUES('candidate can0 7SR4WDoHASdY6UG8AezF_','sit0 begin','{"sittingId":"sit0","ok":true,"changed":true}',1796720400000);
INSERT INTO "command_answer" VALUES('candidate can1 qKlhXk0z8feZAFbkTqi97','sit1 arrive','{"sittingId":"sit1","ok":true,"changed":true}',1796720400000);
INSERT INTO "command_answer" VALUES('proctor dunmore 9T5m-TEPc_ICoqPkx_3-u','sit1 let_in','{"sittingId":"sit1","ok":true,"changed":true}',1796720400000);
INSERT INTO "command_answer" VALUES('candidate can1 HuNkk1wn9lXeh6ECL0ZyI','sit1 begin','{"sittingId":"sit1","ok":true,"changed":true}',1796720400000);
INSERT INTO "command_answer" VALUES('proctor dunmore qkmLSaFvs8nfx9HPklyAa','sit1 move_device','{"sittingId":"sit1","ok":true,"changed":true}',1796720400000);
CREATE TABLE `commitment` (`id` varchar(255), `candidate_id` varchar(255) not null, `from_at` bigint not null, `to_at` bigint not null, `title` varchar(255) not null, foreign key(`candidate_id`) references `candidate`(`id`), primary key (`id`));
CREATE TABLE `contact` (`id` varchar(255), `administration_id` varchar(255) not null, `place` integer not null, `problem` varchar(255) not null, `name` varchar(255) not null, `telephone` varchar(255) not null, `email` varchar(255) not null default '', `hours` varchar(255) not null default '', `for_candidates` boolean not null default '0', foreign key(`administration_id`) references `administration`(`id`), primary key (`id`));
CREATE TABLE `correction` (`id` varchar(255), `administration_id` varchar(255) not null, `paper_id` varchar(255) not null, `question_id` varchar(255) not null, `body` text not null, `reason` varchar(255) not null, `proposed_by` varchar(255) not null, `proposed_at` bigint not null, `place` integer, `confirmed_by` varchar(255), `confirmed_at` bigint, `declined_by` varchar(255), `declined_at` bigint, foreign key(`administration_id`) references `administration`(`id`), foreign key(`paper_id`) references `paper`(`id`), primary key (`id`));
CREATE TABLE `device` (`token_hash` varchar(255), `sitting_id` varchar(255) not null, `epoch` integer not null, `expires_at` bigint not null, `public_key` text, foreign key(`sitting_id`) references `sitting`(`id`), primary key (`token_hash`));
INSERT INTO "device" VALUES('yne-VkZbnBJsQQ6PB94LLQ29io2UFdE7zquYJmR6R5o','sit0',1,1796806800000,'some key');
INSERT INTO "device" VALUES('RrBirPBFcyUdEt-7y6ADyyb1JPSZYRzb3MQdltfxRWA','sit1',1,1796806800000,'some key');
CREATE TABLE `device_check` (`id` varchar(255), `candidate_id` varchar(255) not null, `session_id` varchar(255), `at` bigint not null, `device_name` varchar(255) not null, `client_version` varchar(255), `checks` text not null, `ready` boolean not null, foreign key(`candidate_id`) references `candidate`(`id`), foreign key(`session_id`) references `session`(`id`), primary key (`id`));
CREATE TABLE `door_refusal` (`id` varchar(255), `session_id` varchar(255) not null, `candidate_id` varchar(255), `sitting_id` varchar(255), `code` varchar(255) not null, `device_name` varchar(255) not null, `tries` integer not null default '1', `at` bigint not null, `settled_at` bigint, `waits_until` bigint, `limited` text not null default '[]', foreign key(`session_id`) references `session`(`id`), foreign key(`candidate_id`) references `candidate`(`id`), foreign key(`sitting_id`) references `sitting`(`id`), primary key (`id`));
CREATE TABLE `emptied` (`administration_id` varchar(255) not null, `what` varchar(255) not null, `at` bigint not null, `done_at` bigint, foreign key(`administration_id`) references `administration`(`id`), primary key (`administration_id`, `what`));
CREATE TABLE `entitlement` (`administration_id` varchar(255) not null, `site_id` varchar(255), `count` integer not null, foreign key(`administration_id`) references `administration`(`id`), foreign key(`site_id`) references `site`(`id`));
CREATE TABLE `evidence` (`id` varchar(255), `name` varchar(255) not null, `type` varchar(255) not null, `at` bigint not null, `keep_until` bigint not null, `deleted_at` bigint, primary key (`id`));
CREATE TABLE `form` (`sitting_id` varchar(255), `form` text not null, foreign key(`sitting_id`) references `sitting`(`id`), primary key (`sitting_id`));
INSERT INTO "form" VALUES('sit0','{"seed":-984791495,"questions":[{"id":"q6","part":"All","kind":"true_false","stem":"Is 5 even?","points":1},{"id":"q1","part":"All","kind":"true_false","stem":"Is 0 even?","points":1},{"id":"q4","part":"All","kind":"true_false","stem":"Is 3 even?","points":1},{"id":"q3","part":"All","kind":"true_false","stem":"Is 2 even?","points":1},{"id":"q2","part":"All","kind":"true_false","stem":"Is 1 even?","points":1},{"id":"q5","part":"All","kind":"true_false","stem":"Is 4 even?","points":1}]}');
INSERT INTO "form" VALUES('sit1','{"seed":1961545330,"questions":[{"id":"q4","part":"All","kind":"true_false","stem":"Is 3 even?","points":1},{"id":"q1","part":"All","kind":"true_false","stem":"Is 0 even?","points":1},{"id":"q5","part":"All","kind":"true_false","stem":"Is 4 even?","points":1},{"id":"q3","part":"All","kind":"true_false","stem":"Is 2 even?","points":1},{"id":"q2","part":"All","kind":"true_false","stem":"Is 1 even?","points":1},{"id":"q6","part":"All","kind":"true_false","stem":"Is 5 even?","points":1}]}');
CREATE TABLE `grant_given` (`id` varchar(255), `candidate_id` varchar(255), `scope_kind` varchar(255) not null, `scope_id` varchar(255), `kind` varchar(255) not null, `body` text not null, `reason` varchar(255) not null, `given_by` varchar(255) not null, `given_at` bigint not null, `withdrawn_at` bigint, `room_id` varchar(255), `proctor_id` varchar(255), `opens` bigint, `closes` bigint, `from_at` bigint, `until_at` bigint, `asked_by` varchar(255), `source` varchar(255) not null default 'hand', `batch` varchar(255), `evidence_id` varchar(255), `withdrawn_by` varchar(255), foreign key(`candidate_id`) references `candidate`(`id`), primary key (`id`));
INSERT INTO "grant_given" VALUES('glkUe07-eyrCx2DT_er06','can0','session','s1','extra_time','{"kind":"extra_time","factor":1,"minutes":5}','alarm','dunmore',1796720400000,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,'hand',NULL,NULL,NULL);
CREATE TABLE `grant_request` (`id` varchar(255), `site_id` varchar(255) not null, `candidate_id` varchar(255) not null, `session_id` varchar(255), `what` varchar(255) not null, `why` text not null, `asked_as` varchar(255) not null, `asked_by` varchar(255) not null, `asked_email` varchar(255), `asked_at` bigint not null, `needed_by` bigint, `evidence_id` varchar(255), `state` varchar(255) not null default 'open', `decided_by` varchar(255), `decided_at` bigint, `note` text, foreign key(`site_id`) references `site`(`id`), foreign key(`candidate_id`) references `candidate`(`id`), foreign key(`session_id`) references `session`(`id`), primary key (`id`));
CREATE TABLE `group_member` (`group_id` varchar(255) not null, `candidate_id` varchar(255) not null, foreign key(`group_id`) references `candidate_group`(`id`), foreign key(`candidate_id`) references `candidate`(`id`), primary key (`group_id`, `candidate_id`));
INSERT INTO "group_member" VALUES('watch','can0');
INSERT INTO "group_member" VALUES('watch','can1');
INSERT INTO "group_member" VALUES('watch','can2');
CREATE TABLE `hand_mark` (`id` varchar(255), `administration_id` varchar(255) not null, `sitting_id` varchar(255) not null, `question_id` varchar(255) not null, `marker` varchar(255) not null, `points` float not null, `criteria` text not null default '{}', `comment` text not null default '', `took_ms` integer not null default '0', `at` bigint not null, `taken_back_at` bigint, `taken_back_by` varchar(255), `taken_back_why` varchar(255), foreign key(`administration_id`) references `administration`(`id`), foreign key(`sitting_id`) references `sitting`(`id`), primary key (`id`));
CREATE TABLE `hand_plan` (`administration_id` varchar(255) not null, `paper_id` varchar(255) not null, `question_id` varchar(255) not null, `body` text not null, `revision` integer not null default '1', `changed_at` bigint not null, `changed_by` varchar(255) not null, foreign key(`administration_id`) references `administration`(`id`), foreign key(`paper_id`) references `paper`(`id`), primary key (`administration_id`, `paper_id`, `question_id`));
CREATE TABLE `incident` (`id` varchar(255), `session_id` varchar(255) not null, `kind` varchar(255) not null, `happened_at` bigint not null, `note` text not null, `done` text not null default '', `minutes` integer not null default '0', `grant_ids` text not null default '[]', `attachment_name` varchar(255), `attachment_type` varchar(255), `told_by` varchar(255) not null, `told_at` bigint not null, `withdrawn_at` bigint, foreign key(`session_id`) references `session`(`id`), primary key (`id`));
CREATE TABLE `incident_decision` (`id` varchar(255), `incident_id` varchar(255) not null, `sitting_id` varchar(255), `decision` varchar(255) not null, `note` varchar(255) not null, `by` varchar(255) not null, `at` bigint not null, `withdrawn_at` bigint, foreign key(`incident_id`) references `incident`(`id`), foreign key(`sitting_id`) references `sitting`(`id`), primary key (`id`));
CREATE TABLE `incident_person` (`incident_id` varchar(255) not null, `sitting_id` varchar(255) not null, foreign key(`incident_id`) references `incident`(`id`), foreign key(`sitting_id`) references `sitting`(`id`), primary key (`incident_id`, `sitting_id`));
CREATE TABLE `knex_migrations` (`id` integer not null primary key autoincrement, `name` varchar(255), `batch` integer, `migration_time` datetime);
INSERT INTO "knex_migrations" VALUES(1,'001-first',1,1796162388466);
INSERT INTO "knex_migrations" VALUES(2,'002-prepare',1,1796162388504);
INSERT INTO "knex_migrations" VALUES(3,'003-test-day',1,1796162388517);
INSERT INTO "knex_migrations" VALUES(4,'004-term',1,1796162388544);
INSERT INTO "knex_migrations" VALUES(5,'005-held-back',1,1796162388545);
INSERT INTO "knex_migrations" VALUES(6,'006-own-clock',1,1796162388557);
INSERT INTO "knex_migrations" VALUES(7,'007-signed',1,1796162388559);
INSERT INTO "knex_migrations" VALUES(8,'008-sealed',1,1796162388571);
INSERT INTO "knex_migrations" VALUES(9,'009-sign-in',1,1796162388587);
INSERT INTO "knex_migrations" VALUES(10,'010-client-device',1,1796162388592);
INSERT INTO "knex_migrations" VALUES(11,'011-mail-sealed',1,1796162388593);
INSERT INTO "knex_migrations" VALUES(12,'012-sheet-site',1,1796162388595);
INSERT INTO "knex_migrations" VALUES(13,'013-paper-draft',1,1796162388602);
INSERT INTO "knex_migrations" VALUES(14,'014-bank',1,1796162388609);
INSERT INTO "knex_migrations" VALUES(15,'015-media',1,1796162388611);
INSERT INTO "knex_migrations" VALUES(16,'016-withdrawn',1,1796162388621);
INSERT INTO "knex_migrations" VALUES(17,'017-grants',1,1796162388640);
INSERT INTO "knex_migrations" VALUES(18,'018-close-out',1,1796162388706);
INSERT INTO "knex_migrations" VALUES(19,'019-first-week',1,1796162388737);
INSERT INTO "knex_migrations" VALUES(20,'020-question-time',1,1796162388746);
INSERT INTO "knex_migrations" VALUES(21,'021-emptied',1,1796162388767);
INSERT INTO "knex_migrations" VALUES(22,'022-looked-up',1,1796162388769);
CREATE TABLE `knex_migrations_lock` (`index` integer not null primary key autoincrement, `is_locked` integer);
INSERT INTO "knex_migrations_lock" VALUES(1,0);
CREATE TABLE `lapse` (`id` varchar(255), `sitting_id` varchar(255) not null, `kind` varchar(255) not null, `from_at` bigint not null, `to_at` bigint, foreign key(`sitting_id`) references `sitting`(`id`), primary key (`id`));
CREATE TABLE `logbook` (`seq` integer, `at` bigint not null, `actor_role` varchar(255) not null, `actor_id` varchar(255) not null, `kind` varchar(255) not null, `session_id` varchar(255), `sitting_id` varchar(255), `body` text not null, `before` varchar(255) not null, `hash` varchar(255) not null, `emptied` text, primary key (`seq`));
INSERT INTO "logbook" VALUES(1,1796720400000,'system','test','door_code_made','s1',NULL,'{"diesAt":1796774400000}','0000000000000000000000000000000000000000000000000000000000000000','ES_pN8H3IF7C5HjT3Hf4YgW44Hit7hM_3uK2_O4XfZc',NULL);
INSERT INTO "logbook" VALUES(2,1796720400000,'candidate','can0','arrived','s1','sit0','{"sessionId":"s1","deviceId":"device0","deviceName":"Laptop"}','ES_pN8H3IF7C5HjT3Hf4YgW44Hit7hM_3uK2_O4XfZc','NbJwteffxxBRhPB8rJB92J9WzvoI715ln_xmdfloENI',NULL);
INSERT INTO "logbook" VALUES(3,1796720400000,'proctor','dunmore','let_in','s1','sit0','{}','NbJwteffxxBRhPB8rJB92J9WzvoI715ln_xmdfloENI','V1yNFWQYIoV6N7qIDLpIBCmx6NOK8ZMvjnqGhobGjnc',NULL);
INSERT INTO "logbook" VALUES(4,1796720400000,'candidate','can0','began','s1','sit0','{"clockStartedAt":null}','V1yNFWQYIoV6N7qIDLpIBCmx6NOK8ZMvjnqGhobGjnc','Ur6GLXQLlW0G9XtJ0ZECnkyTBDml9ImBgkeoYiegKEI',NULL);
INSERT INTO "logbook" VALUES(5,1796720400000,'system','screen','clock_started','s1','sit0','{"startedAt":1796720400000}','Ur6GLXQLlW0G9XtJ0ZECnkyTBDml9ImBgkeoYiegKEI','jKutzTovaw3JRH9NPgZe1sVwf0wn-ggUMsg2HM8Hqlo',NULL);
INSERT INTO "logbook" VALUES(6,1796720400000,'candidate','can1','arrived','s1','sit1','{"sessionId":"s1","deviceId":"device1","deviceName":"Laptop"}','jKutzTovaw3JRH9NPgZe1sVwf0wn-ggUMsg2HM8Hqlo','q8_TlbRMPvfLVcO1OL29d9E1UWEVeRFh3j20flS72WE',NULL);
INSERT INTO "logbook" VALUES(7,1796720400000,'proctor','dunmore','let_in','s1','sit1','{}','q8_TlbRMPvfLVcO1OL29d9E1UWEVeRFh3j20flS72WE','dYl-LCICi4Tdl3cFffEhgjANdURUIU74zynlv7dq1Y8',NULL);
INSERT INTO "logbook" VALUES(8,1796720400000,'candidate','can1','began','s1','sit1','{"clockStartedAt":null}','dYl-LCICi4Tdl3cFffEhgjANdURUIU74zynlv7dq1Y8','9giiq7Cx7UhBycoPRNYOvv87W0rNdAcVmIzjycWOUpI',NULL);
INSERT INTO "logbook" VALUES(9,1796720400000,'system','screen','clock_started','s1','sit1','{"startedAt":1796720400000}','9giiq7Cx7UhBycoPRNYOvv87W0rNdAcVmIzjycWOUpI','uiXgVHJ4hlIAK3p7nenz8TRH2IROzFQp2M4ADR854Uk',NULL);
INSERT INTO "logbook" VALUES(10,1796720400000,'proctor','dunmore','grant_given','s1','sit0','{"grant":"glkUe07-eyrCx2DT_er06","what":"5 minutes more","scope":"session","reason":"alarm","effect":"60 + 5 = 65 min, ends 10:05"}','uiXgVHJ4hlIAK3p7nenz8TRH2IROzFQp2M4ADR854Uk','Nbq48y0SXx1WKIvwY8wrUWeJwONenNzRSa0t-smuV8Q',NULL);
INSERT INTO "logbook" VALUES(11,1796720400000,'proctor','dunmore','device_freed','s1','sit1','{}','Nbq48y0SXx1WKIvwY8wrUWeJwONenNzRSa0t-smuV8Q','DI5L-wSNe3kC-tkgKveRJ2y_a3gFfL2zJmgj4fUMT90',NULL);
INSERT INTO "logbook" VALUES(12,1796720400000,'system','answers','answers_kept','s1','sit1','{"because":"freed_device","answers":1}','DI5L-wSNe3kC-tkgKveRJ2y_a3gFfL2zJmgj4fUMT90','JZ0-lSV86z_MS4V2x3oDZeaAFkd1hxKHT-Ttz-3CT8k',NULL);
CREATE TABLE `mail` (`id` varchar(255), `made_at` bigint not null, `session_id` varchar(255), `kind` varchar(255) not null, `to_name` varchar(255) not null, `to_address` varchar(255) not null, `subject` varchar(255) not null, `body` text not null, `calendar` text, `state` varchar(255) not null, `tries` integer not null default '0', `sent_at` bigint, `trouble` varchar(255), `told` text, foreign key(`session_id`) references `session`(`id`), primary key (`id`));
CREATE TABLE `marking_run` (`id` varchar(255), `administration_id` varchar(255) not null, `paper_id` varchar(255) not null, `at` bigint not null, `by` varchar(255) not null, `why` varchar(255) not null, `correction_id` varchar(255), foreign key(`administration_id`) references `administration`(`id`), foreign key(`paper_id`) references `paper`(`id`), foreign key(`correction_id`) references `correction`(`id`), primary key (`id`));
CREATE TABLE `media_file` (`sha256` varchar(255), `type` varchar(255) not null, `bytes` integer not null, `width` integer, `height` integer, `added_at` bigint not null, `added_by` varchar(255), primary key (`sha256`));
CREATE TABLE `message` (`id` varchar(255), `session_id` varchar(255) not null, `sitting_id` varchar(255) not null, `from_candidate` boolean not null, `by` varchar(255) not null, `text` text not null, `at` bigint not null, `seen_at` bigint, foreign key(`session_id`) references `session`(`id`), foreign key(`sitting_id`) references `sitting`(`id`), primary key (`id`));
CREATE TABLE `meta` (`key` varchar(255), `value` text not null, primary key (`key`));
INSERT INTO "meta" VALUES('unkeyed','sealed:5tm4P0vdg2ryHMMyDYRHAG5bef8M2bXbj4qvAnsqIyH0Cc8UEKJ5BJjKvtc4GkKfGSm8SJZe8g8RrM1gtA');
INSERT INTO "meta" VALUES('key_check','sealed:o4_rK27oDnFs0dEG6xPOyePpZgE7YwEyo0lLaiLx_dw');
INSERT INTO "meta" VALUES('server_key','sealed:DnKfCiGa61fHW8jIczzbW4sP-_Goilky5pbCf8Vo5qEwg_18aNHJSEjQQXi8YcnkaEL4JT5EGo2eacEMmbTrQW4S3j0L28U');
CREATE TABLE `network` (`id` varchar(255), `site_id` varchar(255) not null, `name` varchar(255) not null, `ranges` text not null, foreign key(`site_id`) references `site`(`id`), primary key (`id`));
CREATE TABLE `paper` (`id` varchar(255), `title` varchar(255) not null, `version` integer not null, `content` text not null, `draft_id` varchar(255), `frozen_at` bigint, `frozen_by` varchar(255), `sha256` varchar(255), `withdrawn_at` bigint, `withdrawn_by` varchar(255), `withdrawn_why` varchar(255), primary key (`id`));
INSERT INTO "paper" VALUES('numbers','Numbers',1,'{"title":"Numbers","parts":[{"title":"All","questions":[{"id":"q1","kind":"true_false","stem":"Is 0 even?","answer":true,"points":1,"topic":"numbers"},{"id":"q2","kind":"true_false","stem":"Is 1 even?","answer":false,"points":1,"topic":"numbers"},{"id":"q3","kind":"true_false","stem":"Is 2 even?","answer":true,"points":1,"topic":"numbers"},{"id":"q4","kind":"true_false","stem":"Is 3 even?","answer":false,"points":1,"topic":"numbers"},{"id":"q5","kind":"true_false","stem":"Is 4 even?","answer":true,"points":1,"topic":"numbers"},{"id":"q6","kind":"true_false","stem":"Is 5 even?","answer":false,"points":1,"topic":"numbers"}],"draw":null}]}',NULL,NULL,NULL,NULL,NULL,NULL,NULL);
CREATE TABLE `paper_allowed` (`id` integer not null primary key autoincrement, `administration_id` varchar(255) not null, `paper_id` varchar(255) not null, `site_id` varchar(255), `group_id` varchar(255), foreign key(`administration_id`) references `administration`(`id`), foreign key(`paper_id`) references `paper`(`id`), foreign key(`site_id`) references `site`(`id`), foreign key(`group_id`) references `candidate_group`(`id`));
INSERT INTO "paper_allowed" VALUES(1,'winter','numbers',NULL,NULL);
CREATE TABLE `paper_draft` (`id` varchar(255), `site_id` varchar(255), `title` varchar(255) not null, `content` text not null, `revision` integer not null default '1', `based_on` varchar(255), `changed_at` bigint not null, `changed_by` varchar(255) not null, foreign key(`site_id`) references `site`(`id`), foreign key(`based_on`) references `paper`(`id`), primary key (`id`));
CREATE TABLE `passkey` (`id` varchar(255), `staff_id` varchar(255) not null, `name` varchar(255) not null, `public_key` text not null, `counter` bigint not null, `transports` text not null, `made_at` bigint not null, `used_at` bigint, foreign key(`staff_id`) references `staff`(`id`), primary key (`id`));
CREATE TABLE `password_link` (`token_hash` varchar(255), `staff_id` varchar(255) not null, `expires_at` bigint not null, `used_at` bigint, foreign key(`staff_id`) references `staff`(`id`), primary key (`token_hash`));
CREATE TABLE `progress` (`sitting_id` varchar(255), `answered` integer not null, `marked` integer not null, `last_answer_at` bigint not null, `pace` varchar(255) not null default 'calm', `rapid` integer not null default '0', foreign key(`sitting_id`) references `sitting`(`id`), primary key (`sitting_id`));
INSERT INTO "progress" VALUES('sit0',2,0,1796720400000,'calm',0);
CREATE TABLE `question` (`id` varchar(255), `site_id` varchar(255), `owner` varchar(255), `audience` varchar(255) not null, `revision` integer not null, `content` text not null, `digest` varchar(255) not null, `kind` varchar(255) not null, `topic` varchar(255) not null, `difficulty` varchar(255), `points` float not null, `languages` varchar(255) not null, `said` text not null, `changed_at` bigint not null, `changed_by` varchar(255), `retired_at` bigint, foreign key(`site_id`) references `site`(`id`), primary key (`id`));
CREATE TABLE `question_figure` (`question_id` varchar(255) not null, `paper_id` varchar(255) not null, `administration_id` varchar(255) not null, `seen` integer not null, `facility` float, `discrimination` float, `median_ms` integer, `at` bigint not null, foreign key(`paper_id`) references `paper`(`id`), foreign key(`administration_id`) references `administration`(`id`), primary key (`question_id`, `paper_id`, `administration_id`));
CREATE TABLE `question_reader` (`question_id` varchar(255) not null, `staff_id` varchar(255) not null, foreign key(`question_id`) references `question`(`id`), foreign key(`staff_id`) references `staff`(`id`), primary key (`question_id`, `staff_id`));
CREATE TABLE `question_remark` (`id` varchar(255), `question_id` varchar(255) not null, `text` text not null, `at` bigint not null, `by` varchar(255) not null, `settled_at` bigint, `settled_by` varchar(255), foreign key(`question_id`) references `question`(`id`), primary key (`id`));
CREATE TABLE `question_revision` (`question_id` varchar(255) not null, `revision` integer not null, `content` text not null, `digest` varchar(255) not null, `at` bigint not null, `by` varchar(255), foreign key(`question_id`) references `question`(`id`), primary key (`question_id`, `revision`));
CREATE TABLE `question_shown` (`sitting_id` varchar(255) not null, `place` integer not null, `at` bigint not null, foreign key(`sitting_id`) references `sitting`(`id`), primary key (`sitting_id`, `place`));
CREATE TABLE `question_use` (`question_id` varchar(255) not null, `paper_id` varchar(255) not null, foreign key(`question_id`) references `question`(`id`), foreign key(`paper_id`) references `paper`(`id`), primary key (`question_id`, `paper_id`));
CREATE TABLE `recovery_code` (`staff_id` varchar(255) not null, `code_mark` varchar(255) not null, `used_at` bigint, foreign key(`staff_id`) references `staff`(`id`), primary key (`staff_id`, `code_mark`));
CREATE TABLE `release` (`id` varchar(255), `administration_id` varchar(255) not null, `paper_id` varchar(255) not null, `body` text not null, `from_at` bigint not null, `by` varchar(255) not null, `at` bigint not null, `called_back_at` bigint, `called_back_by` varchar(255), `mailed_at` bigint, foreign key(`administration_id`) references `administration`(`id`), foreign key(`paper_id`) references `paper`(`id`), primary key (`id`));
CREATE TABLE `release_read` (`release_id` varchar(255) not null, `sitting_id` varchar(255) not null, `at` bigint not null, foreign key(`release_id`) references `release`(`id`), foreign key(`sitting_id`) references `sitting`(`id`), primary key (`release_id`, `sitting_id`));
CREATE TABLE `release_staff_read` (`release_id` varchar(255) not null, `staff_id` varchar(255) not null, `at` bigint not null, foreign key(`release_id`) references `release`(`id`), foreign key(`staff_id`) references `staff`(`id`), primary key (`release_id`, `staff_id`));
CREATE TABLE `room` (`id` varchar(255), `site_id` varchar(255) not null, `name` varchar(255) not null, `seat_rows` integer not null, `seats_per_row` integer not null, `plan` text not null default '{"outOfUse":[],"apart":[]}', `revision` integer not null default '1', foreign key(`site_id`) references `site`(`id`), primary key (`id`));
INSERT INTO "room" VALUES('chart','quayside','Chart Room',20,10,'{"outOfUse":[],"apart":[]}',1);
CREATE TABLE `roster` (`session_id` varchar(255) not null, `sitting_id` varchar(255) not null, `seat` varchar(255), `outcome` varchar(255), foreign key(`session_id`) references `session`(`id`), foreign key(`sitting_id`) references `sitting`(`id`), primary key (`session_id`, `sitting_id`));
INSERT INTO "roster" VALUES('s1','sit0','A1',NULL);
INSERT INTO "roster" VALUES('s1','sit1','A2',NULL);
INSERT INTO "roster" VALUES('s1','sit2','A3',NULL);
CREATE TABLE `rule_sheet` (`id` varchar(255), `name` varchar(255) not null, `note` varchar(255) not null default '', `rules` text not null, `revision` integer not null default '1', `withdrawn_at` bigint, `site_id` varchar(255), primary key (`id`));
CREATE TABLE `run_score` (`run_id` varchar(255) not null, `sitting_id` varchar(255) not null, `points` float not null, `out_of` float not null, `marks` text not null, foreign key(`run_id`) references `marking_run`(`id`), foreign key(`sitting_id`) references `sitting`(`id`), primary key (`run_id`, `sitting_id`));
CREATE TABLE `session` (`id` varchar(255), `administration_id` varchar(255) not null, `room_id` varchar(255) not null, `paper_id` varchar(255) not null, `name` varchar(255) not null, `kind` varchar(255) not null, `opens` bigint not null, `closes` bigint, `rules` text not null, `door_code` varchar(255), `code_dies_at` bigint, `code_hidden` boolean not null default '1', `room_started_at` bigint, `entry_closed_at` bigint, `ended_at` bigint, `ended_by` varchar(255), `revision` integer not null default '1', `rule_sheet_id` varchar(255), `turning_key` varchar(255), `opened_early_at` bigint, `door_code_mark` varchar(255), `time_called_at` bigint, foreign key(`administration_id`) references `administration`(`id`), foreign key(`room_id`) references `room`(`id`), foreign key(`paper_id`) references `paper`(`id`), primary key (`id`));
INSERT INTO "session" VALUES('s1','winter','chart','numbers','Numbers · Watch A','live',1796720400000,1796724900000,'{"timing":{"limitMinutes":60,"questionSeconds":null,"endedBy":"clock","clockStarts":"candidate","clockStops":"hold","atClose":"finish","doorOpensMinutes":15,"lastEntryMinutes":15,"graceMinutes":1,"atTimeUp":"hand_in","warnAtMinutes":[10,5,1],"maxLimitMinutes":450},"door":{"code":"fixed","turnsEveryMinutes":5,"slips":false,"identity":"number_and_family","checklist":"offered","networks":[],"shownDaysBefore":null,"photoOnPaper":false},"admission":"proctor","elsewhere":{"admission":"proctor","anyNetwork":true,"snapshotSeconds":null},"startWord":null,"finishWord":null,"comingBack":"free","pauses":{"most":0,"minutes":5,"stopsClock":false},"lockdown":{"level":"open","leavingsAllowed":3,"onLeaving":"warn","clientVersion":"1.0","sites":[],"printing":false,"tablets":true,"alsoForReview":true,"snapshotSeconds":null,"snapshotDays":30},"movement":{"shown":"one","perPage":5,"goingBack":true,"answerToGoOn":false,"answerAll":false},"order":{"questionsInOwnOrder":true,"choicesInOwnOrder":true,"forms":"dealt"},"tools":{"calculator":"none","notes":true,"marking":true,"hints":false,"striking":true,"readAloud":true},"attempts":{"most":1,"counts":"highest","waitMinutes":0,"laterWaitMinutes":0,"startsFromLast":false},"review":{"shows":"nothing","when":"all_finished"},"pace":{"watched":true,"holds":false},"result":{"passPercent":null,"bands":[],"creditPercent":80},"marking":{"wrong":"free","points":0.25,"earlyMinutes":null,"earlyPoints":1}}','sealed:3YdSMhK62D9EtEf1mp5MtiAVwnsZ4RFwgcLqdp50BvB5S50',1796774400000,1,NULL,NULL,NULL,NULL,1,NULL,NULL,NULL,'L3ED1H5AqbPKcc6jb5WsmJjCcKTbM0pQZjycJDl3VPI',NULL);
CREATE TABLE `session_draft` (`id` varchar(255), `staff_id` varchar(255) not null, `input` text not null, `title` varchar(255) not null, `saved_at` bigint not null, `revision` integer not null default '1', foreign key(`staff_id`) references `staff`(`id`), primary key (`id`));
CREATE TABLE `session_group` (`session_id` varchar(255) not null, `group_id` varchar(255) not null, foreign key(`session_id`) references `session`(`id`), foreign key(`group_id`) references `candidate_group`(`id`), primary key (`session_id`, `group_id`));
INSERT INTO "session_group" VALUES('s1','watch');
CREATE TABLE `session_proctor` (`session_id` varchar(255) not null, `staff_id` varchar(255) not null, foreign key(`session_id`) references `session`(`id`), foreign key(`staff_id`) references `staff`(`id`), primary key (`session_id`, `staff_id`));
INSERT INTO "session_proctor" VALUES('s1','dunmore');
CREATE TABLE `sign_off` (`id` varchar(255), `administration_id` varchar(255) not null, `site_id` varchar(255) not null, `statement` text not null, `beneath` text not null, `by` varchar(255) not null, `at` bigint not null, `withdrawn_at` bigint, foreign key(`administration_id`) references `administration`(`id`), foreign key(`site_id`) references `site`(`id`), primary key (`id`));
CREATE TABLE `site` (`id` varchar(255), `name` varchar(255) not null, `zone` varchar(255) not null, `opens_daily` varchar(255), `closes_daily` varchar(255), primary key (`id`));
INSERT INTO "site" VALUES('quayside','Quayside','Europe/London',NULL,NULL);
CREATE TABLE `site_key` (`id` varchar(255), `site_id` varchar(255) not null, `secret` varchar(255) not null, `made_at` bigint not null, `withdrawn_at` bigint, foreign key(`site_id`) references `site`(`id`), primary key (`id`));
CREATE TABLE "sitting" (`id` varchar(255), `candidate_id` varchar(255) NOT NULL, `administration_id` varchar(255) NOT NULL, `paper_id` varchar(255) NOT NULL, `session_id` varchar(255) NOT NULL, `attempt` integer NOT NULL DEFAULT '1', `counts` boolean NOT NULL DEFAULT '1', `fold` text NOT NULL, `state` varchar(255) NOT NULL, `device_epoch` integer, `deadline` bigint, `answers_until` bigint, `due_at` bigint, `forward_by` integer, `next_attempt_id` varchar(255), `clock_waits` boolean not null default '0', `client_site` varchar(255), `client_least` varchar(255), `paper_view` varchar(255), `question_until` bigint, FOREIGN KEY (`candidate_id`) REFERENCES `candidate` (`id`), FOREIGN KEY (`administration_id`) REFERENCES `administration` (`id`), FOREIGN KEY (`paper_id`) REFERENCES `paper` (`id`), FOREIGN KEY (`session_id`) REFERENCES `session` (`id`), PRIMARY KEY (`id`), FOREIGN KEY (`next_attempt_id`) REFERENCES `sitting` (`id`));
INSERT INTO "sitting" VALUES('sit0','can0','winter','numbers','s1',1,1,'{"id":"sit0","sessionId":"s1","state":"working","heldFrom":null,"heldBy":null,"setAsideFrom":null,"cameFrom":null,"device":{"id":"device0","name":"Laptop","epoch":1},"epoch":1,"otherDevice":null,"noted":[],"beganAt":1796720400000,"clockStartedAt":1796720400000,"stops":[],"visits":[{"sessionId":"s1","from":1796720400000,"to":null,"begunBefore":false,"begunWhenLeaving":false}],"holdKnownAt":null,"line":{"up":true,"since":1796720400000},"since":1796720400000,"reason":null,"ended":null,"allowsFresh":false,"commandIds":["candidate can0 WAMhtaHsm5vp_lGdJ_uQr","proctor dunmore UPU8eBHpt3lTq3kV5kQND","candidate can0 7SR4WDoHASdY6UG8AezF_","FVELNlgz4yIF-jx78jIIQ"],"arrivedAt":1796720400000,"before":null}','working',1,1796724300000,1796724360000,1796724360000,NULL,NULL,0,NULL,NULL,NULL,NULL);
INSERT INTO "sitting" VALUES('sit1','can1','winter','numbers','s1',1,1,'{"id":"sit1","sessionId":"s1","state":"at_door","heldFrom":null,"heldBy":null,"setAsideFrom":null,"cameFrom":null,"device":null,"epoch":1,"otherDevice":null,"noted":[],"beganAt":1796720400000,"clockStartedAt":1796720400000,"stops":[{"from":1796720400000,"to":null,"why":"moved"}],"visits":[{"sessionId":"s1","from":1796720400000,"to":null,"begunBefore":false,"begunWhenLeaving":false}],"holdKnownAt":null,"line":null,"since":1796720400000,"reason":null,"ended":null,"allowsFresh":false,"commandIds":["candidate can1 qKlhXk0z8feZAFbkTqi97","proctor dunmore 9T5m-TEPc_ICoqPkx_3-u","candidate can1 HuNkk1wn9lXeh6ECL0ZyI","0pTH0fqF5r45g20RnjOEn","proctor dunmore qkmLSaFvs8nfx9HPklyAa"],"arrivedAt":1796720400000,"before":null}','at_door',NULL,NULL,0,NULL,NULL,NULL,0,NULL,NULL,NULL,NULL);
INSERT INTO "sitting" VALUES('sit2','can2','winter','numbers','s1',1,1,'{"id":"sit2","sessionId":"s1","state":"expected","heldFrom":null,"heldBy":null,"setAsideFrom":null,"cameFrom":null,"device":null,"epoch":0,"otherDevice":null,"noted":[],"beganAt":null,"clockStartedAt":null,"stops":[],"visits":[{"sessionId":"s1","from":1796720400000,"to":null,"begunBefore":false,"begunWhenLeaving":false}],"holdKnownAt":null,"line":null,"since":1796720400000,"reason":null,"ended":null,"allowsFresh":false,"commandIds":[]}','expected',NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,NULL,NULL,NULL);
CREATE TABLE `sitting_file` (`id` varchar(255), `sitting_id` varchar(255) not null, `question_id` varchar(255) not null, `name` varchar(255) not null, `type` varchar(255) not null, `bytes` integer not null, `sha256` varchar(255) not null, `at` bigint not null, `by_code` boolean not null default '0', foreign key(`sitting_id`) references `sitting`(`id`), primary key (`id`));
CREATE TABLE `sitting_play` (`sitting_id` varchar(255) not null, `of` varchar(255) not null, `place` integer not null, `times` integer not null, foreign key(`sitting_id`) references `sitting`(`id`), primary key (`sitting_id`, `of`, `place`));
CREATE TABLE `slip` (`sitting_id` varchar(255), `code` varchar(255) not null, `code_mark` varchar(255), foreign key(`sitting_id`) references `sitting`(`id`), primary key (`sitting_id`));
CREATE TABLE `snapshot` (`id` varchar(255), `sitting_id` varchar(255) not null, `at` bigint not null, `bytes` integer not null, `keep_until` bigint not null, `deleted_at` bigint, foreign key(`sitting_id`) references `sitting`(`id`), primary key (`id`));
CREATE TABLE `staff` (`id` varchar(255), `sign_in` varchar(255) not null, `name` varchar(255) not null, `password_hash` varchar(255) not null, `email` varchar(255), `must_change` boolean not null default '0', `totp_secret` text, `totp_pending` text, `totp_used` integer, `oidc_subject` varchar(255), primary key (`id`));
INSERT INTO "staff" VALUES('ode','ode','Maren Ode','-',NULL,0,NULL,NULL,NULL,NULL);
INSERT INTO "staff" VALUES('dunmore','dunmore','Rhys Dunmore','-',NULL,0,NULL,NULL,NULL,NULL);
CREATE TABLE `staff_role` (`staff_id` varchar(255) not null, `role` varchar(255) not null, `site_id` varchar(255), foreign key(`staff_id`) references `staff`(`id`), foreign key(`site_id`) references `site`(`id`));
CREATE TABLE `staff_session` (`token_hash` varchar(255), `staff_id` varchar(255) not null, `expires_at` bigint not null, `id` varchar(255) not null default '', `made_at` bigint not null default '0', `seen_at` bigint not null default '0', `confirmed_at` bigint not null default '0', `address` varchar(255) not null default '', `browser` varchar(255) not null default '', `awaits` varchar(255), foreign key(`staff_id`) references `staff`(`id`), primary key (`token_hash`));
CREATE TABLE `step` (`id` varchar(255), `administration_id` varchar(255) not null, `place` integer not null, `title` varchar(255) not null, `paper_title` varchar(255), `after_id` varchar(255), `least_percent` integer, foreign key(`administration_id`) references `administration`(`id`), primary key (`id`));
CREATE TABLE `step_done` (`step_id` varchar(255) not null, `candidate_id` varchar(255) not null, `at` bigint not null, `by` varchar(255) not null, `waived_why` varchar(255), foreign key(`step_id`) references `step`(`id`), foreign key(`candidate_id`) references `candidate`(`id`), primary key (`step_id`, `candidate_id`));
CREATE TABLE `technical_done` (`site_id` varchar(255) not null, `session_id` varchar(255) not null, `task` varchar(255) not null, `at` bigint not null, `by` varchar(255) not null, `note` varchar(255) not null default '', foreign key(`site_id`) references `site`(`id`), foreign key(`session_id`) references `session`(`id`), primary key (`session_id`, `task`));
CREATE TABLE `validity` (`id` varchar(255), `sitting_id` varchar(255) not null, `verdict` varchar(255) not null, `proposed` text not null, `note` varchar(255) not null, `by` varchar(255) not null, `at` bigint not null, `withdrawn_at` bigint, foreign key(`sitting_id`) references `sitting`(`id`), primary key (`id`));
CREATE TABLE `waiver` (`id` varchar(255), `sitting_id` varchar(255) not null, `reason` varchar(255) not null, `by` varchar(255) not null, `at` bigint not null, `withdrawn_at` bigint, foreign key(`sitting_id`) references `sitting`(`id`), primary key (`id`));
CREATE UNIQUE INDEX `candidate_number_unique` on `candidate` (`number`);
CREATE UNIQUE INDEX `candidate_number_folded_unique` on `candidate` (`number_folded`);
CREATE INDEX `candidate_group_id_index` on `candidate` (`group_id`);
CREATE UNIQUE INDEX `paper_title_version_unique` on `paper` (`title`, `version`);
CREATE UNIQUE INDEX `staff_sign_in_unique` on `staff` (`sign_in`);
CREATE INDEX `session_opens_index` on `session` (`opens`);
CREATE INDEX `session_door_code_index` on `session` (`door_code`);
CREATE INDEX `roster_sitting_id_index` on `roster` (`sitting_id`);
CREATE INDEX `device_sitting_id_index` on `device` (`sitting_id`);
CREATE INDEX `grant_given_candidate_id_index` on `grant_given` (`candidate_id`);
CREATE INDEX `grant_given_scope_id_index` on `grant_given` (`scope_id`);
CREATE INDEX `grant_given_kind_index` on `grant_given` (`kind`);
CREATE INDEX `logbook_session_id_index` on `logbook` (`session_id`);
CREATE INDEX `logbook_sitting_id_index` on `logbook` (`sitting_id`);
CREATE TRIGGER logbook_no_delete BEFORE DELETE ON logbook
			 BEGIN SELECT RAISE(ABORT, 'logbook is append-only'); END;
CREATE TRIGGER answer_no_update BEFORE UPDATE ON answer
			 BEGIN SELECT RAISE(ABORT, 'answer is append-only'); END;
CREATE INDEX `candidate_family_given_number_index` on `candidate` (`family`, `given`, `number`);
CREATE INDEX `candidate_source_id_index` on `candidate` (`source_id`);
CREATE INDEX `group_member_candidate_id_index` on `group_member` (`candidate_id`);
CREATE TRIGGER candidate_home_insert AFTER INSERT ON candidate
			 BEGIN INSERT OR IGNORE INTO group_member (group_id, candidate_id) VALUES (new.group_id, new.id); END;
CREATE TRIGGER candidate_home_update AFTER UPDATE OF group_id ON candidate
			 BEGIN INSERT OR IGNORE INTO group_member (group_id, candidate_id) VALUES (new.group_id, new.id); END;
CREATE INDEX `commitment_candidate_id_from_at_index` on `commitment` (`candidate_id`, `from_at`);
CREATE UNIQUE INDEX `network_site_id_name_unique` on `network` (`site_id`, `name`);
CREATE UNIQUE INDEX `entitlement_administration_id_site_id_unique` on `entitlement` (`administration_id`, `site_id`);
CREATE UNIQUE INDEX `rule_sheet_name_unique` on `rule_sheet` (`name`);
CREATE UNIQUE INDEX `slip_code_unique` on `slip` (`code`);
CREATE INDEX `mail_made_at_index` on `mail` (`made_at`);
CREATE INDEX `mail_session_id_index` on `mail` (`session_id`);
CREATE INDEX `mail_state_index` on `mail` (`state`);
CREATE INDEX `device_check_candidate_id_index` on `device_check` (`candidate_id`);
CREATE INDEX `device_check_session_id_index` on `device_check` (`session_id`);
CREATE INDEX `lapse_sitting_id_index` on `lapse` (`sitting_id`);
CREATE INDEX `message_sitting_id_at_index` on `message` (`sitting_id`, `at`);
CREATE INDEX `incident_session_id_index` on `incident` (`session_id`);
CREATE INDEX `incident_person_sitting_id_index` on `incident_person` (`sitting_id`);
CREATE INDEX `door_refusal_session_id_index` on `door_refusal` (`session_id`);
CREATE INDEX `snapshot_keep_until_index` on `snapshot` (`keep_until`);
CREATE INDEX `snapshot_sitting_id_at_index` on `snapshot` (`sitting_id`, `at`);
CREATE INDEX `sitting_session_id_index` on `sitting` (`session_id`);
CREATE INDEX `sitting_state_index` on `sitting` (`state`);
CREATE INDEX `sitting_due_at_index` on `sitting` (`due_at`);
CREATE UNIQUE INDEX `sitting_candidate_id_paper_id_administration_id_counts_attempt_unique` on `sitting` (`candidate_id`, `paper_id`, `administration_id`, `counts`, `attempt`);
CREATE INDEX `command_answer_at_index` on `command_answer` (`at`);
CREATE INDEX answer_late ON answer_standing (sitting_id) WHERE late = 1;
CREATE INDEX `session_door_code_mark_index` on `session` (`door_code_mark`);
CREATE INDEX `answer_group_seq_index` on `answer` (`group_seq`);
CREATE TRIGGER answer_group_no_delete BEFORE DELETE ON answer_group
			 BEGIN SELECT RAISE(ABORT, 'answer_group is append-only'); END;
CREATE UNIQUE INDEX slip_code_mark ON slip (code_mark);
CREATE UNIQUE INDEX `staff_oidc_subject_unique` on `staff` (`oidc_subject`);
CREATE INDEX `passkey_staff_id_index` on `passkey` (`staff_id`);
CREATE INDEX `password_link_staff_id_index` on `password_link` (`staff_id`);
CREATE INDEX `client_device_site_id_index` on `client_device` (`site_id`);
CREATE INDEX `paper_draft_site_id_index` on `paper_draft` (`site_id`);
CREATE INDEX `question_site_id_index` on `question` (`site_id`);
CREATE INDEX `question_topic_index` on `question` (`topic`);
CREATE INDEX `question_changed_at_index` on `question` (`changed_at`);
CREATE INDEX `question_remark_question_id_index` on `question_remark` (`question_id`);
CREATE INDEX `question_use_paper_id_index` on `question_use` (`paper_id`);
CREATE INDEX `sitting_file_sitting_id_index` on `sitting_file` (`sitting_id`);
CREATE INDEX `grant_given_room_id_index` on `grant_given` (`room_id`);
CREATE INDEX `grant_given_proctor_id_index` on `grant_given` (`proctor_id`);
CREATE INDEX `grant_given_batch_index` on `grant_given` (`batch`);
CREATE INDEX `evidence_keep_until_index` on `evidence` (`keep_until`);
CREATE INDEX `waiver_sitting_id_index` on `waiver` (`sitting_id`);
CREATE INDEX `grant_request_candidate_id_index` on `grant_request` (`candidate_id`);
CREATE INDEX `grant_request_state_index` on `grant_request` (`state`);
CREATE INDEX `hand_mark_sitting_id_index` on `hand_mark` (`sitting_id`);
CREATE INDEX `hand_mark_marker_index` on `hand_mark` (`marker`);
CREATE INDEX `correction_administration_id_index` on `correction` (`administration_id`);
CREATE UNIQUE INDEX `correction_administration_id_place_unique` on `correction` (`administration_id`, `place`);
CREATE INDEX `marking_run_administration_id_index` on `marking_run` (`administration_id`);
CREATE INDEX `incident_decision_incident_id_index` on `incident_decision` (`incident_id`);
CREATE INDEX `incident_decision_sitting_id_index` on `incident_decision` (`sitting_id`);
CREATE INDEX `validity_sitting_id_index` on `validity` (`sitting_id`);
CREATE INDEX `alike_decision_session_id_index` on `alike_decision` (`session_id`);
CREATE INDEX `sign_off_administration_id_index` on `sign_off` (`administration_id`);
CREATE INDEX `addendum_administration_id_index` on `addendum` (`administration_id`);
CREATE INDEX `release_administration_id_index` on `release` (`administration_id`);
CREATE INDEX `question_figure_question_id_index` on `question_figure` (`question_id`);
CREATE TRIGGER session_closed_insert BEFORE INSERT ON session WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER session_closed_update BEFORE UPDATE ON session WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER session_closed_delete BEFORE DELETE ON session WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER session_proctor_closed_insert BEFORE INSERT ON session_proctor WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = new.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER session_proctor_closed_update BEFORE UPDATE ON session_proctor WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = old.session_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = new.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER session_proctor_closed_delete BEFORE DELETE ON session_proctor WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = old.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER session_group_closed_insert BEFORE INSERT ON session_group WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = new.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER session_group_closed_update BEFORE UPDATE ON session_group WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = old.session_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = new.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER session_group_closed_delete BEFORE DELETE ON session_group WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = old.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER roster_closed_insert BEFORE INSERT ON roster WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = new.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER roster_closed_update BEFORE UPDATE ON roster WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = old.session_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = new.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER roster_closed_delete BEFORE DELETE ON roster WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = old.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER sitting_closed_insert BEFORE INSERT ON sitting WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER sitting_closed_update BEFORE UPDATE ON sitting WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER sitting_closed_delete BEFORE DELETE ON sitting WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER form_closed_insert BEFORE INSERT ON form WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER form_closed_update BEFORE UPDATE ON form WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER form_closed_delete BEFORE DELETE ON form WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER answer_closed_insert BEFORE INSERT ON answer WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER answer_closed_update BEFORE UPDATE ON answer WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER answer_standing_closed_insert BEFORE INSERT ON answer_standing WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER answer_standing_closed_update BEFORE UPDATE ON answer_standing WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER progress_closed_insert BEFORE INSERT ON progress WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER progress_closed_update BEFORE UPDATE ON progress WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER progress_closed_delete BEFORE DELETE ON progress WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER sitting_play_closed_insert BEFORE INSERT ON sitting_play WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER sitting_play_closed_update BEFORE UPDATE ON sitting_play WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER lapse_closed_insert BEFORE INSERT ON lapse WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER lapse_closed_update BEFORE UPDATE ON lapse WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER message_closed_insert BEFORE INSERT ON message WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = new.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER message_closed_update BEFORE UPDATE ON message WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = old.session_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = new.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER incident_closed_insert BEFORE INSERT ON incident WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = new.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER incident_closed_update BEFORE UPDATE ON incident WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = old.session_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = new.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER incident_person_closed_insert BEFORE INSERT ON incident_person WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT session.administration_id FROM incident JOIN session ON session.id = incident.session_id WHERE incident.id = new.incident_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER incident_person_closed_update BEFORE UPDATE ON incident_person WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT session.administration_id FROM incident JOIN session ON session.id = incident.session_id WHERE incident.id = old.incident_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT session.administration_id FROM incident JOIN session ON session.id = incident.session_id WHERE incident.id = new.incident_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER incident_decision_closed_insert BEFORE INSERT ON incident_decision WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT session.administration_id FROM incident JOIN session ON session.id = incident.session_id WHERE incident.id = new.incident_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER incident_decision_closed_update BEFORE UPDATE ON incident_decision WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT session.administration_id FROM incident JOIN session ON session.id = incident.session_id WHERE incident.id = old.incident_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT session.administration_id FROM incident JOIN session ON session.id = incident.session_id WHERE incident.id = new.incident_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER waiver_closed_insert BEFORE INSERT ON waiver WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER waiver_closed_update BEFORE UPDATE ON waiver WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER waiver_closed_delete BEFORE DELETE ON waiver WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER hand_plan_closed_insert BEFORE INSERT ON hand_plan WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER hand_plan_closed_update BEFORE UPDATE ON hand_plan WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER hand_plan_closed_delete BEFORE DELETE ON hand_plan WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER hand_mark_closed_insert BEFORE INSERT ON hand_mark WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER hand_mark_closed_update BEFORE UPDATE ON hand_mark WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER correction_closed_insert BEFORE INSERT ON correction WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER correction_closed_update BEFORE UPDATE ON correction WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER correction_closed_delete BEFORE DELETE ON correction WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER marking_run_closed_insert BEFORE INSERT ON marking_run WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER marking_run_closed_update BEFORE UPDATE ON marking_run WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER marking_run_closed_delete BEFORE DELETE ON marking_run WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER run_score_closed_insert BEFORE INSERT ON run_score WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER run_score_closed_update BEFORE UPDATE ON run_score WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER validity_closed_insert BEFORE INSERT ON validity WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER validity_closed_update BEFORE UPDATE ON validity WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER alike_decision_closed_insert BEFORE INSERT ON alike_decision WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = new.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER alike_decision_closed_update BEFORE UPDATE ON alike_decision WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = old.session_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = new.session_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER sign_off_closed_insert BEFORE INSERT ON sign_off WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER sign_off_closed_update BEFORE UPDATE ON sign_off WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER sign_off_closed_delete BEFORE DELETE ON sign_off WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER closing_wish_closed_insert BEFORE INSERT ON closing_wish WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER closing_wish_closed_update BEFORE UPDATE ON closing_wish WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER closing_wish_closed_delete BEFORE DELETE ON closing_wish WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER paper_allowed_closed_insert BEFORE INSERT ON paper_allowed WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER paper_allowed_closed_update BEFORE UPDATE ON paper_allowed WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER paper_allowed_closed_delete BEFORE DELETE ON paper_allowed WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER entitlement_closed_insert BEFORE INSERT ON entitlement WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER entitlement_closed_update BEFORE UPDATE ON entitlement WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER entitlement_closed_delete BEFORE DELETE ON entitlement WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER closing_closed_insert BEFORE INSERT ON closing WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER closing_closed_update BEFORE UPDATE ON closing WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER closing_closed_delete BEFORE DELETE ON closing WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER grant_given_closed_insert BEFORE INSERT ON grant_given WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (CASE new.scope_kind WHEN 'administration' THEN new.scope_id
		 WHEN 'session' THEN (SELECT administration_id FROM session WHERE id = new.scope_id) END))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER grant_given_closed_update BEFORE UPDATE ON grant_given WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (CASE old.scope_kind WHEN 'administration' THEN old.scope_id
		 WHEN 'session' THEN (SELECT administration_id FROM session WHERE id = old.scope_id) END)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (CASE new.scope_kind WHEN 'administration' THEN new.scope_id
		 WHEN 'session' THEN (SELECT administration_id FROM session WHERE id = new.scope_id) END))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER grant_given_closed_delete BEFORE DELETE ON grant_given WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (CASE old.scope_kind WHEN 'administration' THEN old.scope_id
		 WHEN 'session' THEN (SELECT administration_id FROM session WHERE id = old.scope_id) END))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER sitting_file_closed_insert BEFORE INSERT ON sitting_file
		 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
		 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER administration_closed_update BEFORE UPDATE ON administration
		 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = old.id)
		 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE INDEX `contact_administration_id_index` on `contact` (`administration_id`);
CREATE INDEX `step_administration_id_index` on `step` (`administration_id`);
CREATE INDEX `step_done_candidate_id_index` on `step_done` (`candidate_id`);
CREATE TRIGGER contact_closed_insert BEFORE INSERT ON contact WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER contact_closed_update BEFORE UPDATE ON contact WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER contact_closed_delete BEFORE DELETE ON contact WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER step_closed_insert BEFORE INSERT ON step WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER step_closed_update BEFORE UPDATE ON step WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (new.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER step_closed_delete BEFORE DELETE ON step WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER step_done_closed_insert BEFORE INSERT ON step_done WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM step WHERE id = new.step_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER step_done_closed_update BEFORE UPDATE ON step_done WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM step WHERE id = old.step_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM step WHERE id = new.step_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER step_done_closed_delete BEFORE DELETE ON step_done WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM step WHERE id = old.step_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE INDEX answer_held_back ON answer (sitting_id) WHERE kept_because IN ('after_end', 'freed_device', 'on_hold', 'question_over');
CREATE TRIGGER question_shown_closed_insert BEFORE INSERT ON question_shown WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER question_shown_closed_update BEFORE UPDATE ON question_shown WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id)) OR EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = new.sitting_id))
				 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE INDEX logbook_of_none ON logbook (at) WHERE emptied IS NULL AND session_id IS NULL AND sitting_id IS NULL;
CREATE TRIGGER logbook_no_update BEFORE UPDATE ON logbook WHEN NOT (old.emptied IS NULL AND new.emptied IS NOT NULL AND new.body = '{}' AND new.seq IS old.seq AND new.at IS old.at AND new.actor_role IS old.actor_role AND new.actor_id IS old.actor_id AND new.kind IS old.kind AND new.session_id IS old.session_id AND new.sitting_id IS old.sitting_id AND new.before IS old.before AND new.hash IS old.hash)
			 BEGIN SELECT RAISE(ABORT, 'logbook is append-only'); END;
CREATE TRIGGER answer_group_no_update BEFORE UPDATE ON answer_group WHEN NOT (old.emptied IS NULL AND new.emptied IS NOT NULL AND new.seq IS old.seq AND new.at IS old.at AND new.answers IS old.answers AND new.digest IS old.digest AND new.before IS old.before AND new.hash IS old.hash)
			 BEGIN SELECT RAISE(ABORT, 'answer_group is append-only'); END;
CREATE TRIGGER answer_no_delete BEFORE DELETE ON answer
		 WHEN NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers'
		   AND administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
		 BEGIN SELECT RAISE(ABORT, 'answer is append-only'); END;
CREATE TRIGGER answer_standing_closed_delete BEFORE DELETE ON answer_standing
			 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
			  AND NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers' AND administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
			 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER answer_closed_delete BEFORE DELETE ON answer
			 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
			  AND NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers' AND administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
			 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER run_score_closed_delete BEFORE DELETE ON run_score
			 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
			  AND NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers' AND administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
			 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER question_shown_closed_delete BEFORE DELETE ON question_shown
			 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
			  AND NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers' AND administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
			 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER sitting_play_closed_delete BEFORE DELETE ON sitting_play
			 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
			  AND NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers' AND administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
			 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER lapse_closed_delete BEFORE DELETE ON lapse
			 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
			  AND NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers' AND administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
			 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER validity_closed_delete BEFORE DELETE ON validity
			 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
			  AND NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers' AND administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
			 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER incident_person_closed_delete BEFORE DELETE ON incident_person
			 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT session.administration_id FROM incident JOIN session ON session.id = incident.session_id WHERE incident.id = old.incident_id))
			  AND NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers' AND administration_id = (SELECT session.administration_id FROM incident JOIN session ON session.id = incident.session_id WHERE incident.id = old.incident_id))
			 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER incident_decision_closed_delete BEFORE DELETE ON incident_decision
			 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT session.administration_id FROM incident JOIN session ON session.id = incident.session_id WHERE incident.id = old.incident_id))
			  AND NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers' AND administration_id = (SELECT session.administration_id FROM incident JOIN session ON session.id = incident.session_id WHERE incident.id = old.incident_id))
			 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER incident_closed_delete BEFORE DELETE ON incident
			 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = old.session_id))
			  AND NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers' AND administration_id = (SELECT administration_id FROM session WHERE id = old.session_id))
			 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER message_closed_delete BEFORE DELETE ON message
			 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = old.session_id))
			  AND NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers' AND administration_id = (SELECT administration_id FROM session WHERE id = old.session_id))
			 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER alike_decision_closed_delete BEFORE DELETE ON alike_decision
			 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (SELECT administration_id FROM session WHERE id = old.session_id))
			  AND NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers' AND administration_id = (SELECT administration_id FROM session WHERE id = old.session_id))
			 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER hand_mark_closed_delete BEFORE DELETE ON hand_mark
			 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (old.administration_id))
			  AND NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers' AND administration_id = (old.administration_id))
			 BEGIN SELECT RAISE(ABORT, 'this administration is closed'); END;
CREATE TRIGGER emptied_insert BEFORE INSERT ON emptied
		 WHEN NOT EXISTS (SELECT 1 FROM closing WHERE administration_id = new.administration_id)
		 BEGIN SELECT RAISE(ABORT, 'only a closed administration is emptied'); END;
CREATE TRIGGER emptied_delete BEFORE DELETE ON emptied
		 BEGIN SELECT RAISE(ABORT, 'what was emptied stays so'); END;
CREATE INDEX `sitting_administration_id_paper_id_index` on `sitting` (`administration_id`, `paper_id`);
CREATE INDEX `sitting_paper_id_index` on `sitting` (`paper_id`);
CREATE INDEX `session_administration_id_index` on `session` (`administration_id`);
CREATE INDEX `session_closes_index` on `session` (`closes`);
CREATE INDEX session_open ON session (opens) WHERE ended_at IS NULL;
CREATE INDEX session_turning ON session (opens) WHERE turning_key IS NOT NULL AND door_code IS NOT NULL;
CREATE INDEX grant_given_beside ON grant_given (scope_id, proctor_id) WHERE proctor_id IS NOT NULL AND withdrawn_at IS NULL;
DELETE FROM "sqlite_sequence";
INSERT INTO "sqlite_sequence" VALUES('knex_migrations_lock',1);
INSERT INTO "sqlite_sequence" VALUES('knex_migrations',22);
INSERT INTO "sqlite_sequence" VALUES('paper_allowed',1);
COMMIT;
