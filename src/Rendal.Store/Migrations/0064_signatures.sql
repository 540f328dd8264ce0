-- What stands under messages: the signature of the sender and that of the person who prepared the round, a line each; and the foot of the
-- book, which stands under every message.
alter table sender add signature text not null default '';
alter table person add signature text not null default '';
alter table book add foot_lines text[] not null default '{}';
