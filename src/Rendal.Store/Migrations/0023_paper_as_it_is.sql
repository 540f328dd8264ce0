-- A PDF is packed already; to try to make it smaller takes longer than to write it down.
alter table paper alter bytes set storage external;
