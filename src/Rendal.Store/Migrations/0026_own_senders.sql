-- A sender may be one person's own; nobody else sends under it.
alter table sender add person_id bigint references person;
