-- What comes in or goes is turned into JSON once, on its way to where it is kept: 50,000 cards of a first ledger took five seconds.
create or replace function note_content_change() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
declare
    of_book text := case when tg_table_name = 'book' then 't.id' else 't.book_id' end;
    subject text := coalesce((select string_agg(format('t.%I', k), ', ') from unnest(string_to_array(tg_argv[1], ',')) k), $q$''$q$);
    person bigint := nullif(current_setting('rendal.person', true), '')::bigint;
    those text;
begin
    if tg_op = 'UPDATE' then
        execute format(
            $sql$
            with changed as materialized (
                select a.book_id, a.subject, a.c from (select %1$s book_id, concat_ws(' ', %2$s) subject, to_jsonb(t) - $3 c from after_it t
                    except select %1$s, concat_ws(' ', %2$s), to_jsonb(t) - $3 from before_it t) a
            ), made as (
                insert into content_change (book_id, kind, person_id) select distinct book_id, $1, $2 from changed returning book_id, id
            )
            insert into changed_content (book_id, change_id, subject, content)
            select m.book_id, m.id, changed.subject, changed.c from changed join made m using (book_id) where changed.subject <> ''
            $sql$, of_book, subject)
            using tg_argv[0], person, string_to_array(tg_argv[2], ',');
        return null;
    end if;

    -- What came or went is all of it changed: it is turned into JSON once, on its way to where it is kept.
    those := case tg_op when 'INSERT' then 'after_it' else 'before_it' end;
    execute format(
        $sql$
        with made as (
            insert into content_change (book_id, kind, person_id) select distinct %1$s, $1, $2 from %3$I t returning book_id, id
        )
        insert into changed_content (book_id, change_id, subject, content)
        select m.book_id, m.id, concat_ws(' ', %2$s), case when $4 then to_jsonb(t) - $3 end from made m join %3$I t on %1$s = m.book_id
        where $5
        $sql$, of_book, subject, those)
        using tg_argv[0], person, string_to_array(tg_argv[2], ','), tg_op = 'INSERT', tg_argv[1] <> '';
    return null;
end $$;
