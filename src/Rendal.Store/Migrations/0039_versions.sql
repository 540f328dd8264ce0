-- What messages and documents are made from is kept by version: each change with who made it and when, each version as it was.
-- A round compares the number of changes with the one that it was prepared at. It is counted, not numbered: of two changes the
-- one that began first may be seen last.
create table content_change (
    book_id bigint not null references book,
    id bigint generated always as identity,
    kind text not null,
    -- Null where no person made it.
    person_id bigint references person,
    changed_at timestamptz not null default now(),
    primary key (book_id, id)
);
create index content_change_person on content_change (person_id);

-- What is decided within a round changes no other round.
create index content_change_of_rounds on content_change (book_id) where kind <> 'decision';

create table changed_content (
    book_id bigint not null,
    change_id bigint not null,
    -- Which of its kind.
    subject text not null,
    -- Null where it was taken away.
    content jsonb,
    primary key (book_id, change_id, subject),
    foreign key (book_id, change_id) references content_change
);

-- Arguments: the kind, the columns that tell which of its kind, and the columns that are no content, separated by commas. Without
-- columns that tell which, the change is noted alone.
create function note_content_change() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
declare
    changed text := case tg_op
        when 'INSERT' then 'select to_jsonb(t) - $3 c from after_it t'
        when 'DELETE' then 'select to_jsonb(t) - $3 c from before_it t'
        else 'select to_jsonb(t) - $3 c from after_it t except select to_jsonb(t) - $3 from before_it t'
    end;
begin
    execute format(
        $sql$
        with changed as materialized (
            select coalesce(c ->> 'book_id', c ->> 'id')::bigint book_id, array_to_string(array(select c ->> k from unnest($2) k), ' ') subject, c from (%s) n
        ), made as (
            insert into content_change (book_id, kind, person_id)
            select distinct book_id, $1, nullif(current_setting('rendal.person', true), '')::bigint from changed returning book_id, id
        )
        insert into changed_content (book_id, change_id, subject, content)
        select m.book_id, m.id, changed.subject, case when $4 then changed.c end from changed join made m using (book_id) where changed.subject <> ''
        $sql$, changed)
        using tg_argv[0], string_to_array(tg_argv[1], ','), string_to_array(tg_argv[2], ','), tg_op <> 'DELETE';
    return null;
end $$;
revoke execute on function note_content_change() from public;

do $$
declare
    noted record;
begin
    for noted in
        select * from (values
            ('book', 'book', 'id', 'made_by'),
            ('wording', 'wording', 'id', 'version,changed_by,changed_at'),
            ('wording_use', 'wording-use', 'purpose,language', ''),
            ('layout_version', 'layout', 'layout_id,version', 'layout'),
            ('layout', 'layout', 'id', ''),
            ('layout_use', 'layout-use', 'purpose,language', ''),
            ('sender', 'sender', 'id', 'password,paused,next_at,away_times,away_since,away_words,away_until'),
            ('customer', 'card', 'key', 'version,search,reachable'),
            ('item_hold', 'hold', 'item,id', ''),
            ('settled_by_hand', 'settlement', 'credit,id', ''),
            ('round_decision', 'decision', 'round_id,customer', ''),
            ('round_item_decision', 'decision', 'round_id,item', ''),
            ('item_reminded', 'reminded', '', ''),
            ('returned_mail', 'returned', '', 'bytes'),
            ('returned_decision', 'returned', '', '')
        ) t (of_table, kind, subjects, aside)
    loop
        execute format('create trigger %I after insert on %I referencing new table as after_it for each statement execute function note_content_change(%L, %L, %L)', noted.of_table || '_added', noted.of_table, noted.kind, noted.subjects, noted.aside);
        execute format('create trigger %I after update on %I referencing old table as before_it new table as after_it for each statement execute function note_content_change(%L, %L, %L)', noted.of_table || '_changed', noted.of_table, noted.kind, noted.subjects, noted.aside);
        execute format('create trigger %I after delete on %I referencing old table as before_it for each statement execute function note_content_change(%L, %L, %L)', noted.of_table || '_removed', noted.of_table, noted.kind, noted.subjects, noted.aside);
    end loop;
end $$;

create trigger change_stays before update or delete on content_change for each row execute function record_stays();
create trigger version_stays before update or delete on changed_content for each row execute function record_stays();

-- What is there now is the first version.
with made as (insert into content_change (book_id, kind) select id, k from book, unnest('{book,wording,sender,card}'::text[]) k returning book_id, id, kind)
insert into changed_content (book_id, change_id, subject, content)
select m.book_id, m.id, f.subject, f.content from made m join (
    select id book_id, 'book' kind, id::text subject, to_jsonb(b) - 'made_by' content from book b
    union all select book_id, 'wording', id::text, to_jsonb(w) - '{version,changed_by,changed_at}'::text[] from wording w
    union all select book_id, 'sender', id::text, to_jsonb(s) - '{password,paused,next_at,away_times,away_since,away_words,away_until}'::text[] from sender s
    union all select book_id, 'card', key, to_jsonb(c) - '{version,search,reachable}'::text[] from customer c
) f using (book_id, kind);

-- The number of changes that a round was prepared at; those prepared before this are prepared anew when they are looked at.
alter table round add prepared_at_change bigint not null default 0;

-- The customers whose parcels fell out of a round because something changed that it uses, until somebody has seen it.
alter table round add fell_out text[] not null default '{}';

-- What a parcel was made from when somebody looked at it last, and which parts differ now; null for one that came in since.
alter table parcel add seen_seal jsonb, add changed text[] not null default '{}';
update parcel set seen_seal = seal;
