-- Null where it depends on the kind of round who of the contacts is written to.
update customer set reachable = null where jsonb_path_exists(contacts, '$[*].rounds[*]');
