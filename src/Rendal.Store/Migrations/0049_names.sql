-- Names of the trade, as the glossary has them.
alter table dispatch_try rename to delivery_attempt;
alter index dispatch_try_pkey rename to delivery_attempt_pkey;
alter index dispatch_try_parcel rename to delivery_attempt_parcel;
alter index dispatch_try_time rename to delivery_attempt_time;
alter index dispatch_try_went rename to delivery_attempt_went;
alter index try_search rename to delivery_attempt_search;
alter table paper rename to letter;
alter index paper_pkey rename to letter_pkey;
alter index paper_search rename to letter_search;
alter table layout_use rename to layout_assignment;
alter table wording_use rename to wording_assignment;
alter table layout rename column away to removed;
alter table parcel rename column way to channel;
alter table parcel rename column standing to status;
alter index parcel_standing rename to parcel_status;
alter table sender rename column away_times to unreachable_times;
alter table sender rename column away_since to unreachable_since;
alter table sender rename column away_words to unreachable_words;
alter table sender rename column away_until to unreachable_until;

do $$
declare c record;
begin
    for c in select conrelid::regclass as of_table, conname from pg_constraint
        where connamespace = 'public'::regnamespace and conname ~ '^(dispatch_try|paper|layout_use|wording_use|parcel_way)_' loop
        execute format('alter table %s rename constraint %I to %I', c.of_table, c.conname,
            replace(replace(replace(replace(replace(c.conname, 'dispatch_try', 'delivery_attempt'), 'paper', 'letter'),
                'layout_use', 'layout_assignment'), 'wording_use', 'wording_assignment'), 'parcel_way', 'parcel_channel'));
    end loop;
end $$;
