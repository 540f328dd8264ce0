-- A ledger that is put right takes the place of the one before it, in the rounds of which nothing was released as well.
alter table round_change drop constraint round_change_about_check;
alter table round_change add check (about in ('settings', 'customer', 'parcel', 'item', 'release', 'stop', 'ledger'));
