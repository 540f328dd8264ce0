-- A layout that was taken away is offered no more; what was made up with it keeps its version.
alter table layout add away boolean not null default false;
