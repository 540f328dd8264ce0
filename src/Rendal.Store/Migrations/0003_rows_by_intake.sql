-- The rows of each intake stand in a partition of their own. It is filled before it has an index and given one in a single
-- sort, and nothing that was kept before is touched. The columns without a meaning stand as a list, in the order of
-- their headings, which the intake holds once.
alter table intake add extra_headings text[] not null default '{}';

alter table ledger_row rename to ledger_row_before;
alter index ledger_row_pkey rename to ledger_row_before_pkey;

create table ledger_row (
    book_id bigint not null,
    intake_id bigint not null,
    row int not null check (row > 0),
    customer text not null check (customer <> ''),
    customer_name text not null,
    kind smallint not null check (kind between 0 and 4),
    number text not null,
    date date,
    due date not null,
    currency char(3) not null,
    original numeric not null,
    open numeric not null,
    reference text not null,
    held text not null,
    unit text not null,
    email text not null,
    extra text[] not null,
    primary key (book_id, intake_id, row)
) partition by list (intake_id);

-- The table for the rows of an intake, to be filled within the transaction that keeps it.
create function make_ledger_rows(intake bigint) returns void language plpgsql as $$
begin
    execute format('create table %I (like ledger_row including constraints, check (intake_id = %s))', 'ledger_row_' || intake, intake);
end $$;

-- Once it is filled: the key, and its place in the ledger. The check on intake_id saves going through it again.
create function place_ledger_rows(intake bigint) returns void language plpgsql as $$
begin
    execute format('alter table %I add primary key (book_id, intake_id, row)', 'ledger_row_' || intake);
    execute format('alter table ledger_row attach partition %I for values in (%s)', 'ledger_row_' || intake, intake);
end $$;

update intake i set extra_headings = (select coalesce(array_agg(distinct heading order by heading), '{}') from ledger_row_before r, jsonb_object_keys(r.extra) heading where r.book_id = i.book_id and r.intake_id = i.id);

do $$
declare
    intake record;
begin
    for intake in select distinct i.book_id, i.id, i.extra_headings from intake i join ledger_row_before r on r.book_id = i.book_id and r.intake_id = i.id loop
        perform make_ledger_rows(intake.id);
        execute format(
            'insert into %I select book_id, intake_id, row, customer, customer_name, kind, number, date, due, currency, original, open, reference, held, unit, email,
                array(select coalesce(r.extra ->> h.heading, '''') from unnest($1) with ordinality h(heading, at) order by h.at)
             from ledger_row_before r where r.book_id = $2 and r.intake_id = $3 order by row',
            'ledger_row_' || intake.id) using intake.extra_headings, intake.book_id, intake.id;
        perform place_ledger_rows(intake.id);
    end loop;
end $$;

drop table ledger_row_before;

-- Parts of eight kilobytes lie in the table as they are; larger ones would be cut in four and looked up in pieces.
create table stored_file_piece (
    book_id bigint not null,
    file_id bigint not null,
    piece int not null check (piece >= 0),
    bytes bytea not null check (length(bytes) between 1 and 8000),
    primary key (book_id, file_id, piece),
    foreign key (book_id, file_id) references stored_file on delete cascade
);
alter table stored_file_piece alter column bytes set storage plain;
insert into stored_file_piece
    select f.book_id, f.file_id, piece, substring(f.bytes from piece * 8000 + 1 for 8000)
    from (select book_id, file_id, string_agg(bytes, ''::bytea order by part) bytes from stored_file_part group by book_id, file_id) f
        cross join generate_series(0, (length(f.bytes) - 1) / 8000) piece;
drop table stored_file_part;
