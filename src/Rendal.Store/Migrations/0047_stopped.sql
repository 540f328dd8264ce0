-- A round that is stopped before anything of it has left can be changed again, which others are told.
alter table round_change drop constraint round_change_about_check;
alter table round_change add check (about in ('settings', 'customer', 'item', 'release', 'stop'));
