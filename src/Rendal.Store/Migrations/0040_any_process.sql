-- What lived in the memory of one process, so that any number of them serve the same people.

-- The keys by which the first person says who they are, one of each process that was started.
create table first_run (key_hash bytea primary key);

-- Whether customers are carried down over the rows below them, as the file of an intake was understood when it was looked at last.
alter table intake add carries_down boolean not null default false;
